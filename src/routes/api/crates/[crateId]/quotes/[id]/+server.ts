import { serve } from '$lib/server/api/operation';
import { deleteQuote, updateQuote } from '$lib/server/api/operations';

export const DELETE = serve(deleteQuote);
export const PUT = serve(updateQuote);
