import { serve } from '$lib/server/api/operation';
import { deleteQuote } from '$lib/server/api/operations';

export const DELETE = serve(deleteQuote);
