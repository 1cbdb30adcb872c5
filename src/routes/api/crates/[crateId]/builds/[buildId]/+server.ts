import { serve } from '$lib/server/api/operation';
import { getBuild, updateBuild, deleteBuild } from '$lib/server/api/operations';

export const GET = serve(getBuild);
export const PUT = serve(updateBuild);
export const DELETE = serve(deleteBuild);
