import { serve } from '$lib/server/api/operation';
import { resetCrate } from '$lib/server/api/operations';

export const POST = serve(resetCrate);
