import { serve } from '$lib/server/api/operation';
import { restore } from '$lib/server/api/operations';

export const POST = serve(restore);
