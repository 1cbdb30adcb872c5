import { serve } from '$lib/server/api/operation';
import { getCrate } from '$lib/server/api/operations';

export const GET = serve(getCrate);
