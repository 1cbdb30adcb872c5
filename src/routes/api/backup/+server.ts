import { serve } from '$lib/server/api/operation';
import { downloadBackup } from '$lib/server/api/operations';

export const GET = serve(downloadBackup);
