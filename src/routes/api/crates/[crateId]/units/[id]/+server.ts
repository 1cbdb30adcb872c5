import { serve } from '$lib/server/api/operation';
import { unitOperations } from '$lib/server/api/operations/units';

export const PUT = serve(unitOperations.updateUnit);
export const DELETE = serve(unitOperations.deleteUnit);
