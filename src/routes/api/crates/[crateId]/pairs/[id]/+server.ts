import { serve } from '$lib/server/api/operation';
import { pairOperations } from '$lib/server/api/operations/pairs';

export const PUT = serve(pairOperations.updatePair);
export const DELETE = serve(pairOperations.deletePair);
