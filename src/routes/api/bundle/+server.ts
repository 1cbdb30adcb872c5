import { serve } from '$lib/server/api/operation';
import { bundleOperations } from '$lib/server/api/operations/bundle';

export const POST = serve(bundleOperations.importBundle);
