import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));
const css = readFileSync(join(root, 'src/lib/ui/theme.css'), 'utf8');

function palette(theme: string): Record<string, string> {
  const block = new RegExp(`:root\\[theme='${theme}'\\] \\{([^}]*)\\}`).exec(css)![1]!;
  return Object.fromEntries([...block.matchAll(/--ash-([\w-]+):\s*(#[0-9a-f]{6});/g)].map((m) => [m[1]!, m[2]!]));
}

/** Relative luminance and contrast. Source: WCAG 2.2, definitions of both terms. */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5]
    .map((i) => parseInt(hex.slice(i, i + 2), 16) / 255)
    .map((c) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}
function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (light! + 0.05) / (dark! + 0.05);
}

const TEXT = 4.5;
const MARK = 3;
const grounds = ['paper', 'sheet', 'well'];
/** Foreground, the grounds it stands on, and what it must reach there. */
const PAIRS: [string, string[], number][] = [
  ['ink', [...grounds, 'ember-wash', 'channel'], TEXT],
  ['soft', grounds, TEXT],
  ['faint', grounds, TEXT],
  ['ember', [...grounds, 'ember-wash'], TEXT],
  ['ember-deep', grounds, TEXT],
  ['on-ember', ['ember', 'ember-deep'], TEXT],
  ['pass', grounds, TEXT],
  ['caution', grounds, TEXT],
  ['fail', grounds, TEXT],
  ['note', grounds, TEXT],
  ['paper', ['ink'], TEXT],
  ['on-ember', ['fail'], TEXT],
  ['edge', grounds, MARK],
  ['band', ['sheet', 'paper', 'channel'], MARK],
  ['measured', ['sheet', 'paper', 'channel'], MARK]
];

describe.each(['white', 'g100'])('theme %s', (theme) => {
  const colours = palette(theme);

  it.each(PAIRS.flatMap(([front, backs, least]) => backs.map((back) => [front, back, least] as const)))(
    '%s on %s reaches %d : 1',
    (front, back, least) => {
      expect(contrast(colours[front]!, colours[back]!)).toBeGreaterThanOrEqual(least);
    }
  );

  it('gives the same names as the other theme', () => {
    expect(Object.keys(colours).sort()).toEqual(Object.keys(palette(theme === 'white' ? 'g100' : 'white')).sort());
  });
});

describe('every token in use', () => {
  const files: string[] = [];
  const walk = (folder: string) => {
    for (const entry of readdirSync(join(root, folder), { withFileTypes: true })) {
      if (entry.isDirectory()) walk(join(folder, entry.name));
      else if (/\.(svelte|css)$/.test(entry.name)) files.push(join(folder, entry.name));
    }
  };
  walk('src');
  const used = new Set(
    files.flatMap((file) =>
      [...readFileSync(join(root, file), 'utf8').matchAll(/var\(--ash-([\w-]+)\)/g)].map((m) => m[1]!)
    )
  );
  const colours = palette('white');

  it('finds tokens', () => expect(used.size).toBeGreaterThan(12));
  it('is defined, and stands in a pair above unless it is only a thin rule between things', () => {
    const paired = new Set(PAIRS.flatMap(([front, backs]) => [front, ...backs]));
    const undefinedTokens = [...used].filter(
      (name) =>
        !(name in colours) &&
        !name.startsWith('print-') &&
        !['text', 'text-small', 'text-large', 'font', 'mono'].includes(name)
    );
    expect(undefinedTokens).toEqual([]);
    // a line only repeats what space says already
    expect([...used].filter((name) => name in colours && !paired.has(name) && name !== 'line')).toEqual([]);
  });
  it('labels are paper in both themes: dark on light, as scanners want it', () => {
    const print = Object.fromEntries(
      [...css.matchAll(/--ash-(print-[\w-]+):\s*(#[0-9a-f]{6});/g)].map((m) => [m[1]!, m[2]!])
    );
    expect(contrast(print['print-ink']!, print['print-paper']!)).toBeGreaterThan(12);
  });
  it('computes contrast as the standard does: black on white is 21, grey #767676 on white 4.54', () => {
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 6);
    expect(contrast('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
  });
});
