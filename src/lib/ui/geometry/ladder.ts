import type { LadderStep } from '#core/format/ladder';

/** A step of the ladder as it is drawn: what is left, what it takes, and the same magnified. */
export type LadderBar = { code: LadderStep['code']; left: number; takes: number; takesFrom: number; magnified: number };
export type LadderDrawing = {
  bars: LadderBar[];
  /** How much the small takes are magnified; 1 where none has to be. */
  times: number;
  /** Ticks of both ways to count, as shares of the whole width. */
  decimal: { at: number; label: string }[];
  binary: { at: number; label: string }[];
};

const TIB = 2 ** 40;
const GIB = 2 ** 30;

/** A step of ticks that gives some four to eight of them: 1, 2 or 5 times a power of ten. */
function tickStep(whole: number): number {
  const rough = whole / 6;
  const power = 10 ** Math.floor(Math.log10(rough));
  return ([1, 2, 5, 10].find((n) => n * power >= rough) ?? 10) * power;
}

function ticks(bytes: number, [unit, word]: readonly [number, string]): { at: number; label: string }[] {
  const whole = bytes / unit;
  const step = tickStep(whole);
  return Array.from({ length: Math.floor(whole / step + 1e-9) + 1 }, (_, i) => ({
    at: (i * step) / whole,
    label: i === 0 ? '0' : `${Number((i * step).toPrecision(6))} ${word}`
  }));
}

/** Magnifications that can be read off a ruler. */
const TIMES = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];

/**
 * Lays the ladder from label to free room out to scale, over a width of 1; what is too small to be seen is magnified as well, all of it by
 * one factor.
 * @example ladderDrawing([]).times // 1
 */
export function ladderDrawing(steps: readonly LadderStep[]): LadderDrawing {
  const whole = steps[0]?.bytes ?? 1;
  const small = steps.filter(({ code, takes }) => takes > 0 && code !== 'headroom').map(({ takes }) => takes / whole);
  const largest = Math.max(0, ...small);
  // The largest of the small ones may fill half of the width.
  const times = largest === 0 ? 1 : (TIMES.filter((n) => n * largest <= 0.5).at(-1) ?? 1);
  return {
    times,
    bars: steps.map(({ code, bytes, takes }) => ({
      code,
      left: bytes / whole,
      takes: takes / whole,
      takesFrom: bytes / whole,
      magnified: code === 'headroom' ? 0 : Math.min(1, (takes / whole) * times)
    })),
    decimal: ticks(whole, whole >= 1e12 ? [1e12, 'TB'] : [1e9, 'GB']),
    binary: ticks(whole, whole >= 1e12 ? [TIB, 'TiB'] : [GIB, 'GiB'])
  };
}
