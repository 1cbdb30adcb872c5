import { serve } from '$lib/server/api/operation';
import { buildOperations } from '$lib/server/api/operations/builds';

export const GET = serve(buildOperations.listBuilds);
export const POST = serve(buildOperations.createBuild);
