import { serve } from '$lib/server/api/operation';
import { listEventsOf } from '$lib/server/api/operations';

export const GET = serve(listEventsOf);
