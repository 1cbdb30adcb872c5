import { serve } from '$lib/server/api/operation';
import { checkOut } from '$lib/server/api/operations';

export const POST = serve(checkOut);
