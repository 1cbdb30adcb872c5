import { serve } from '$lib/server/api/operation';
import { pairOperations } from '$lib/server/api/operations/pairs';

export const GET = serve(pairOperations.listPairs);
export const POST = serve(pairOperations.createPair);
