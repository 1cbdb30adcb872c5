import { serve } from '$lib/server/api/operation';
import { bundleOperations } from '$lib/server/api/operations/bundle';

export const GET = serve(bundleOperations.exportBundle);
