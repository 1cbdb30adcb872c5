import { serve } from '$lib/server/api/operation';
import { listCrates, createCrate } from '$lib/server/api/operations';

export const GET = serve(listCrates);
export const POST = serve(createCrate);
