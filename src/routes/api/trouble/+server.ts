import { serve } from '$lib/server/api/operation';
import { troubleOperations } from '$lib/server/api/operations/trouble';

export const POST = serve(troubleOperations.lookForCause);
