import { serve } from '$lib/server/api/operation';
import { rateOperations } from '$lib/server/api/operations/rates';

export const DELETE = serve(rateOperations.deleteRate);
