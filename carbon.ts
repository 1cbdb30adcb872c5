import postcss from 'postcss';
import type { Plugin } from 'vite';

/** Looks of Carbon's components that this program has nowhere: the attribute that would ask for one, and the classes that dress it. */
export const LOOKS_LEFT_OUT: readonly { asks: RegExp; dresses: RegExp }[] = [
  { asks: /\bfluid\b/i, dresses: /--fluid/ },
  {
    asks: /\b(iconDescription|tooltip\w*|portalTooltip)\b|<(Tooltip|PasswordInput|HeaderAction)/,
    dresses: /^bx--tooltip/
  },
  { asks: /\btype="container"|\bfullWidth\b/, dresses: /^bx--tabs--(scrollable--)?(container|full-width)/ },
  { asks: /\bdismissible\b/, dresses: /^bx--tabs--dismissible/ },
  { asks: /\bexpandable\b/, dresses: /--expand(able|ed-search)/ },
  { asks: /\btype="inline"/, dresses: /^bx--list-box--inline/ }
];
/** The themes that this program has: the others of Carbon are left out. */
const THEMES = ['white', 'g100'];

const SEGMENTER = 'new Intl.Segmenter()';

/**
 * Makes Carbon fit for use without a network, small, and quick to begin.
 *
 * `carbon-local-fonts` removes its `@font-face` rules, all of which point at a remote host.
 * `carbon-purge` (builds only) drops the selectors whose `bx--` classes no emitted script mentions; a class that a
 * script builds from a prefix (`bx--btn--` + kind) keeps every selector with that prefix. What dresses a look that is
 * nowhere, the themes that are not these, and the custom properties that nothing reads go too: what is left is read and
 * matched before anything is on the screen.
 * `carbon-late-segmenter` has what counts letters made when it first counts: making it takes as long as the rest of a
 * page, and every page with a field would wait for it.
 */
export function carbon(): Plugin[] {
  return [
    {
      name: 'carbon-local-fonts',
      enforce: 'pre',
      transform: {
        filter: { id: /carbon-components-svelte\/css\/\w+\.css/ },
        handler: (code) => ({ code: code.replace(/@font-face\s*\{[^}]*\}/g, ''), map: null })
      }
    },
    {
      name: 'carbon-late-segmenter',
      transform: {
        filter: { id: /carbon-components-svelte\/src\/utils\/graphemeCount\.js/ },
        handler(code) {
          if (!code.includes(SEGMENTER)) this.error(`graphemeCount.js has no ${SEGMENTER} any more.`);
          const late = `{ made: undefined, segment(text) { return (this.made ??= ${SEGMENTER}).segment(text); } }`;
          return { code: code.replace(SEGMENTER, late), map: null };
        }
      }
    },
    {
      name: 'carbon-purge',
      apply: 'build',
      enforce: 'post',
      applyToEnvironment: (environment) => environment.config.consumer === 'client',
      generateBundle(_options, bundle) {
        const used = new Set<string>();
        const prefixes: string[] = [];
        for (const file of Object.values(bundle)) {
          if (file.type !== 'chunk') continue;
          for (const [name] of file.code.matchAll(/bx--[\w-]+/g)) {
            if (name.endsWith('-')) prefixes.push(name);
            else used.add(name);
          }
        }
        const isUsed = (name: string) =>
          name === 'bx--body' ||
          ((used.has(name) || prefixes.some((prefix) => name.startsWith(prefix))) &&
            !LOOKS_LEFT_OUT.some(({ dresses }) => dresses.test(name)));
        const keeps = (selector: string) =>
          (selector.replace(/:not\([^()]*\)/g, '').match(/\.bx--[\w-]+/g) ?? []).every((c) => isUsed(c.slice(1))) &&
          THEMES.includes(/^:root\[theme=['"]?(\w+)/.exec(selector)?.[1] ?? 'white');

        const sheets = Object.values(bundle).flatMap((file) =>
          file.type === 'asset' && file.fileName.endsWith('.css')
            ? [{ file, root: postcss.parse(String(file.source)) }]
            : []
        );
        for (const { root } of sheets)
          root.walkRules((rule) => {
            const kept = rule.selectors.filter(keeps);
            if (kept.length === 0) rule.remove();
            else if (kept.length < rule.selectors.length) rule.selectors = kept;
          });
        const scripts = Object.values(bundle).flatMap((file) => (file.type === 'chunk' ? [file.code] : []));
        dropUnread(
          sheets.map(({ root }) => root),
          scripts
        );
        for (const { file, root } of sheets) {
          root.walkAtRules((rule) => {
            if (rule.nodes?.length === 0) rule.remove();
          });
          file.source = root.toString();
        }
      }
    }
  ];
}

/** Drops the custom properties of Carbon that no rule and no script reads; one that only such a one reads goes with it. */
function dropUnread(roots: readonly postcss.Root[], scripts: readonly string[]): void {
  const inScripts = new Set(scripts.flatMap((code) => code.match(/--cds-[\w-]+/g) ?? []));
  for (;;) {
    const read = new Set(inScripts);
    for (const root of roots)
      root.walkDecls(({ value }) => {
        for (const [, name] of value.matchAll(/var\(\s*(--cds-[\w-]+)/g)) read.add(name!);
      });
    let dropped = 0;
    for (const root of roots)
      root.walkDecls(/^--cds-/, (declaration) => {
        if (read.has(declaration.prop)) return;
        declaration.remove();
        dropped += 1;
      });
    if (dropped === 0) return;
  }
}
