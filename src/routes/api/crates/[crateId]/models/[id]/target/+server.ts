import { serve } from '$lib/server/api/operation';
import { modelOperations } from '$lib/server/api/operations/models';

export const PUT = serve(modelOperations.setTarget);
