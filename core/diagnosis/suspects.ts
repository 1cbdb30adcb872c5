import { z } from 'zod';
import type { CauseCode } from './causes.ts';
import { fromTable, type Evidence } from './evidence.ts';

/** Parts that a run has one of each of, by what their ids are called. */
export const SUSPECT_PARTS = ['drive', 'enclosure', 'cable', 'port', 'host'] as const;
export type SuspectPart = (typeof SUSPECT_PARTS)[number];

export const historySchema = z
  .array(
    z.strictObject({
      ids: z
        .partialRecord(z.enum(SUSPECT_PARTS), z.string().min(1).max(80))
        .describe('of the very things that were used'),
      build: z.string().max(80).optional().describe('so that one build that was measured often counts as one'),
      healthy: z.boolean().describe('whether it was as fast as its chain can be'),
      results: z.record(z.string(), z.unknown()).optional()
    })
  )
  .max(2000);
export type History = z.infer<typeof historySchema>;

export const suspectSchema = z.strictObject({
  part: z.enum(SUSPECT_PARTS),
  id: z.string(),
  share: z.number().describe('how likely it is the culprit, a share of 1'),
  slow: z.number().describe('builds with it that were slow'),
  sound: z.number().describe('builds with it that were sound'),
  because: z.string()
});
export type Suspect = z.infer<typeof suspectSchema>;

/** How often a build is slow with a bad part in it, and with none: estimates. */
const SLOW = { withBad: 0.9, withNone: 0.15 } as const;
/** Before anything was measured a part is bad so often. Cables are by far the likeliest. */
const BAD: Record<SuspectPart, number> = { cable: 0.06, port: 0.03, enclosure: 0.03, drive: 0.02, host: 0.01 };
/** Worth naming from this share on, with at least two slow builds. */
const WORTH_NAMING = 0.35;
const LEAST_SLOW = 2;

type Counted = { part: SuspectPart; id: string; builds: Set<number> };

/** Runs of one build count as one: it is slow where the newest of them is. */
function byBuild(history: History): History {
  const builds = new Map<string, History[number]>();
  const alone: History = [];
  for (const run of history) {
    const key = run.build ?? (run.ids.drive && run.ids.enclosure ? JSON.stringify(run.ids) : undefined);
    if (key === undefined) alone.push(run);
    else if (!builds.has(key)) builds.set(key, run);
  }
  return [...builds.values(), ...alone];
}

/**
 * Finds parts that are suspect across builds: what all slow builds share and no sound one has. One part at most is taken to be bad, or
 * none; each hypothesis is weighed by what it says of every build (Bayes), so that a cable of three slow builds outweighs three drives.
 * @param history runs with what they used, the newest first
 * @returns the likeliest first; parts that were always used together stand beside each other with the same share
 * @example suspectsOf([]) // []
 */
export function suspectsOf(history: History): Suspect[] {
  const runs = byBuild(history);
  const slow = runs.filter(({ healthy }) => !healthy).length;
  if (slow < LEAST_SLOW) return [];
  const things = new Map<string, Counted>();
  runs.forEach(({ ids }, i) => {
    for (const part of SUSPECT_PARTS) {
      const id = ids[part];
      if (id === undefined) continue;
      const key = `${part} ${id}`;
      const counted = things.get(key) ?? { part, id, builds: new Set() };
      counted.builds.add(i);
      things.set(key, counted);
    }
  });
  const log = (bad: (i: number) => boolean): number =>
    runs.reduce((sum, { healthy }, i) => {
      const p = bad(i) ? SLOW.withBad : SLOW.withNone;
      return sum + Math.log(healthy ? 1 - p : p);
    }, 0);
  const none = log(() => false);
  const weighed = [...things.values()].map((thing) => ({
    ...thing,
    weight: BAD[thing.part] * Math.exp(log((i) => thing.builds.has(i)) - none)
  }));
  const whole = 1 + weighed.reduce((sum, { weight }) => sum + weight, 0);
  return weighed
    .map(({ weight, ...thing }) => suspectOf(thing, runs, weight / whole))
    .filter((suspect) => suspect.slow >= LEAST_SLOW && suspect.share >= WORTH_NAMING * bestShare(weighed, whole))
    .filter(({ share }) => share >= WORTH_NAMING / 3)
    .sort((a, b) => b.share - a.share);
}

const bestShare = (weighed: readonly { weight: number }[], whole: number): number =>
  weighed.reduce((most, { weight }) => Math.max(most, weight), 0) / whole;

const PART_WORDS: Record<SuspectPart, string> = {
  drive: 'drive',
  enclosure: 'enclosure',
  cable: 'cable',
  port: 'port',
  host: 'computer'
};

function suspectOf({ part, id, builds }: Counted, runs: History, share: number): Suspect {
  const [slow, sound] = [false, true].map(
    (wanted) => [...builds].filter((i) => runs[i]?.healthy === wanted).length
  ) as [number, number];
  const others = runs.filter((run, i) => !builds.has(i) && run.healthy).length;
  const with_ = sound === 0 ? `slow in ${count(slow)}` : `slow in ${slow} of ${count(slow + sound)}`;
  const without = others > 0 ? `; ${count(others)} without it ${others === 1 ? 'is' : 'are'} sound` : '';
  return { part, id, share, slow, sound, because: `This ${PART_WORDS[part]} was ${with_}${without}.` };
}

const count = (n: number): string => (n === 1 ? 'one build' : `${n} builds`);

/** Causes that lie with a part that is suspect across builds. */
const OF_PART: Record<Suspect['part'], readonly CauseCode[]> = {
  cable: ['usb2-fallback', '5g-port-or-cable', '10g-fallback', 'unstable-link', 'not-detected-link'],
  port: ['usb2-fallback', '5g-port-or-cable', '10g-fallback', 'unstable-link', 'no-power', 'host-write-ceiling'],
  host: ['host-write-ceiling', 'host-disk-cliff', 'write-cache-off', 'background-load', '5g-port-or-cable'],
  enclosure: ['bulk-only', 'pad-no-contact', 'bridge-firmware', 'two-lane-limit', 'thermal-throttle', 'unstable-link'],
  drive: ['drive-nearly-full', 'smr-rewrite', 'weak-surface', 'slc-cliff', 'drive-faulty', 'thermal-throttle']
};

/** Makes evidence of what other builds say of the parts of this one: those of the first run of the history. */
export function suspectEvidence(history: History): Evidence[] {
  const own = history[0]?.ids ?? {};
  return suspectsOf(history)
    .filter(({ part, id, share }) => own[part] === id && share >= 0.5)
    .map(({ part, because, share }) =>
      fromTable(`suspect-${part}`, because, {
        usual: 0.25,
        given: Object.fromEntries(OF_PART[part].map((cause) => [cause, 0.25 + 0.7 * share]))
      })
    );
}
