import { serve } from '$lib/server/api/operation';
import { readAttachment, deleteAttachment } from '$lib/server/api/operations';

export const GET = serve(readAttachment);
export const DELETE = serve(deleteAttachment);
