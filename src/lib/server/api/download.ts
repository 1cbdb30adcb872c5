/** An answer that a browser keeps as a file. */
export const download = (
  content: string | Uint8Array<ArrayBuffer> | ReadableStream<Uint8Array>,
  type: string,
  name: string
) =>
  new Response(content, {
    headers: {
      'content-type': type,
      // A name of our own making in plain letters; the real one follows in the encoding made for it.
      'content-disposition': `attachment; filename="${name.replace(/[^\w.-]+/g, '_')}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'no-store',
      // Whatever a file holds, it is never run as a page of this application.
      'content-security-policy': "sandbox; default-src 'none'"
    }
  });
