import { serve } from '$lib/server/api/operation';
import { buildNamesOperations } from '$lib/server/api/operations/build-names';

export const GET = serve(buildNamesOperations.findBuilds);
