import { serve } from '$lib/server/api/operation';
import { runSheetOperations } from '$lib/server/api/operations/run-sheet';

export const POST = serve(runSheetOperations.composeSheet);
