import { serve } from '$lib/server/api/operation';
import { diskOperations } from '$lib/server/api/operations/disks';

export const GET = serve(diskOperations.listDisks);
