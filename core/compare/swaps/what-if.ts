import { assemble, type InStock, type Library } from '../../build/assemble.ts';
import type { Choice } from '../../build/choice.ts';
import { CHAIN_PLACES, type ChainPlace } from '../../build/options.ts';
import { LINK_MODES } from '../../facts/link-modes.ts';
import type { Verdict } from '../../findings/finding.ts';
import { plan } from '../../plan/plan.ts';
import { LIMIT_WORD } from '../../plan/workings.ts';
import type { PlanReport } from '../../plan/report.ts';
import type { Band } from '../../quantities/band.ts';
import { swapsAt, type Swap } from './swaps.ts';
import { fallbacks } from '../../plan/fallback.ts';
import { onAllHosts } from './computers.ts';
import { offersFor, type SwapOffer } from './offers.ts';

/** What a row of a comparison shows of a plan. */
export type PlanOutcome = {
  verdict: Verdict;
  /** What the link runs as. */
  runsAs: string | null;
  read: Band | null;
  write: Band | null;
  sustained: Band | null;
  seconds: number | null;
  /** What the job waits for. */
  waitsFor: string | null;
  cost: { total: number; perTB: number; currency: string } | null;
  /** The worst that is to be said; empty where there is nothing. */
  worst: string;
};

/**
 * Takes what a row of a comparison shows out of a report.
 * @example outcomeOf(plan(anInput())).verdict // 'works'
 */
export const outcomeOf = (report: PlanReport): PlanOutcome => {
  const [worst] = report.findings;
  return {
    verdict: report.verdict,
    runsAs: report.link.mode && LINK_MODES[report.link.mode].label,
    read: report.throughput.read,
    write: report.throughput.write,
    sustained: report.throughput.sustainedWrite,
    seconds: report.job?.seconds.typical ?? null,
    waitsFor: report.job ? [...new Set(report.job.ways.map((way) => LIMIT_WORD[way.limitedBy]))].join(', then ') : null,
    cost: report.cost && { total: report.cost.total, perTB: report.cost.perTB, currency: report.cost.currency },
    worst: worst && worst.severity !== 'note' ? worst.message : ''
  };
};

export type SwapRow = PlanOutcome & Pick<Swap, 'id' | 'name' | 'price' | 'perGain'> & { stock: InStock };
export type HostRow = PlanOutcome & {
  id: string;
  host: string;
  port: string;
  cable: string;
  otherCable: boolean;
  choice: Choice;
};
export type FallbackRow = PlanOutcome & { label: string; when: string };
/** Everything around one choice, as small as a page needs it: computed away from the page, and sent to it. */
export type WhatIf = {
  offers: SwapOffer[];
  swaps: Record<ChainPlace, SwapRow[]>;
  hosts: HostRow[];
  fallbacks: FallbackRow[];
};

/**
 * Plans a build with each other part, on each other computer and in each lower mode, and what would mend its findings.
 * @returns null where the choice is not complete, so that there is nothing to start from
 * @example whatIf(libraryOf([], []), { hostId: 'h', portId: 'p', enclosureId: 'e', driveId: 'd' }) // null
 */
export function whatIf(library: Library, choice: Choice): WhatIf | null {
  const assembled = assemble(library, choice);
  if (!assembled.ok) return null;
  const base = plan(assembled.input, { workings: false });
  const swaps = Object.fromEntries(
    CHAIN_PLACES.map((place) => [
      place,
      swapsAt(library, choice, place, base).map(({ id, name, price, perGain, stock, report }): SwapRow => ({
        id,
        name,
        price,
        perGain,
        stock,
        ...outcomeOf(report)
      }))
    ])
  ) as Record<ChainPlace, SwapRow[]>;
  return {
    offers: offersFor(library, choice, base),
    swaps,
    hosts: onAllHosts(library, choice).map(({ hostId, host, portId, port, cableId, cable, otherCable, report }) => {
      const { cableId: _old, ...rest } = choice;
      return {
        id: `${hostId}~${portId}`,
        host,
        port,
        cable,
        otherCable,
        choice: { ...rest, hostId, portId, ...(cableId ? { cableId } : {}) },
        ...outcomeOf(report)
      };
    }),
    fallbacks: fallbacks(assembled.input).map(({ label, when, report }) => ({ label, when, ...outcomeOf(report) }))
  };
}
