import { serve } from '$lib/server/api/operation';
import { searchOperations } from '$lib/server/api/operations/search';

export const GET = serve(searchOperations.findEverything);
