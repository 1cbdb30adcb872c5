import { serve } from '$lib/server/api/operation';
import { listAttachments, createAttachment } from '$lib/server/api/operations';

export const GET = serve(listAttachments);
export const POST = serve(createAttachment);
