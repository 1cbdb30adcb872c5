import { serve } from '$lib/server/api/operation';
import { deleteRun } from '$lib/server/api/operations';

export const DELETE = serve(deleteRun);
