import { serve } from '$lib/server/api/operation';
import { previewImport } from '$lib/server/api/operations';

export const POST = serve(previewImport);
