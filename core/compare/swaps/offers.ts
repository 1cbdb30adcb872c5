import { VERDICT_ORDER, type FindingCode, type Verdict } from '../../findings/finding.ts';
import { assemble, type Library } from '../../build/assemble.ts';
import type { Choice } from '../../build/choice.ts';
import type { ChainPlace } from '../../build/options.ts';
import { deliveredPrice, newestQuote } from '../../cost/delivered-price.ts';
import { money, rate, UNIT_SPACE } from '../../quantities/format.ts';
import type { PlanReport } from '../../plan/report.ts';
import { swapsAt, type Swap } from './swaps.ts';

/** Which swaps could mend what a finding says, in the order in which they are the least trouble. */
const MENDS: Partial<Record<FindingCode, readonly ChainPlace[]>> = {
  'no-common-link-mode': ['cable', 'port', 'enclosure'],
  'plug-mismatch': ['cable', 'port'],
  'cable-limits-link': ['cable'],
  'cable-rate-likely': ['cable'],
  'cable-length-doubtful': ['cable'],
  'port-limits-link': ['port'],
  'adapter-limits-link': ['port'],
  'host-write-ceiling': ['port'],
  'port-power-short': ['port', 'enclosure'],
  'shared-hub-power': ['port', 'enclosure'],
  'bulk-only-transport': ['port', 'enclosure'],
  'bridge-limits-link': ['enclosure'],
  'pcie-generation-above-tunnel': ['drive', 'enclosure'],
  'form-factor-mismatch': ['enclosure', 'drive'],
  'm2-length-unsupported': ['enclosure', 'drive'],
  'm2-key-mismatch': ['enclosure', 'drive'],
  'protocol-unsupported': ['enclosure', 'drive'],
  'bay-too-thin': ['enclosure', 'drive'],
  'double-sided-no-clearance': ['enclosure', 'drive'],
  'heatsink-blocks-lid': ['enclosure', 'drive'],
  'capacity-above-limit': ['enclosure'],
  'external-supply-needed': ['enclosure'],
  'esata-needs-power': ['enclosure', 'port'],
  'trim-not-passed': ['enclosure', 'port'],
  'sectors-4096': ['enclosure'],
  'drive-shuts-down': ['enclosure', 'drive'],
  'bridge-too-hot': ['enclosure'],
  'smr-rewrite-risk': ['drive'],
  'drive-nearly-full': ['drive'],
  'known-bad-pair': ['enclosure', 'drive'],
  'mbr-above-2tib': ['drive'],
  'cache-cliff-in-job': ['drive'],
  'job-does-not-fit': ['drive'],
  'job-minimum-missed': ['drive', 'cable', 'port', 'enclosure'],
  'endurance-short': ['drive']
};

/** Findings that are about rate: a swap has to give more of it. Of the others it is enough that they are gone. */
const ABOUT_RATE: readonly FindingCode[] = [
  'cable-limits-link',
  'port-limits-link',
  'adapter-limits-link',
  'host-write-ceiling',
  'bulk-only-transport',
  'bridge-limits-link'
];

export type SwapOffer = {
  code: FindingCode;
  place: ChainPlace;
  id: string;
  name: string;
  /** In the crate and free, in the crate but in a build, or to be bought. */
  from: 'free' | 'in-a-build' | 'to-buy';
  verdict: Verdict;
  before: number | null;
  after: number | null;
  direction: 'read' | 'write';
  sentence: string;
};

const AVAILABLE = { free: 0, 'in-a-build': 1, 'to-buy': 2 } as const;
const fromOf = ({ stock }: Swap): SwapOffer['from'] =>
  stock.free > 0 ? 'free' : stock.owned > 0 ? 'in-a-build' : 'to-buy';

/** Two rates that differ by less than this share are the same to a person. */
const SAME = 0.1;

function where({ stock, price }: Swap): string {
  if (stock.free > 0) return 'which is in your crate';
  if (stock.owned > 0) return `which is in your crate (in ${stock.builds.join(', ')})`;
  return price
    ? `to buy for about ${money(price.amount, price.currency)}`
    : 'which you do not have, and which has no price yet';
}

/**
 * Tells what of the crate would mend a finding: for each finding the best part that is at hand, and the best one to buy where that is
 * better still. Every offer was planned; it makes nothing worse, and the finding is gone.
 */
export function offersFor(library: Library, choice: Choice, base: PlanReport): SwapOffer[] {
  if (!assemble(library, choice).ok) return [];
  const made = new Map<ChainPlace, Swap[]>();
  const swaps = (place: ChainPlace): Swap[] => {
    let list = made.get(place);
    if (!list) made.set(place, (list = swapsAt(library, choice, place, base)));
    return list;
  };
  /** The better part is kept for where it is needed. */
  const worth = ({ place, id }: Swap): number => {
    const quote = place === 'port' ? undefined : newestQuote(library.quotes, id);
    return quote ? deliveredPrice(quote) : 0;
  };
  const rateOf = (report: PlanReport, of: 'read' | 'write') => report.throughput[of]?.typical ?? null;
  const fails = base.findings.filter((f) => f.severity === 'fail').length;

  return base.findings.flatMap((finding): SwapOffer[] => {
    const code = finding.code as FindingCode;
    const aboutRate = ABOUT_RATE.includes(code);
    const mends = (swap: Swap): boolean => {
      const { report } = swap;
      if (report.findings.some((f) => f.code === code && f.about === finding.about && f.message === finding.message))
        return false;
      if (report.findings.some((f) => f.code === code) && !aboutRate) return false;
      if (report.findings.filter((f) => f.severity === 'fail').length > Math.max(0, fails - 1)) return false;
      if (fails === 0 && VERDICT_ORDER[report.verdict] > VERDICT_ORDER[base.verdict]) return false;
      if (!aboutRate) return fails > 0 || keepsRate(base, report);
      return gainOf(base, report) !== null;
    };
    for (const place of MENDS[code] ?? []) {
      const fit = swaps(place).filter(mends);
      const better = (a: Swap, b: Swap): number =>
        VERDICT_ORDER[a.report.verdict] - VERDICT_ORDER[b.report.verdict] ||
        // Of what is equally good to a person the cheaper one.
        step(rateOf(b.report, 'write')) - step(rateOf(a.report, 'write')) ||
        (a.price?.amount ?? Infinity) - (b.price?.amount ?? Infinity) ||
        worth(a) - worth(b) ||
        (a.name < b.name ? -1 : 1);
      const [atHand] = fit
        .filter(({ stock }) => stock.owned > 0)
        .sort(
          (a, b) =>
            VERDICT_ORDER[a.report.verdict] - VERDICT_ORDER[b.report.verdict] ||
            AVAILABLE[fromOf(a)] - AVAILABLE[fromOf(b)] ||
            better(a, b)
        );
      const [toBuy] = fit.filter(({ stock }) => stock.owned === 0).sort(better);
      const shown = [
        ...(atHand ? [atHand] : []),
        ...(toBuy && (!atHand || clearlyFaster(atHand.report, toBuy.report)) ? [toBuy] : [])
      ];
      if (shown.length === 0) continue;
      return shown.map((swap): SwapOffer => {
        const direction = gainOf(base, swap.report) ?? 'write';
        const [before, after] = [rateOf(base, direction), rateOf(swap.report, direction)];
        const part = `With ${swap.name}, ${where(swap)}`;
        const said =
          before === null || after === null
            ? `${part}, it ${swap.report.verdict === 'fails' ? 'gets further' : 'goes together'}${after === null ? '' : `: ${direction} about ${rate(after)}${UNIT_SPACE}MB/s`}.`
            : Math.abs(after - before) <= before * SAME
              ? `${part}, this is settled, at about the same rate.`
              : `${part}: ${direction} ${rate(before)} → about ${rate(after)}${UNIT_SPACE}MB/s.`;
        return {
          code,
          place,
          id: swap.id,
          name: swap.name,
          from: fromOf(swap),
          verdict: swap.report.verdict,
          before,
          after,
          direction,
          sentence: said
        };
      });
    }
    return [];
  });
}

/** Rates in steps of a tenth, so that hairs are not split. */
const step = (mbps: number | null): number =>
  mbps === null || mbps <= 0 ? -1 : Math.round(Math.log(mbps) / Math.log(1 + SAME));

function gainOf(base: PlanReport, report: PlanReport): 'read' | 'write' | null {
  for (const of of ['write', 'read'] as const) {
    const [was, is] = [base.throughput[of]?.typical, report.throughput[of]?.typical];
    if (was !== undefined && is !== undefined && is > was * (1 + SAME)) return of;
  }
  return null;
}

const clearlyFaster = (than: PlanReport, report: PlanReport): boolean => gainOf(than, report) !== null;

function keepsRate(base: PlanReport, report: PlanReport): boolean {
  const [was, is] = [base.throughput.write?.typical, report.throughput.write?.typical];
  return was === undefined || (is !== undefined && is >= was * (1 - SAME));
}
