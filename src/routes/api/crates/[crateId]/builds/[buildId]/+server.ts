import { serve } from '$lib/server/api/operation';
import { buildOperations } from '$lib/server/api/operations/builds';

export const GET = serve(buildOperations.getBuild);
export const PUT = serve(buildOperations.updateBuild);
export const DELETE = serve(buildOperations.deleteBuild);
