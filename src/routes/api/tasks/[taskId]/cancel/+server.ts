import { serve } from '$lib/server/api/operation';
import { cancel } from '$lib/server/api/operations';

export const POST = serve(cancel);
