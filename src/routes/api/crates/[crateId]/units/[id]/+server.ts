import { serve } from '$lib/server/api/operation';
import { updateUnit, deleteUnit } from '$lib/server/api/operations';

export const PUT = serve(updateUnit);
export const DELETE = serve(deleteUnit);
