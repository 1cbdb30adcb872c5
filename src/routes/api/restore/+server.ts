import { serve } from '$lib/server/api/operation';
import { restoreOperations } from '$lib/server/api/operations/restore';

export const POST = serve(restoreOperations.restore);
