import { serve } from '$lib/server/api/operation';
import { simulateOne } from '$lib/server/api/operations';

export const POST = serve(simulateOne);
