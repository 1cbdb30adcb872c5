import { serve } from '$lib/server/api/operation';
import { quoteOperations } from '$lib/server/api/operations/quotes';

export const DELETE = serve(quoteOperations.deleteQuote);
export const PUT = serve(quoteOperations.updateQuote);
