import { serve } from '$lib/server/api/operation';
import { jobOperations } from '$lib/server/api/operations/jobs';

export const PUT = serve(jobOperations.updateJob);
export const DELETE = serve(jobOperations.deleteJob);
