import { serve } from '$lib/server/api/operation';
import { exportTable } from '$lib/server/api/operations';

export const GET = serve(exportTable);
