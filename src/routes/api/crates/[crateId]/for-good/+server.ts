import { serve } from '$lib/server/api/operation';
import { purgeCrate } from '$lib/server/api/operations';

export const DELETE = serve(purgeCrate);
