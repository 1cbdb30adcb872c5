import { serve } from '$lib/server/api/operation';
import { listRates, createRate } from '$lib/server/api/operations';

export const GET = serve(listRates);
export const POST = serve(createRate);
