import { serve } from '$lib/server/api/operation';
import { startImport } from '$lib/server/api/operations';

export const POST = serve(startImport);
