import { analyse } from '#core/analysis/analyse';
import { diagnose } from '#core/diagnosis/diagnose';
import { situationOf } from '#core/diagnosis/situation';
import { BUILDS } from './builds.ts';
import { couldOf, played, type PlayedFault } from './faults.ts';
const [f, b] = process.argv.slice(2) as [PlayedFault, keyof typeof BUILDS];
const at = situationOf(BUILDS[b]);
const could = couldOf(BUILDS[b]);
for (let k = 0; k < 12; k++) {
  const one = played(f, could, 1000 + k * 77);
  const a = analyse({ series: one.series, direction: one.direction, startC: at.report.thermal?.startC ?? undefined });
  const d = diagnose(at, {
    analysis: a,
    direction: one.direction,
    ...(one.series.caseC ? { case: { t: one.series.t, caseC: one.series.caseC } } : {})
  });
  console.log(
    k,
    one.cause,
    one.direction,
    d.state,
    d.causes.map((c) => c.cause + ' ' + c.confidence).join(', '),
    '|',
    d.known.join(' '),
    a.plateau.length,
    Math.round(a.median)
  );
}
