import { serve } from '$lib/server/api/operation';
import { bundleJsonSchema } from '$lib/server/api/operations';

export const GET = serve(bundleJsonSchema);
