import { dirname, resolve } from 'node:path';
import type { Plugin, Rolldown } from 'vite';

/** A module of the program: how long it is, in characters, and what it imports. */
export type Module = { size: number; imports: readonly string[] };
type File = { modules: readonly string[]; size: number; pages: Set<number>; imports: Set<File> };

/** As much as a join costs at least, so that of two that cost nothing the one that saves more comes first. */
const LEAST = 0.001;
/** More files than this are never shared: one group is declared for each. */
const MOST_SHARED = 80;

/**
 * Lays the modules that several pages share in files, so that no page asks for more than `most` of them.
 *
 * Modules that are needed by the same pages stand in one file to begin with: no page then gets a line too many. While a
 * page still asks for too many, those two files become one that make pages get the fewest characters which they do not
 * need, for each request that is saved. Two are never joined if a third one stands between them: files that import each
 * other in a ring would run in the wrong order.
 *
 * @param modules every module by its id
 * @param pages for each page the modules that it begins with
 * @returns the modules of each shared file; a file comes after those that it imports. What one page alone needs is left out.
 */
export function filesFor(
  modules: ReadonlyMap<string, Module>,
  pages: readonly (readonly string[])[],
  most: number
): string[][] {
  let files = filesOfSamePages(modules, pages);
  for (;;) {
    const asked = pages.map((_, page) => files.filter((file) => file.pages.has(page)).length);
    if (Math.max(0, ...asked) <= most) break;
    const pair = cheapestPair(
      files,
      asked.map((count) => Math.max(0, count - most))
    );
    if (!pair) break;
    files = joined(files, pair);
  }
  return importedFirst(files).map(({ modules: ids }) => [...ids]);
}

/** Everything that a module needs, itself included. */
function needed(modules: ReadonlyMap<string, Module>, begin: string): Set<string> {
  const seen = new Set([begin]);
  for (const id of seen) for (const imported of modules.get(id)?.imports ?? []) seen.add(imported);
  return seen;
}

function filesOfSamePages(modules: ReadonlyMap<string, Module>, pages: readonly (readonly string[])[]): File[] {
  const entries = [...new Set(pages.flat())];
  const usedBy = new Map<string, number[]>();
  entries.forEach((entry, i) => {
    for (const id of needed(modules, entry)) usedBy.set(id, [...(usedBy.get(id) ?? []), i]);
  });
  const groups = new Map<string, string[]>();
  for (const [id, by] of usedBy) {
    if (by.length < 2 || entries.includes(id)) continue;
    groups.set(by.join(), [...(groups.get(by.join()) ?? []), id]);
  }
  const fileOf = new Map<string, File>();
  const files = [...groups].map(([by, ids]): File => {
    const using = new Set(by.split(',').map((i) => entries[Number(i)]));
    const on = pages.flatMap((begins, page) => (begins.some((entry) => using.has(entry)) ? [page] : []));
    const size = ids.reduce((sum, id) => sum + (modules.get(id)?.size ?? 0), 0);
    const file: File = { modules: ids, size, pages: new Set(on), imports: new Set() };
    for (const id of ids) fileOf.set(id, file);
    return file;
  });
  for (const file of files)
    for (const id of file.modules)
      for (const imported of modules.get(id)?.imports ?? []) {
        const other = fileOf.get(imported);
        if (other && other !== file) file.imports.add(other);
      }
  return files;
}

/** @param tooMany for each page how many files it asks for beyond what is wanted */
function cheapestPair(files: readonly File[], tooMany: readonly number[]): [File, File] | undefined {
  const toLoad = new Map(files.map((file) => [file, tooMany.map((_, page) => loading(file, page))]));
  const sizeOf = tooMany.map((_, page) => sum(files.filter((file) => file.pages.has(page))));
  const pairs: { cost: number; pair: [File, File] }[] = [];
  files.forEach((one, i) => {
    for (const other of files.slice(i + 1)) {
      let saved = 0;
      let unneeded = LEAST;
      for (const [file, second] of [
        [one, other],
        [other, one]
      ] as const)
        for (const page of file.pages) {
          const load = toLoad.get(second)![page]!;
          // By how much it grows: a short page is to stay one.
          unneeded += load.size / (sizeOf[page]! + load.size);
          // Where a page has both, one request is saved; counted from both sides, so by halves.
          saved += tooMany[page]! * (load.files === 0 ? 0.5 : 1 - load.files);
        }
      if (saved > 0) pairs.push({ cost: unneeded / saved, pair: [one, other] });
    }
  });
  return pairs
    .sort((a, b) => a.cost - b.cost)
    .find(({ pair: [one, other] }) => !between(one, other) && !between(other, one))?.pair;
}

/** What a page would have to load beside what it has, were a file on it: the file and all that it imports. */
function loading(file: File, page: number): { size: number; files: number } {
  const more = file.pages.has(page) ? [] : [file, ...imported(file)].filter(({ pages }) => !pages.has(page));
  return { size: sum(more), files: more.length };
}

const sum = (files: readonly File[]): number => files.reduce((all, { size }) => all + size, 0);

/** All that a file imports, and that those import in their turn. */
function imported(file: File): Set<File> {
  const seen = new Set(file.imports);
  for (const one of seen) for (const next of one.imports) seen.add(next);
  return seen;
}

/** Whether `from` imports a file that in its turn needs `to`. */
function between(from: File, to: File): boolean {
  const seen = new Set([...from.imports].filter((file) => file !== to));
  for (const file of seen)
    for (const next of file.imports) {
      if (next === to) return true;
      seen.add(next);
    }
  return false;
}

function joined(files: readonly File[], [one, other]: [File, File]): File[] {
  const both: File = {
    modules: [...one.modules, ...other.modules],
    size: one.size + other.size,
    pages: new Set([...one.pages, ...other.pages]),
    imports: new Set([...one.imports, ...other.imports].filter((file) => file !== one && file !== other))
  };
  const rest = files.filter((file) => file !== one && file !== other);
  for (const file of rest)
    // Both are taken away, whichever was there.
    if ([file.imports.delete(one), file.imports.delete(other)].includes(true)) file.imports.add(both);
  for (const file of imported(both)) file.pages = new Set([...file.pages, ...both.pages]);
  return [...rest, both];
}

function importedFirst(files: readonly File[]): File[] {
  const order = new Set<File>();
  const put = (file: File): void => {
    if (order.has(file)) return;
    file.imports.forEach(put);
    order.add(file);
  };
  files.forEach(put);
  return [...order];
}

type Listed = { isEntry?: boolean; imports?: string[]; css?: string[] };
/** What the build says of its files, by the name of each. */
export type Manifest = Record<string, Listed>;
const MANIFEST = '.vite/manifest.json';

/**
 * Names with each entry the styles of all that it imports. A page is sent with the styles that are found by following its imports; one
 * that is met first on the way to something loaded later would be taken for that thing's, and come too late.
 */
export function withAllStyles(manifest: Manifest): Manifest {
  return Object.fromEntries(
    Object.entries(manifest).map(([name, listed]) => {
      if (!listed.isEntry) return [name, listed];
      const seen = new Set([name]);
      for (const one of seen) for (const next of manifest[one]?.imports ?? []) seen.add(next);
      const css = [...new Set([...seen].flatMap((one) => manifest[one]?.css ?? []))];
      return [name, css.length > 0 ? { ...listed, css } : listed];
    })
  );
}

/** Makes the build lay out the scripts of the pages by `filesFor`. */
export function pageFiles({ most = 13 } = {}): Plugin {
  let files: Set<string>[] = [];
  const groups = Array.from({ length: MOST_SHARED }, (_, i) => ({
    name: 'shared',
    // What is imported comes first: a group takes along all that its modules import and no earlier group has taken.
    priority: MOST_SHARED - i,
    test: (id: string) => files[i]?.has(id) ?? false
  }));
  return {
    name: 'page-files',
    apply: 'build',
    configEnvironment: (name) =>
      name === 'client' ? { build: { rolldownOptions: { output: { codeSplitting: { groups } } } } } : undefined,
    buildEnd(error) {
      if (error || this.environment.name !== 'client') return;
      const { modules, pages } = read(this);
      files = filesFor(modules, pages, most).map((ids) => new Set(ids));
      if (files.length > MOST_SHARED) this.error(`${files.length} shared files, and ${MOST_SHARED} groups for them.`);
    },
    generateBundle: {
      order: 'post',
      handler(_options, bundle) {
        const list = bundle[MANIFEST];
        if (list?.type === 'asset')
          list.source = JSON.stringify(withAllStyles(JSON.parse(String(list.source)) as Manifest));
      }
    }
  };
}

/** The modules as the bundler knows them, and the pages as the list of routes has them. */
function read(context: Rolldown.PluginContext): { modules: Map<string, Module>; pages: string[][] } {
  const infos = [...context.getModuleIds()].flatMap((id) => context.getModuleInfo(id) ?? []);
  const passedOn = new Map(infos.flatMap(({ id, code }) => (code && passesOn(code) ? [[id, passedBy(id, code)]] : [])));
  const modules = new Map(
    infos.map(({ id, code, importedIds }) => {
      const names = namesIn(code ?? '');
      const imports = importedIds.flatMap((imported) => {
        const passed = passedOn.get(imported);
        return passed && names ? [...passed].flatMap(([name, from]) => (names.has(name) ? [from] : [])) : [imported];
      });
      return [id, { size: code?.length ?? 0, imports }] as const;
    })
  );
  const entryOf = (name: string) => infos.find(({ id, isEntry }) => isEntry && id.endsWith(name))?.id;
  const app = infos.find(({ id, isEntry }) => isEntry && id.endsWith('/client-optimized/app.js'));
  const start = infos.find(({ id, isEntry }) => isEntry && /\/client\/entry\.js$/.test(id));
  const routes = [...(app?.code ?? '').matchAll(/"\/[^"]*": ?\[~?(\d+)(?:, ?\[([\d, ]*)\])?\]/g)];
  if (!app || !start || routes.length === 0) context.error('The list of routes is not where it was.');
  return {
    modules,
    pages: routes.map(([, page, layouts = '']) =>
      [
        app.id,
        start.id,
        ...['0', ...layouts.split(','), page].map((node) => entryOf(`/nodes/${node?.trim()}.js`))
      ].filter((id) => id !== undefined)
    )
  };
}

const PASSED = /export\s*(?:\*|\{([^}]*)\})\s*from\s*['"]([^'"]+)['"];?/g;
/** Whether a module does nothing but pass on what others export: who imports one name of it needs one module. */
const passesOn = (code: string): boolean =>
  code
    .replace(PASSED, '')
    .replace(/\/\*[\s\S]*?\*\/|\/\/.*/g, '')
    .trim() === '' && !/export\s*\*/.test(code);
function passedBy(id: string, code: string): Map<string, string> {
  const found = new Map<string, string>();
  for (const [, names = '', from = ''] of code.matchAll(PASSED))
    for (const name of names.split(','))
      found.set(
        name
          .split(/\sas\s/)
          .pop()!
          .trim(),
        resolve(dirname(id), from)
      );
  return found;
}

/** The names that a module takes from others; nothing where it takes everything. */
function namesIn(code: string): Set<string> | undefined {
  if (/export\s*\*\s*from/.test(code)) return undefined;
  const names = new Set<string>();
  for (const [, list = ''] of code.matchAll(/import\s*(?:[\w$]+\s*,\s*)?\{([^}]*)\}\s*from/g))
    for (const name of list.split(',')) names.add(name.split(/\sas\s/)[0]!.trim());
  for (const [, space = ''] of code.matchAll(/import\s*\*\s*as\s*([\w$]+)\s*from/g))
    for (const [, name = ''] of code.matchAll(new RegExp(`${space.replaceAll('$', '\\$')}\\s*\\.\\s*([\\w$]+)`, 'g')))
      names.add(name);
  return names;
}
