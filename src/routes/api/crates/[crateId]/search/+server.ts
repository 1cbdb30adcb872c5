import { serve } from '$lib/server/api/operation';
import { findEverything } from '$lib/server/api/operations';

export const GET = serve(findEverything);
