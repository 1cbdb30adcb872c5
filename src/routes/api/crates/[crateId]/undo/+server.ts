import { serve } from '$lib/server/api/operation';
import { undoOperations } from '$lib/server/api/operations/undo';

export const POST = serve(undoOperations.undoChange);
