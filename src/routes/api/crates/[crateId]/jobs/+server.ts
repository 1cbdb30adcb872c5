import { serve } from '$lib/server/api/operation';
import { jobOperations } from '$lib/server/api/operations/jobs';

export const GET = serve(jobOperations.listJobs);
export const POST = serve(jobOperations.createJob);
