/** What a page that stands alone looks like: no file beside it is needed. */
const STYLE = `body{font:14px/1.5 system-ui,sans-serif;max-width:60rem;margin:2rem auto;padding:0 1rem;color:#222}
table{border-collapse:collapse;margin:0 0 1rem}caption{font-weight:700;text-align:left}th,td{padding:2px 14px 2px 0;text-align:left;vertical-align:top;border-bottom:1px solid #ddd;font-weight:400;overflow-wrap:anywhere}
h2{margin:0}li{margin-left:1.2em}`;

/**
 * A page of its own from an element that is drawn already: text stays text, and nothing in it runs or loads anything.
 * @param title of the page
 */
export function standAlone(element: HTMLElement, title: string): string {
  const page = document.implementation.createHTMLDocument(title);
  page.documentElement.lang = 'en';
  const charset = page.createElement('meta');
  charset.setAttribute('charset', 'utf-8');
  const style = page.createElement('style');
  style.textContent = STYLE;
  page.head.prepend(charset);
  page.head.append(style);
  const copy = element.cloneNode(true) as HTMLElement;
  for (const one of [copy, ...copy.querySelectorAll('*')]) one.removeAttribute('class');
  page.body.append(page.importNode(copy, true));
  return `<!doctype html>\n${page.documentElement.outerHTML}\n`;
}
