/** Where the framework's own line in the page asks for its first two scripts. */
const BEGINS = /Promise\.all\((\[\s*import\([^\]]*\])\)/;

/**
 * Has a page ask for its scripts once it was painted: reading them at the same time takes the processors from the painting. A page
 * in a tab that nobody sees is not painted, and asks at once.
 * @param html the page or a part of it, as the framework wrote it; a part without a head and without its first line stays as it is
 * @param scripts the paths of all scripts that the page will need
 * @returns the same with its scripts told in links that ask for nothing yet (`rel="later"`), which the first line turns into
 *   `modulepreload`: hooks.client.ts reads them there
 */
export function scriptsAfterPaint(html: string, scripts: readonly string[]): string {
  const links = scripts.map((path) => `<link rel="later" href="${path}">`).join('');
  return html
    .replace('</head>', () => `${links}</head>`)
    .replace(
      BEGINS,
      (_, imports: string) =>
        `window.pagePainted.then(() => {
						for (const link of document.querySelectorAll('link[rel="later"]')) link.rel = 'modulepreload';
						return Promise.all(${imports});
					})`
    );
}
