import { serve } from '$lib/server/api/operation';
import { rankOperations } from '$lib/server/api/operations/rank';

export const POST = serve(rankOperations.rankParts);
