import { serve } from '$lib/server/api/operation';
import { attachmentOperations } from '$lib/server/api/operations/attachments';

export const GET = serve(attachmentOperations.listAttachments);
export const POST = serve(attachmentOperations.createAttachment);
