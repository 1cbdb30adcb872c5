import { serve } from '$lib/server/api/operation';
import { taskOperations } from '$lib/server/api/operations/tasks';

export const POST = serve(taskOperations.cancel);
