import { serve } from '$lib/server/api/operation';
import { simulateOperations } from '$lib/server/api/operations/simulate';

export const POST = serve(simulateOperations.simulateOne);
