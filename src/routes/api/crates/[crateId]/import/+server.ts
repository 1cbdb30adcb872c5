import { serve } from '$lib/server/api/operation';
import { importOperations } from '$lib/server/api/operations/import';

export const POST = serve(importOperations.startImport);
