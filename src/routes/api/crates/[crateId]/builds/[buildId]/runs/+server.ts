import { serve } from '$lib/server/api/operation';
import { listRuns, createRun } from '$lib/server/api/operations';

export const GET = serve(listRuns);
export const POST = serve(createRun);
