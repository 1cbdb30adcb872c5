import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));

/** The files of a folder and below, where the name of one fits. */
const filesBelow = (folder: string, pattern: RegExp): string[] =>
  readdirSync(join(root, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return filesBelow(path, pattern);
    return pattern.test(entry.name) ? [path] : [];
  });
const read = (file: string) => readFileSync(join(root, file), 'utf8');

const CODE = ['core', 'src', 'scripts', 'bench', 'tests', 'e2e'].flatMap((folder) =>
  filesBelow(folder, /\.(ts|svelte)$/)
);
const SHIPPED = CODE.filter((file) => /^(core|src\/lib)\//.test(file) && !file.endsWith('.test.ts'));
const PAGES = ['README.md', 'SECURITY.md', 'CONTRIBUTING.md', 'CHANGELOG.md', ...filesBelow('docs', /\.md$/)];

/** Names that an exported declaration gives, by the files that give them. */
function homes(files: readonly string[]): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const file of files)
    for (const [, name] of read(file).matchAll(
      /^export (?:async |abstract )?(?:const|let|function\*?|class|type|interface|enum) \*?\s*([\w$]+)/gm
    ))
      found.set(name!, [...(found.get(name!) ?? []), file]);
  return found;
}

describe('the house', () => {
  it('a name that is exported has one home', () => {
    const all = homes(SHIPPED);
    expect(all.size).toBeGreaterThan(500);
    expect([...all].filter(([, files]) => new Set(files).size > 1)).toEqual([]);
  });

  it('no type is forced through another one', () => {
    const forced = /\bas (?:unknown as|never)\b/;
    expect(CODE.length).toBeGreaterThan(300);
    expect(CODE.filter((file) => !file.endsWith('house.test.ts') && forced.test(read(file)))).toEqual([]);
  });

  it('a page sends its changes one way', () => {
    const own = CODE.filter((file) => file.endsWith('.svelte') && /\bsend\b.*\$lib\/client\/api'/.test(read(file)));
    // What begins a long task does so in src/lib/client.
    expect(own).toEqual([]);
  });

  it('an exception from a rule says why', () => {
    const exceptions = CODE.flatMap((file) =>
      read(file)
        .split('\n')
        .filter((line) => /^\s*(?:\/\/|<!--|\/\*) eslint-disable/.test(line))
        .map((line) => `${file}: ${line.trim()}`)
    );
    expect(exceptions.length).toBeGreaterThan(20);
    expect(exceptions.filter((line) => !/ -- \S+ \S+/.test(line))).toEqual([]);
  });

  it.each(PAGES)('%s: no line of text is longer than 120 signs', (page) => {
    let fenced = false;
    const long = read(page)
      .split('\n')
      .filter((line) => {
        if (line.startsWith('```')) fenced = !fenced;
        // a table has a row to a line, and an address cannot be broken
        return !fenced && !line.startsWith('|') && line.length > 120 && !/\S{80}/.test(line);
      });
    expect(long).toEqual([]);
  });

  it.each(PAGES)('%s: what it leads to is there', (page) => {
    const folder = page.includes('/') ? page.slice(0, page.lastIndexOf('/')) : '';
    const targets = [...read(page).matchAll(/\]\((?!https?:|#)([^)#]+)(?:#[^)]*)?\)/g)].map((m) => m[1]!);
    expect(targets.filter((target) => !existsSync(join(root, folder, target)))).toEqual([]);
  });
});
