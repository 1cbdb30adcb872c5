import { serve } from '$lib/server/api/operation';
import { runOperations } from '$lib/server/api/operations/runs';

export const GET = serve(runOperations.getRun);
export const PUT = serve(runOperations.updateRun);
export const DELETE = serve(runOperations.deleteCrateRun);
