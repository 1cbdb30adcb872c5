import { serve } from '$lib/server/api/operation';
import { listBuilds, createBuild } from '$lib/server/api/operations';

export const GET = serve(listBuilds);
export const POST = serve(createBuild);
