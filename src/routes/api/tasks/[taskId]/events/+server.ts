import { serve } from '$lib/server/api/operation';
import { taskEvents } from '$lib/server/api/operations';

export const GET = serve(taskEvents);
