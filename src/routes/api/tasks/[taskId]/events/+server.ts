import { serve } from '$lib/server/api/operation';
import { taskOperations } from '$lib/server/api/operations/tasks';

export const GET = serve(taskOperations.taskEvents);
