import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import archivo from '@capsizecss/metrics/archivo';
import arial from '@capsizecss/metrics/arial';
import courierNew from '@capsizecss/metrics/courierNew';
import jetBrainsMono from '@capsizecss/metrics/jetBrainsMono';
import { describe, expect, it } from 'vitest';

const css = readFileSync(fileURLToPath(new URL('./theme.css', import.meta.url)), 'utf8');

describe('fonts that stand in until those of the program are there', () => {
  it.each([
    ['As wide as Archivo', archivo, arial],
    ['As wide as JetBrains Mono', jetBrainsMono, courierNew]
  ])('%s takes as much room', (family, font, instead) => {
    const face = new RegExp(`@font-face \\{[^}]*'${family}'[^}]*\\}`).exec(css)?.[0] ?? '';
    const percent = (name: string) => Number(new RegExp(`${name}: ([\\d.]+)%`).exec(face)?.[1]);
    // The share of the em that a letter is wide on the average, of one font over the other; heights are shares of the em so adjusted.
    const adjust = font.xWidthAvg / font.unitsPerEm / (instead.xWidthAvg / instead.unitsPerEm);
    const em = font.unitsPerEm * adjust;
    expect(percent('size-adjust')).toBeCloseTo(adjust * 100, 1);
    expect(percent('ascent-override')).toBeCloseTo((font.ascent / em) * 100, 1);
    expect(percent('descent-override')).toBeCloseTo((-font.descent / em) * 100, 1);
    expect(percent('line-gap-override')).toBeCloseTo((font.lineGap / em) * 100, 1);
  });
});
