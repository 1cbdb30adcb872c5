import { serve } from '$lib/server/api/operation';
import { planOne } from '$lib/server/api/operations';

export const POST = serve(planOne);
