import { serve } from '$lib/server/api/operation';
import { updatePair, deletePair } from '$lib/server/api/operations';

export const PUT = serve(updatePair);
export const DELETE = serve(deletePair);
