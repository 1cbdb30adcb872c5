import { serve } from '$lib/server/api/operation';
import { ladderOperations } from '$lib/server/api/operations/ladder';

export const POST = serve(ladderOperations.capacityLadder);
