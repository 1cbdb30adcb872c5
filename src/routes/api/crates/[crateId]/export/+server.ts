import { serve } from '$lib/server/api/operation';
import { exportOperations } from '$lib/server/api/operations/export';

export const GET = serve(exportOperations.exportTable);
