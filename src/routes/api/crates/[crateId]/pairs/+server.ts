import { serve } from '$lib/server/api/operation';
import { listPairs, createPair } from '$lib/server/api/operations';

export const GET = serve(listPairs);
export const POST = serve(createPair);
