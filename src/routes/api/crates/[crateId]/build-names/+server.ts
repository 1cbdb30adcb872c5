import { serve } from '$lib/server/api/operation';
import { pickableOperations } from '$lib/server/api/operations/pickable';

export const GET = serve(pickableOperations.findBuilds);
