import { diagnose } from '#core/diagnosis/diagnose';
import { situationOf } from '#core/diagnosis/situation';
import { MEASURED_PRIORS } from '#core/diagnosis/priors';
import { seeded } from '#core/quantities/random';
import { BUILDS } from './builds.ts';
import { couldOf, numbers, played } from './faults.ts';
import { stages, pick, same, ALIKE, ALIKE_BY_NUMBERS, observedOf } from './diagnosis.ts';
const random = seeded(5);
const all = stages(false);
for (const mode of ['numbers', 'series'] as const) {
  const bins: { c: number; h: number; n: number }[] = Array.from({ length: 10 }, () => ({ c: 0, h: 0, n: 0 }));
  const wrong = new Map<string, number>();
  const under = new Map<string, number>();
  for (let k = 0; k < 2500; k++) {
    const st = all[k % all.length]!;
    const f = pick(st.faults, st.weights, random());
    const seed = 77 + k * 104729;
    const one = mode === 'numbers' ? numbers(f, st.could, seed) : played(f, st.could, seed);
    const d =
      mode === 'numbers'
        ? diagnose(st.at, { results: { readMBps: one.read, writeMBps: one.write } })
        : diagnose(st.at, observedOf(one as any, st.at));
    const al = mode === 'numbers' ? ALIKE_BY_NUMBERS : ALIKE;
    const first = d.causes[0]!.cause;
    const c = d.causes.filter((x) => same(al, x.cause, first)).reduce((s, x) => s + x.confidence, 0);
    const h = same(al, first, one.cause) ? 1 : 0;
    const b = bins[Math.min(9, Math.floor(c * 10))]!;
    b.c += c;
    b.h += h;
    b.n++;
    if (c < 0.85 && h) {
      const key = st.id + ' ' + one.cause + ' vs ' + d.causes[1]?.cause;
      under.set(key, (under.get(key) ?? 0) + 1);
    }
    if (!h) {
      const key = st.id + ' ' + one.cause + '->' + first;
      wrong.set(key, (wrong.get(key) ?? 0) + 1);
    }
  }
  console.log(
    mode,
    bins
      .filter((b) => b.n)
      .map((b) => `${(b.c / b.n).toFixed(2)}:${(b.h / b.n).toFixed(2)} (${b.n})`)
      .join('  ')
  );
  console.log([...wrong].sort((a, b) => b[1] - a[1]).slice(0, 12));
  console.log('under', [...under].sort((a, b) => b[1] - a[1]).slice(0, 14));
}
