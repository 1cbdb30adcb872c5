import { serve } from '$lib/server/api/operation';
import { analyseOperations } from '$lib/server/api/operations/analyse';

export const POST = serve(analyseOperations.analyseSeries);
