import { serve } from '$lib/server/api/operation';
import { listModels, createModel } from '$lib/server/api/operations';

export const GET = serve(listModels);
export const POST = serve(createModel);
