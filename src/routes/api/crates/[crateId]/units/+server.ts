import { serve } from '$lib/server/api/operation';
import { unitOperations } from '$lib/server/api/operations/units';

export const GET = serve(unitOperations.listUnits);
export const POST = serve(unitOperations.createUnit);
