import { serve } from '$lib/server/api/operation';
import { addUnits, editUnits, deleteUnits } from '$lib/server/api/operations';

export const POST = serve(addUnits);
export const PUT = serve(editUnits);
export const DELETE = serve(deleteUnits);
