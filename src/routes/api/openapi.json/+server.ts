import { json } from '@sveltejs/kit';
import { openApiDocument } from '$lib/server/api/openapi';

export const GET = () => json(openApiDocument());
