import { serve } from '$lib/server/api/operation';
import { setStage } from '$lib/server/api/operations';

export const PUT = serve(setStage);
