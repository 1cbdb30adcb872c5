import { serve } from '$lib/server/api/operation';
import { getCrate, updateCrate } from '$lib/server/api/operations';

export const GET = serve(getCrate);
export const PUT = serve(updateCrate);
