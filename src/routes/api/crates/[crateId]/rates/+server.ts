import { serve } from '$lib/server/api/operation';
import { rateOperations } from '$lib/server/api/operations/rates';

export const GET = serve(rateOperations.listRates);
export const POST = serve(rateOperations.createRate);
