import { serve } from '$lib/server/api/operation';
import { getModel, updateModel, deleteModel } from '$lib/server/api/operations';

export const GET = serve(getModel);
export const PUT = serve(updateModel);
export const DELETE = serve(deleteModel);
