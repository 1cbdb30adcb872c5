import { serve } from '$lib/server/api/operation';
import { health } from '$lib/server/api/operations';

export const GET = serve(health);
