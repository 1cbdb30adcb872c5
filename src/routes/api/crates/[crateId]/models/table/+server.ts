import { serve } from '$lib/server/api/operation';
import { listModelTable } from '$lib/server/api/operations';

export const GET = serve(listModelTable);
