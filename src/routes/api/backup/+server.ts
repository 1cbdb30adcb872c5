import { serve } from '$lib/server/api/operation';
import { backupOperations } from '$lib/server/api/operations/backup';

export const GET = serve(backupOperations.downloadBackup);
