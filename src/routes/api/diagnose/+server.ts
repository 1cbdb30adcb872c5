import { serve } from '$lib/server/api/operation';
import { diagnoseOperations } from '$lib/server/api/operations/diagnose';

export const POST = serve(diagnoseOperations.diagnoseResult);
