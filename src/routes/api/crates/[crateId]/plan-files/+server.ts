import { serve } from '$lib/server/api/operation';
import { planFileOperations } from '$lib/server/api/operations/plan-files';

export const POST = serve(planFileOperations.openPlanFile);
