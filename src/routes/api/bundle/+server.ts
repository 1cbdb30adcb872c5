import { serve } from '$lib/server/api/operation';
import { importBundle } from '$lib/server/api/operations';

export const POST = serve(importBundle);
