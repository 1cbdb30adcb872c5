import { serve } from '$lib/server/api/operation';
import { exportBundle } from '$lib/server/api/operations';

export const GET = serve(exportBundle);
