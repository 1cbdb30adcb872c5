import { serve } from '$lib/server/api/operation';
import { observationOperations } from '$lib/server/api/operations/observations';

export const DELETE = serve(observationOperations.deleteObservation);
