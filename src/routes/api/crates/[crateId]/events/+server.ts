import { serve } from '$lib/server/api/operation';
import { eventOperations } from '$lib/server/api/operations/events';

export const GET = serve(eventOperations.listEventsOf);
