import { serve } from '$lib/server/api/operation';
import { deleteObservation } from '$lib/server/api/operations';

export const DELETE = serve(deleteObservation);
