import { FILESYSTEMS } from '../facts/filesystems.ts';
import { LINK_MODES } from '../facts/link-modes.ts';
import { VERDICT_ORDER, type Verdict } from '../findings/finding.ts';
import type { PlanInput, PlanReport } from '../plan/report.ts';
import { capacity, duration, money, quantity, rate } from '../quantities/format.ts';
import type { ToPay } from '../build/to-pay.ts';

/** A plan that is laid beside others. */
export type LaidPlan = { name: string; input: PlanInput; report: PlanReport; toPay: ToPay };
/** One line of the comparison: what each plan has there, which are the best of it, and whether they differ at all. */
export type ComparedLine = { label: string; values: string[]; best: number[]; differs: boolean };
export type SideBySide = { lines: ComparedLine[]; conclusion: string };

/** Figures that are nearer to each other than this share are the same to a person, and to a stopwatch. */
const SAME = 0.03;

const VERDICT: Record<Verdict, string> = {
  works: 'goes together',
  limited: 'goes together, with a limit',
  check: 'check first',
  fails: 'does not go together'
};

type Measure = {
  label: string;
  of: (plan: LaidPlan) => number | null | undefined;
  say: (value: number) => string;
  less?: true;
};
const JOB = 'The job takes';
const MEASURES: readonly Measure[] = [
  { label: JOB, of: ({ report }) => report.job?.seconds.typical, say: duration, less: true },
  { label: 'Write', of: ({ report }) => report.throughput.write?.typical, say: (v) => `${rate(v)}\u202fMB/s` },
  {
    label: 'Write after the cache',
    of: ({ report }) => report.throughput.sustainedWrite?.typical,
    say: (v) => `${rate(v)}\u202fMB/s`
  },
  { label: 'Read', of: ({ report }) => report.throughput.read?.typical, say: (v) => `${rate(v)}\u202fMB/s` },
  {
    label: 'Random 4 KiB read',
    of: ({ report }) => report.throughput.random4kRead?.typical,
    say: (v) => `${rate(v)}\u202fMB/s`
  },
  {
    label: 'Chip, long write',
    of: ({ report }) => (report.throughput.write ? report.thermal?.steadyControllerC.typical : null),
    say: (v) => `${v.toFixed(0)}\u202f°C`,
    less: true
  },
  {
    label: 'Case, long write',
    of: ({ report }) => (report.throughput.write ? report.thermal?.steadyCaseC.typical : null),
    say: (v) => `${v.toFixed(0)}\u202f°C`,
    less: true
  },
  {
    label: 'Power, writing',
    of: ({ report }) => report.power?.steadyW.typical,
    say: (v) => quantity(v, 'W'),
    less: true
  },
  { label: 'Capacity', of: ({ input }) => input.drive.capacityTB, say: capacity }
];

const best = (values: readonly (number | null)[], less: boolean): number[] => {
  const known = values.filter((value) => value !== null);
  if (known.length < 2) return [];
  const top = less ? Math.min(...known) : Math.max(...known);
  const near = values.flatMap((value, i) =>
    value !== null && Math.abs(value - top) <= SAME * Math.abs(top) ? [i] : []
  );
  return near.length === known.length ? [] : near;
};

function measured({ label, of, say, less = undefined }: Measure, plans: readonly LaidPlan[]): ComparedLine | undefined {
  const values = plans.map((plan) => of(plan) ?? null);
  const able = plans.map(({ report }) => report.verdict !== 'fails');
  if (values.every((value) => value === null)) return undefined;
  const said = values.map((value) => (value === null ? '–' : say(value)));
  return {
    label,
    values: said,
    // Times of different jobs are no race.
    best:
      label === JOB && !oneJob(plans)
        ? []
        : best(
            values.map((value, i) => (able[i] ? value : null)),
            less === true
          ),
    differs: new Set(said).size > 1
  };
}

/** A line in words: nothing in it is better by itself. */
const worded = (label: string, values: string[], bestOnes: number[] = []): ComparedLine => ({
  label,
  values,
  best: bestOnes,
  differs: new Set(values).size > 1
});

const priceOf = ({ report, toPay }: LaidPlan): { whole: number | null; pay: number | null; currency: string } => ({
  whole: report.cost?.total ?? null,
  // What has no price cannot be added up.
  pay: toPay.unpriced.length > 0 ? null : toPay.amount,
  currency: report.cost?.currency ?? toPay.currency
});

/** The lines about money: the whole, what is still to pay, and the price of a terabyte. Only one currency can be compared. */
function moneyLines(plans: readonly LaidPlan[]): ComparedLine[] {
  const prices = plans.map(priceOf);
  const one = new Set(prices.map(({ currency }) => currency)).size === 1;
  const line = (label: string, of: (i: number) => number | null): ComparedLine => {
    const values = plans.map((_, i) => of(i));
    return {
      label,
      values: values.map((value, i) => (value === null ? 'no price' : money(value, prices[i]?.currency ?? ''))),
      // What does not go together is no bargain.
      best: one
        ? best(
            values.map((value, i) => (plans[i]?.report.verdict === 'fails' ? null : value)),
            true
          )
        : [],
      differs: new Set(values).size > 1
    };
  };
  return [
    line('Price delivered', (i) => prices[i]?.whole ?? null),
    line('Still to pay', (i) => prices[i]?.pay ?? null),
    line('Per TB', (i) => plans[i]?.report.cost?.perTB ?? null)
  ];
}

/** Whether all have one and the same job: only then can its times be compared. */
const oneJob = (plans: readonly LaidPlan[]): boolean => {
  const jobs = plans.map(({ input: { job }, report }) =>
    report.job && job ? `${job.transferGB} ${job.files ?? ''} ${job.direction} ${job.name}` : undefined
  );
  return jobs[0] !== undefined && new Set(jobs).size === 1;
};

/** How long a plan takes: for the job that all share, else for a terabyte at the write after the cache, s; null where nothing runs. */
function pace({ report }: LaidPlan, byJob: boolean): number | null {
  if (byJob) return report.job?.seconds.typical ?? null;
  const write = report.throughput.sustainedWrite?.typical;
  return write === undefined ? null : 1e6 / write;
}

const least = (plans: readonly LaidPlan[], of: (plan: LaidPlan) => number | null): LaidPlan | undefined => {
  const known = plans.flatMap((plan) => {
    const value = of(plan);
    return value === null ? [] : [{ plan, value }];
  });
  return known.length < plans.length ? undefined : known.sort((a, b) => a.value - b.value)[0]?.plan;
};

const toPayOfPlan = (plan: LaidPlan): number => priceOf(plan).pay ?? 0;

/** The two that matter, with their times as words. */
type Weighed = { quick: LaidPlan; cheap: LaidPlan; same: boolean; timeOf: (plan: LaidPlan) => string; does: string };

/** Compares those of which every time and every price is known. */
function weighed({ quick, cheap, same, timeOf, does }: Weighed): string {
  const extra = toPayOfPlan(quick) - toPayOfPlan(cheap);
  const { currency } = priceOf(cheap);
  const asDear = Math.abs(extra) < 0.005;
  if (same)
    return asDear
      ? 'They are equally fast, and there is as much to pay for each.'
      : `They are equally fast; ${cheap.name} is the cheapest: ${money(toPayOfPlan(cheap), currency)} to pay.`;
  if (asDear)
    return `${quick.name} is the better one: it ${does} in about ${timeOf(quick)}, and no other costs less to buy.`;
  return `${quick.name} ${does} in about ${timeOf(quick)}, ${cheap.name} in about ${timeOf(cheap)}; the faster one costs ${money(extra, currency)} more to buy.`;
}

/** Compares those that go together by what they cost and how long they take. */
function judged(plans: readonly LaidPlan[]): string {
  const byJob = oneJob(plans);
  const secondsOf = (plan: LaidPlan): number => pace(plan, byJob) ?? 0;
  const quick = least(plans, (plan) => pace(plan, byJob));
  if (!quick) return 'They cannot be told apart: not all of them have a forecast.';
  const slowest = Math.max(...plans.map(secondsOf));
  const same = slowest - secondsOf(quick) <= SAME * slowest;
  const does = byJob ? 'does the job' : 'writes a terabyte';
  const timeOf = (plan: LaidPlan) => duration(secondsOf(plan));
  const cheap = least(plans, (plan) => priceOf(plan).pay);
  if (cheap) return weighed({ quick, cheap, same, timeOf, does });
  return same
    ? 'They are equally fast; not all of them have a price.'
    : `${quick.name} is the fastest: it ${does} in about ${timeOf(quick)}. Not all of them have a price.`;
}

/** Says which of the plans is the better one, and why. */
function conclusionOf(plans: readonly LaidPlan[]): string {
  if (plans.length < 2) return '';
  const working = plans.filter(({ report }) => report.verdict !== 'fails');
  const failing = plans.filter(({ report }) => report.verdict === 'fails').map(({ name }) => name);
  if (working.length === 0) return 'None of them goes together.';
  const out =
    failing.length > 0 ? ` ${failing.join(' and ')} ${failing.length === 1 ? 'does' : 'do'} not go together.` : '';
  if (working.length === 1) return `${working[0]?.name ?? ''} is the one that goes together.${out}`;
  const doubtful = working.filter(({ report }) => report.verdict === 'check').map(({ name }) => name);
  const check = doubtful.length > 0 ? ` Check first: ${doubtful.join(', ')}.` : '';
  return judged(working) + check + out;
}

/**
 * Lays two to four plans side by side: line by line what each has, which is the better one, and a sentence that concludes.
 * @example sideBySide([]).lines // []
 */
export function sideBySide(plans: readonly LaidPlan[]): SideBySide {
  if (plans.length === 0) return { lines: [], conclusion: '' };
  const verdicts = plans.map(({ report }) => report.verdict);
  const sound = best(
    verdicts.map((verdict) => -VERDICT_ORDER[verdict] + 10),
    false
  );
  const portOf = ({ input }: LaidPlan) => input.host.ports.find(({ id }) => id === input.portId)?.label ?? input.portId;
  return {
    lines: [
      worded(
        'Verdict',
        verdicts.map((verdict) => VERDICT[verdict]),
        sound
      ),
      ...MEASURES.flatMap((measure) => measured(measure, plans) ?? []),
      ...moneyLines(plans),
      worded(
        'Slowest link',
        plans.map(({ report }) => report.link.bottleneck ?? 'none')
      ),
      worded(
        'Runs as',
        plans.map(({ report }) => (report.link.mode ? LINK_MODES[report.link.mode].label : 'nothing in common'))
      ),
      worded(
        'Format',
        plans.map(
          ({
            report: {
              filesystem: { first }
            }
          }) => `${FILESYSTEMS[first.filesystem].label}, ${first.scheme.toUpperCase()}`
        )
      ),
      worded(
        'Computer and port',
        plans.map((plan) => `${plan.input.host.name}, ${portOf(plan)}`)
      ),
      worded(
        'Cable',
        plans.map(({ input }) => input.cable?.name ?? 'from the box, or assumed')
      ),
      worded(
        'Enclosure',
        plans.map(({ input }) => input.enclosure.name)
      ),
      worded(
        'Drive',
        plans.map(({ input }) => input.drive.name)
      )
    ],
    conclusion: conclusionOf(plans)
  };
}
