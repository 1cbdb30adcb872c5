import { serve } from '$lib/server/api/operation';
import { quoteOperations } from '$lib/server/api/operations/quotes';

export const GET = serve(quoteOperations.listQuotes);
export const POST = serve(quoteOperations.createQuote);
