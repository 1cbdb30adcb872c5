import { serve } from '$lib/server/api/operation';
import { observationOperations } from '$lib/server/api/operations/observations';

export const GET = serve(observationOperations.listObservations);
export const POST = serve(observationOperations.createObservation);
