import { json, type RequestHandler } from '@sveltejs/kit';

/** What is no operation of the API is told so in its own error shape, not with a page. */
export const fallback: RequestHandler = ({ request, url }) =>
  json(
    {
      error: {
        code: 'not-found',
        message: `There is no ${request.method} ${url.pathname}; see /api/openapi.json.`,
        fields: []
      }
    },
    { status: 404 }
  );
