import { serve } from '$lib/server/api/operation';
import { editModels, deleteModels } from '$lib/server/api/operations';

export const PUT = serve(editModels);
export const DELETE = serve(deleteModels);
