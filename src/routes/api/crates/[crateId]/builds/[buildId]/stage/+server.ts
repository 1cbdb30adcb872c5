import { serve } from '$lib/server/api/operation';
import { buildOperations } from '$lib/server/api/operations/builds';

export const PUT = serve(buildOperations.setStage);
