import { serve } from '$lib/server/api/operation';
import { crateOperations } from '$lib/server/api/operations/crates';

export const GET = serve(crateOperations.getCrate);
export const PUT = serve(crateOperations.updateCrate);
export const DELETE = serve(crateOperations.deleteCrate);
