import { serve } from '$lib/server/api/operation';
import { checkIn } from '$lib/server/api/operations';

export const POST = serve(checkIn);
