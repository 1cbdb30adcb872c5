import { serve } from '$lib/server/api/operation';
import { undoChange } from '$lib/server/api/operations';

export const POST = serve(undoChange);
