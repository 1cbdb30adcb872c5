import { serve } from '$lib/server/api/operation';
import { rankParts } from '$lib/server/api/operations';

export const POST = serve(rankParts);
