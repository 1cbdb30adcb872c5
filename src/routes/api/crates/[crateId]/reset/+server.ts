import { serve } from '$lib/server/api/operation';
import { crateOperations } from '$lib/server/api/operations/crates';

export const POST = serve(crateOperations.resetCrate);
