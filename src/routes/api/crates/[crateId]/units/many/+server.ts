import { serve } from '$lib/server/api/operation';
import { unitOperations } from '$lib/server/api/operations/units';

export const POST = serve(unitOperations.addUnits);
export const PUT = serve(unitOperations.editUnits);
export const DELETE = serve(unitOperations.deleteUnits);
