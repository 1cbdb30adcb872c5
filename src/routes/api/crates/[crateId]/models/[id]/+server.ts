import { serve } from '$lib/server/api/operation';
import { modelOperations } from '$lib/server/api/operations/models';

export const GET = serve(modelOperations.getModel);
export const PUT = serve(modelOperations.updateModel);
export const DELETE = serve(modelOperations.deleteModel);
