import { serve } from '$lib/server/api/operation';
import { rankCrate } from '$lib/server/api/operations';

export const POST = serve(rankCrate);
