import { serve } from '$lib/server/api/operation';
import { bringBackCrate } from '$lib/server/api/operations';

export const POST = serve(bringBackCrate);
