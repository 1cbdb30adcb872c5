import { serve } from '$lib/server/api/operation';
import { listUnits, createUnit } from '$lib/server/api/operations';

export const GET = serve(listUnits);
export const POST = serve(createUnit);
