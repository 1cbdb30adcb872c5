import { serve } from '$lib/server/api/operation';
import { rigOperations } from '$lib/server/api/operations/rig-runs';

export const GET = serve(rigOperations.runEvents);
