import { serve } from '$lib/server/api/operation';
import { getTask } from '$lib/server/api/operations';

export const GET = serve(getTask);
