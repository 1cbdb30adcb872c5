import { serve } from '$lib/server/api/operation';
import { listJobs, createJob } from '$lib/server/api/operations';

export const GET = serve(listJobs);
export const POST = serve(createJob);
