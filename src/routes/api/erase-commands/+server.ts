import { serve } from '$lib/server/api/operation';
import { eraseCommandOperations } from '$lib/server/api/operations/erase-commands';

export const POST = serve(eraseCommandOperations.eraseCommands);
