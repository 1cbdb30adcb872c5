import postcss from 'postcss';
import type { Plugin } from 'vite';

const SEGMENTER = 'new Intl.Segmenter()';

/**
 * Makes Carbon fit for use without a network, small, and quick to begin.
 *
 * `carbon-local-fonts` removes its `@font-face` rules, all of which point at a remote host.
 * `carbon-purge` (builds only) drops the selectors whose `bx--` classes no emitted script mentions; a class that a
 * script builds from a prefix (`bx--btn--` + kind) keeps every selector with that prefix.
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
          name === 'bx--body' || used.has(name) || prefixes.some((prefix) => name.startsWith(prefix));
        const keeps = (selector: string) =>
          (selector.replace(/:not\([^()]*\)/g, '').match(/\.bx--[\w-]+/g) ?? []).every((c) => isUsed(c.slice(1)));

        for (const file of Object.values(bundle)) {
          if (file.type !== 'asset' || !file.fileName.endsWith('.css')) continue;
          const root = postcss.parse(String(file.source));
          root.walkRules((rule) => {
            const kept = rule.selectors.filter(keeps);
            if (kept.length === 0) rule.remove();
            else if (kept.length < rule.selectors.length) rule.selectors = kept;
          });
          root.walkAtRules((rule) => {
            if (rule.nodes?.length === 0) rule.remove();
          });
          file.source = root.toString();
        }
      }
    }
  ];
}
