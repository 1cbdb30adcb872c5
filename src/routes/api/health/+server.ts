import { serve } from '$lib/server/api/operation';
import { healthOperations } from '$lib/server/api/operations/health';

export const GET = serve(healthOperations.health);
