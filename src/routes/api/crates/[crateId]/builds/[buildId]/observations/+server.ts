import { serve } from '$lib/server/api/operation';
import { createObservation, listObservations } from '$lib/server/api/operations';

export const GET = serve(listObservations);
export const POST = serve(createObservation);
