import { serve } from '$lib/server/api/operation';
import { updateJob, deleteJob } from '$lib/server/api/operations';

export const PUT = serve(updateJob);
export const DELETE = serve(deleteJob);
