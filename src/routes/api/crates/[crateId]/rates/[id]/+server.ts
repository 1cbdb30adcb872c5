import { serve } from '$lib/server/api/operation';
import { deleteRate } from '$lib/server/api/operations';

export const DELETE = serve(deleteRate);
