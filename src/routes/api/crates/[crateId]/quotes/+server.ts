import { serve } from '$lib/server/api/operation';
import { listQuotes, createQuote } from '$lib/server/api/operations';

export const GET = serve(listQuotes);
export const POST = serve(createQuote);
