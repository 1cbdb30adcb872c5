import { VERDICT_ORDER } from '../../findings/finding.ts';
import { assemble, type Library } from '../../build/assemble.ts';
import type { Choice } from '../../build/choice.ts';
import { plan } from '../../plan/plan.ts';
import type { PlanReport } from '../../plan/report.ts';
import { stockOfPart } from './swaps.ts';

/** One build on one port. */
export type OnPort = {
  hostId: string;
  host: string;
  portId: string;
  port: string;
  /** The cable it is judged with: the chosen one, or another of the crate where that one does not meet or holds it back. */
  cableId: string | undefined;
  cable: string;
  otherCable: boolean;
  report: PlanReport;
};

/** Whether the second is the better plan: it works better, or writes faster. */
function isBetter(a: PlanReport, b: PlanReport): boolean {
  const fails = (r: PlanReport) => (r.verdict === 'fails' ? 1 : 0);
  if (fails(a) !== fails(b)) return fails(b) < fails(a);
  const rate = (r: PlanReport) => r.throughput.write?.typical ?? 0;
  return rate(b) > rate(a) * 1.05 || (rate(b) >= rate(a) && VERDICT_ORDER[b.verdict] < VERDICT_ORDER[a.verdict]);
}

/**
 * Gives the same drive in the same enclosure on every port of every host of the crate. Where the chosen cable does not go there, the best
 * of those that are owned takes its place, and the row says so.
 */
export function onAllHosts(library: Library, choice: Choice): OnPort[] {
  const owned = [...library.cable.values()].filter(({ id }) => stockOfPart(library, id).owned > 0);
  return [...library.host.values()].flatMap((host) =>
    host.ports.flatMap((port): OnPort[] => {
      const at = (cableId: string | undefined): OnPort | undefined => {
        const { cableId: _old, ...rest } = choice;
        const next: Choice = { ...rest, hostId: host.id, portId: port.id, ...(cableId ? { cableId } : {}) };
        const assembled = assemble(library, next);
        if (!assembled.ok) return undefined;
        const { input } = assembled;
        const name = input.enclosure.captiveCable
          ? 'fixed to the case'
          : (input.cable?.name ?? 'from the box, or assumed');
        const report = plan(input, { workings: false });
        const where = { hostId: host.id, host: host.name, portId: port.id, port: port.label };
        return { ...where, cableId, cable: name, otherCable: cableId !== choice.cableId, report };
      };
      let row = at(choice.cableId);
      if (!row) return [];
      if (row.report.verdict === 'fails')
        for (const { id } of owned) {
          const other = at(id);
          if (other && isBetter(row.report, other.report)) row = other;
        }
      return [row];
    })
  );
}
