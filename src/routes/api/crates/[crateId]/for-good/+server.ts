import { serve } from '$lib/server/api/operation';
import { crateOperations } from '$lib/server/api/operations/crates';

export const DELETE = serve(crateOperations.purgeCrate);
