import { serve } from '$lib/server/api/operation';
import { sheetOperations } from '$lib/server/api/operations/sheets';

export const POST = serve(sheetOperations.addChecks);
