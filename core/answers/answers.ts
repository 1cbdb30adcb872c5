import type { StageName } from '../chain/stages.ts';
import { FILESYSTEMS } from '../facts/filesystems.ts';
import type { Verdict } from '../findings/finding.ts';
import type { ToPay } from '../build/to-pay.ts';
import type { Job } from '../parts/job.ts';
import type { PlanReport } from '../plan/report.ts';
import { LIMIT_WORD } from '../plan/workings.ts';
import type { Band } from '../quantities/band.ts';
import { day, duration, listed, money, quantity, rate } from '../quantities/format.ts';

/** What a person wants to know of a plan, in the order of asking. */
export const ANSWERS = ['goes', 'job', 'limit', 'filesystem', 'heat', 'price', 'do'] as const;
export type Asked = (typeof ANSWERS)[number];

/** One question answered: a sentence, and the same in a few words for tickets and tables. */
export type PlanAnswer = { about: Asked; text: string; short: string; tone: 'good' | 'check' | 'bad' | 'plain' };

/** What the sentences need beside the report. */
export type AnswersOf = {
  report: PlanReport;
  job?: Job | undefined;
  /** Left out where nobody knows what is at hand. */
  toPay?: ToPay | undefined;
  /** The one thing to do next. */
  next?: string | undefined;
};

const LINK_WORD: Record<StageName, string> = {
  port: 'port',
  cable: 'cable',
  bridge: 'enclosure’s bridge',
  slot: 'enclosure’s slot',
  drive: 'drive'
};
/** A rate as it is read, to three figures. */
const speed = (MBps: number): string => `${rate(MBps)}\u202fMB/s`;
const sentence = (text: string): string => {
  const whole = text.trim().replace(/[;,]$/, '');
  return `${whole.charAt(0).toUpperCase()}${whole.slice(1)}${/[.!?]$/.test(whole) ? '' : '.'}`;
};
const range = (low: string, high: string) => (low === high ? '' : `, from ${low} to ${high}`);

const GOES: Record<Verdict, PlanAnswer> = {
  works: { about: 'goes', text: 'It goes together.', short: 'goes together', tone: 'good' },
  limited: {
    about: 'goes',
    text: 'It goes together, with a limit.',
    short: 'goes together, with a limit',
    tone: 'good'
  },
  check: { about: 'goes', text: 'It most likely goes together.', short: 'check first', tone: 'check' },
  fails: { about: 'goes', text: 'It does not go together.', short: 'does not go together', tone: 'bad' }
};

/** Whether the parts themselves do not go together; that a job does not fit them is another thing. */
const isAmiss = ({ severity, about }: PlanReport['findings'][number]): boolean =>
  severity === 'fail' && about !== 'job';

/** Says whether the parts go together, and what of it is the matter. */
function goes({ report: { verdict, findings } }: AnswersOf): PlanAnswer {
  const plain = GOES[verdict];
  const worst = findings.find(isAmiss) ?? findings[0];
  if (verdict === 'works' || !worst) return plain;
  // That a job does not fit, or a system cannot be served, is no fault of the parts.
  if (verdict === 'fails' && !isAmiss(worst))
    return {
      ...plain,
      text: `It goes together, but not for this job. ${sentence(worst.message)}`,
      short: 'not for this job'
    };
  const lead = verdict === 'check' ? `${plain.text} Check first:` : plain.text;
  return { ...plain, text: `${lead} ${sentence(worst.message)}` };
}

/** A rate that falls by less than a twentieth is the same to a person. */
const NOTICED = 0.95;

/** Says how long the job takes; without a job, how fast it copies. */
function job({ report, job: asked }: AnswersOf): PlanAnswer | undefined {
  const { job: forecast, throughput, cache, measured } = report;
  if (asked && forecast) {
    const { low, typical, high } = forecast.seconds;
    const [from, to] = [duration(low), duration(high)];
    const basis = measured
      ? ` by the rates ${measured.simulated ? 'of a simulated check' : 'measured'} on ${day(measured.date)}`
      : '';
    const time = `${asked.name}, ${quantity(asked.transferGB, 'GB')}, takes about ${duration(typical)}${basis}${range(from, to)}.`;
    return forecast.fits
      ? { about: 'job', text: sentence(time), short: `${duration(typical)} for ${asked.name}`, tone: 'plain' }
      : {
          about: 'job',
          text: `${sentence(time)} It does not fit on the drive.`,
          short: `${asked.name} does not fit`,
          tone: 'bad'
        };
  }
  if (!throughput.write || !throughput.read) return undefined;
  const write = speed(throughput.write.typical);
  const read = speed(throughput.read.typical);
  const sustained = throughput.sustainedWrite?.typical ?? throughput.write.typical;
  // A cache that outlasts the drive, or that the link never fills, is none that one would notice.
  const after =
    cache.cliffAtGB && sustained < NOTICED * throughput.write.typical
      ? ` until the cache is full after about ${quantity(cache.cliffAtGB.typical, 'GB')}, then about ${speed(sustained)}`
      : '';
  return {
    about: 'job',
    text: `It writes about ${write}${after}, and reads about ${read}.`,
    short: `write ${write}, read ${read}`,
    tone: 'plain'
  };
}

/** The links that hold the write: the slowest one, and those that hold it as much. */
function slowestLinks({ link }: PlanReport): StageName[] {
  const slowest = link.writeBottleneck ?? link.bottleneck;
  if (!slowest) return [];
  return slowest === link.bottleneck ? [slowest, ...link.alsoLimits] : [slowest];
}

/** What would hold the write next, were the slowest links as fast as the others. */
function nextLimit(
  { link }: PlanReport,
  slowest: readonly StageName[]
): { stage: StageName; MBps: number } | undefined {
  const others = link.stages
    .filter(({ stage }) => !slowest.includes(stage))
    .map(({ stage, writeMBps }) => ({ stage, MBps: writeMBps.typical }));
  return others.sort((a, b) => a.MBps - b.MBps)[0];
}

/** What the slowest links cost: what of the drive stays unused, and what the next link would allow. */
function costOfLimit(report: PlanReport, slowest: readonly StageName[], write: number): { lost: string; gain: string } {
  const used = report.reachable?.writePercent ?? 100;
  const unused = Math.round(100 - Math.min(100, used));
  const freed = nextLimit(report, slowest);
  return {
    lost: unused < 5 ? '' : `, so that about ${unused}\u202f% of what the drive writes by its rating stays unused`,
    gain:
      freed && freed.MBps > write * 1.02
        ? ` Were ${slowest.length > 1 ? 'they' : 'it'} faster, the ${LINK_WORD[freed.stage]} would allow about ${speed(freed.MBps)}.`
        : ''
  };
}

/** Says what the job waits for. */
const waitsFor = ({ job: forecast }: PlanReport): string => {
  const waits = [...new Set(forecast?.ways.map((way) => LIMIT_WORD[way.limitedBy]) ?? [])];
  return waits.length > 0 ? ` The job waits for ${listed(waits)}.` : '';
};

/** Says what limits it, and what that costs. */
function limit({ report }: AnswersOf): PlanAnswer | undefined {
  const slowest = slowestLinks(report);
  const write = report.throughput.write?.typical;
  if (slowest.length === 0 || write === undefined) return undefined;
  if (slowest[0] === 'drive') {
    const text = `The drive itself is the slowest link: it writes about ${speed(write)}, and no other link holds it back.`;
    return { about: 'limit', text: text + waitsFor(report), short: 'drive', tone: 'plain' };
  }
  const { lost, gain } = costOfLimit(report, slowest, write);
  const names = listed(slowest.map((stage) => LINK_WORD[stage]));
  const many = slowest.length > 1;
  const text = `The ${names} ${many ? 'are the slowest links: they hold' : 'is the slowest link: it holds'} the write at about ${speed(write)}${lost}.`;
  return { about: 'limit', text: text + gain + waitsFor(report), short: listed(slowest), tone: 'plain' };
}

/** Says how to format it, and why. */
function filesystem({ report: { filesystem: advice } }: AnswersOf): PlanAnswer {
  const { filesystem: id, scheme, allocationUnit, because } = advice.first;
  const name = `${FILESYSTEMS[id].label}, ${scheme.toUpperCase()}`;
  const unit = allocationUnit ? `, in units of ${allocationUnit}` : '';
  const why = because[0] ? `: ${because[0]}` : '';
  return { about: 'filesystem', text: sentence(`Format it as ${name}${unit}${why}`), short: name, tone: 'plain' };
}

const TOUCH = {
  comfortable: '',
  brief: 'touch it briefly only',
  'do-not-hold': 'do not hold it'
} as const;

const degrees = (value: number): string => `${value.toFixed(0)}\u202f°C`;
type Heat = NonNullable<PlanReport['thermal']>;

/** Says when it slows down, and whether the job is done before. */
function tooHot({ startC, peak }: Heat, after: Band, inJob: boolean): Omit<PlanAnswer, 'about'> {
  const time = duration(after.typical);
  const from = startC === null ? '' : ` from ${degrees(startC)} on`;
  const spared = inJob
    ? ` Within this job it stays cool enough${peak ? `, at most ${degrees(peak.controllerC)}` : ''}.`
    : '';
  return {
    text: `It gets too hot in long work: it slows down${from}, after about ${time}${range(duration(after.low), duration(after.high))}.${spared}`,
    short: inJob ? `cool enough for the job, slows down after ${time}` : `slows down after ${time}`,
    tone: inJob ? 'check' : 'bad'
  };
}

/** Says how far from slowing down it stays. */
function coolEnough({ steadyControllerC: chip, startC }: Heat): Omit<PlanAnswer, 'about'> {
  const settles = `in long work the drive reports about ${degrees(chip.typical)} (${degrees(chip.low)} to ${degrees(chip.high)})`;
  const short = degrees(chip.typical);
  if (startC === null)
    return { text: `${sentence(settles)} Where it slows down is not known.`, short: `about ${short}`, tone: 'plain' };
  if (chip.high >= startC)
    return {
      text: `It may get too hot: ${settles}, and slows down from ${degrees(startC)} on.`,
      short: `${short}, may slow down`,
      tone: 'check'
    };
  const room = `${Math.round(startC - chip.typical)}\u202fK`;
  return {
    text: `It stays cool enough: ${settles}, about ${room} below the ${degrees(startC)} at which it slows down.`,
    short: `${short}, ${room} to spare`,
    tone: 'good'
  };
}

/** Says whether it gets too hot, and by how much. */
function heat({ report: { thermal, throughput, job: forecast } }: AnswersOf): PlanAnswer | undefined {
  if (!thermal || !throughput.write) return undefined;
  const { throttleAfterS, touch, steadyCaseC } = thermal;
  const said = throttleAfterS
    ? tooHot(thermal, throttleAfterS, forecast?.throttleReached === false)
    : coolEnough(thermal);
  const hand = TOUCH[touch] ? ` The case gets to about ${degrees(steadyCaseC.typical)}: ${TOUCH[touch]}.` : '';
  return { ...said, about: 'heat', text: said.text + hand };
}

/** Says what is still to pay of it. */
function payWords({ amount, currency, names, ordered, unpriced }: ToPay): { text: string; short: string } {
  const onItsWay =
    ordered.length > 0 ? ` ${sentence(`${listed(ordered)} ${ordered.length === 1 ? 'is' : 'are'} ordered`)}` : '';
  const without =
    unpriced.length > 0 ? ` ${sentence(`no price is noted for ${listed(unpriced)}, still to be bought`)}` : '';
  if (names.length === 0)
    return unpriced.length > 0
      ? { text: without + onItsWay, short: 'to buy, without a price' }
      : { text: ` Nothing is still to pay.${onItsWay}`, short: 'nothing to pay' };
  return {
    text: ` Still to pay: ${money(amount, currency)} for ${listed(names)}.${without}${onItsWay}`,
    short: `${money(amount, currency)} to pay`
  };
}

/** What is to be bought where the price of the whole is not known: a list of everything would say nothing. */
function withoutWhole(toPay: ToPay): string {
  const { names, unpriced } = toPay;
  return names.length === 0 && unpriced.length > 2
    ? ' Note one for the drive and one for the enclosure.'
    : payWords(toPay).text;
}

/** Says what it costs, and what of that is still to pay. */
function price({ report: { cost }, toPay }: AnswersOf): PlanAnswer {
  const pay = toPay && payWords(toPay);
  if (!cost)
    return {
      about: 'price',
      text: `No price is known for the whole.${toPay ? withoutWhole(toPay) : ''}`,
      short: toPay && toPay.names.length > 0 ? payWords(toPay).short : 'no prices',
      tone: 'plain'
    };
  const per = `${money(cost.perTB, cost.currency)} for each TB`;
  return {
    about: 'price',
    text: `It costs ${money(cost.total, cost.currency)} delivered, ${per}.${pay?.text ?? ''}`,
    short: pay ? `${money(cost.total, cost.currency)}, ${pay.short}` : money(cost.total, cost.currency),
    tone: 'plain'
  };
}

/**
 * Answers what a person asks of a plan, in sentences: whether it goes together, how long the job takes, what limits it and what
 * that costs, which filesystem, whether it gets too hot and by how much, the price and what is still to pay, the one thing to do.
 * What has no answer is left out. Every page takes its words from here.
 * @example answersOf({ report: plan(anInput()) }).map(({ about }) => about) // ['goes', 'job', 'limit', 'filesystem', 'heat', 'price']
 */
export function answersOf(of: AnswersOf): PlanAnswer[] {
  const { next, report } = of;
  // What does not go together has figures only for when that is mended.
  const amiss = report.findings.some(isAmiss);
  const would = (answer: PlanAnswer | undefined): PlanAnswer | undefined =>
    amiss && answer
      ? {
          ...answer,
          text: `Once that is mended: ${answer.text.replace(/^(?:It|In|The)\b/, (word) => word.toLowerCase())}`,
          tone: 'plain'
        }
      : answer;
  return [
    goes(of),
    would(job(of)),
    would(limit(of)),
    filesystem(of),
    would(heat(of)),
    price(of),
    next === undefined
      ? undefined
      : { about: 'do' as const, text: sentence(next), short: sentence(next), tone: 'plain' as const }
  ].filter((answer) => answer !== undefined);
}

/**
 * Finds one answer.
 * @example answerTo('limit', answersOf({ report: plan(anInput()) }))?.short // 'port and bridge'
 */
export const answerTo = (about: Asked, answers: readonly PlanAnswer[]): PlanAnswer | undefined =>
  answers.find((answer) => answer.about === about);
