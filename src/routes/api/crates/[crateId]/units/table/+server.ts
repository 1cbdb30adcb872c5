import { serve } from '$lib/server/api/operation';
import { listUnitTable } from '$lib/server/api/operations';

export const GET = serve(listUnitTable);
