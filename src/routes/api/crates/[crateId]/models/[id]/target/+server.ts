import { serve } from '$lib/server/api/operation';
import { setTarget } from '$lib/server/api/operations';

export const PUT = serve(setTarget);
