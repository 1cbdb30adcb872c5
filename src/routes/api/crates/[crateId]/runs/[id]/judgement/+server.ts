import { serve } from '$lib/server/api/operation';
import { runOperations } from '$lib/server/api/operations/runs';

export const GET = serve(runOperations.judgeRun);
