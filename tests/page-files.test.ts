import { describe, expect, it } from 'vitest';
import { seeded } from '#core/quantities/random';
import { filesFor, withAllStyles, type Manifest, type Module } from '../page-files.ts';

type Sizes = Record<string, [size: number, ...imports: string[]]>;
const modulesOf = (sizes: Sizes) =>
  new Map<string, Module>(Object.entries(sizes).map(([id, [size, ...imports]]) => [id, { size, imports }]));
/** The shared files that a page asks for: those with something that it needs, and all that these import. */
function askedBy(modules: ReadonlyMap<string, Module>, files: readonly string[][], begin: readonly string[]): number[] {
  const seen = new Set(begin);
  for (const id of seen) {
    for (const next of modules.get(id)?.imports ?? []) seen.add(next);
    for (const file of files) if (file.includes(id)) for (const other of file) seen.add(other);
  }
  return files.flatMap((file, i) => (file.some((id) => seen.has(id)) ? [i] : []));
}

describe('files that pages share', () => {
  it('keeps together what the same pages need, and nothing else', () => {
    const modules = modulesOf({
      a: [1, 'table', 'words'],
      b: [1, 'table', 'words', 'chart'],
      c: [1, 'words', 'chart'],
      table: [500],
      words: [300, 'letters'],
      letters: [40],
      chart: [900]
    });
    // table: a and b. words and letters: all three. chart: b and c.
    expect(filesFor(modules, [['a'], ['b'], ['c']], 9).map((ids) => [...ids].sort())).toEqual([
      ['table'],
      ['letters', 'words'],
      ['chart']
    ]);
  });

  it('joins the two that make pages grow least', () => {
    const modules = modulesOf({
      a: [1, 'x', 'y', 'z'],
      b: [1, 'x', 'y'],
      c: [1, 'x', 'z'],
      d: [1, 'y', 'z'],
      x: [100],
      y: [10],
      z: [10]
    });
    // a asks for three. x with y: c grows by 10 of 120, d by 100 of 120. y with z: b and c grow by 10 of 120 each, which is least.
    const files = filesFor(modules, [['a'], ['b'], ['c'], ['d']], 2);
    expect(files.map((ids) => [...ids].sort())).toEqual(expect.arrayContaining([['x'], ['y', 'z']]));
    expect(files).toHaveLength(2);
  });

  it('leaves in the file of a page what it alone needs', () => {
    const modules = modulesOf({ a: [1, 'own', 'both'], b: [1, 'both'], own: [70], both: [5] });
    expect(filesFor(modules, [['a'], ['b']], 9)).toEqual([['both']]);
  });

  it('joins no two that a third one stands between', () => {
    // top needs middle needs bottom: top and bottom in one file would import middle and be imported by it.
    const modules = modulesOf({
      a: [1, 'top'],
      b: [1, 'top'],
      c: [1, 'middle'],
      d: [1, 'bottom'],
      top: [1, 'middle'],
      middle: [50_000, 'bottom'],
      bottom: [1]
    });
    const files = filesFor(modules, [['a'], ['b'], ['c'], ['d']], 2);
    expect(files.some((ids) => ids.includes('top') && ids.includes('bottom') && !ids.includes('middle'))).toBe(false);
  });

  it('takes modules that import each other in a ring as one', () => {
    const modules = modulesOf({ a: [1, 'x'], b: [1, 'y'], x: [1, 'y'], y: [1, 'x'] });
    expect(filesFor(modules, [['a'], ['b']], 1).map((ids) => [...ids].sort())).toEqual([['x', 'y']]);
  });

  it.each([1, 2, 3, 4, 5])('never asks for more than is wanted, and never before what it imports (seed %i)', (seed) => {
    const random = seeded(seed);
    const names = Array.from({ length: 120 }, (_, i) => `m${i}`);
    const sizes: Sizes = {};
    // Each imports some that come after it, so that there is no ring.
    names.forEach((name, i) => {
      const later = names.slice(i + 1).filter(() => random() < 0.03);
      sizes[name] = [Math.round(random() * 5000), ...later];
    });
    const pages = Array.from({ length: 12 }, (_, i) => [`p${i}`]);
    for (const [page] of pages) sizes[page!] = [10, ...names.filter(() => random() < 0.1)];
    const modules = modulesOf(sizes);
    const most = 4;
    const before = filesFor(modules, pages, Infinity);
    const files = filesFor(modules, pages, most);

    expect(Math.max(...pages.map((page) => askedBy(modules, before, page).length))).toBeGreaterThan(most);
    for (const page of pages) expect(askedBy(modules, files, page).length).toBeLessThanOrEqual(most);
    expect(files.flat().sort()).toEqual(before.flat().sort());
    const placeOf = new Map(files.flatMap((ids, i) => ids.map((id) => [id, i] as const)));
    for (const [id, place] of placeOf)
      for (const imported of modules.get(id)!.imports)
        expect(placeOf.get(imported) ?? place, `${id} imports ${imported}`).toBeLessThanOrEqual(place);
  });
});

it('names the styles of all that an entry imports, and none of what is loaded later', () => {
  const manifest: Manifest & Record<string, { dynamicImports?: string[] }> = {
    page: { isEntry: true, imports: ['list', 'frame'], css: ['page.css'] },
    frame: { imports: ['list'], dynamicImports: ['finder'] },
    finder: { imports: ['window'], css: ['finder.css'] },
    window: { css: ['window.css'] },
    list: { css: ['list.css'] },
    start: { isEntry: true }
  };
  const all = withAllStyles(manifest);
  expect(all.page?.css).toEqual(['page.css', 'list.css']);
  expect(all.list).toEqual({ css: ['list.css'] });
  expect(all.start).toEqual({ isEntry: true });
});
