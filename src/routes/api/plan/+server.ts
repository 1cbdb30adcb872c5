import { serve } from '$lib/server/api/operation';
import { planOperations } from '$lib/server/api/operations/plan';

export const POST = serve(planOperations.planOne);
