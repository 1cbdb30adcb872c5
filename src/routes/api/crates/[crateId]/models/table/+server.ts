import { serve } from '$lib/server/api/operation';
import { modelOperations } from '$lib/server/api/operations/models';

export const GET = serve(modelOperations.listModelTable);
