import { serve } from '$lib/server/api/operation';
import { rigOperations } from '$lib/server/api/operations/rig-runs';

export const POST = serve(rigOperations.cancelRigRun);
