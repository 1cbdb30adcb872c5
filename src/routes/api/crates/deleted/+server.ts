import { serve } from '$lib/server/api/operation';
import { listDeletedCrates } from '$lib/server/api/operations';

export const GET = serve(listDeletedCrates);
