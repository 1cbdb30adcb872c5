import { serve } from '$lib/server/api/operation';
import { deleteCrate, getCrate, updateCrate } from '$lib/server/api/operations';

export const GET = serve(getCrate);
export const PUT = serve(updateCrate);
export const DELETE = serve(deleteCrate);
