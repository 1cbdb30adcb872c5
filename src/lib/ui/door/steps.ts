import { aKind, KIND_LABEL, type Kind } from '#core/parts/kinds';

/** How many parts of each kind a crate knows. */
export type Counts = Partial<Record<Kind, number>>;
/** One step of the first evening: where it is done, whether it is, and whether one may leave it out. */
export type Step = { key: string; label: string; href: string; done: boolean; optional: boolean; about: string };

const ORDER = ['host', 'drive', 'enclosure', 'cable', 'pad'] as const;
const ABOUT: Record<(typeof ORDER)[number], string> = {
  host: 'what stands beside its ports is enough',
  drive: 'paste what its box says, or pick its class',
  enclosure: 'paste what its box says, or pick its class',
  cable: 'without one, that in the box is taken, or one that fits is assumed',
  pad: 'only where the gap over the chips is to be closed'
};

/** The steps from an empty crate to the first judged build, in the order of the work. */
export function stepsOf(home: string, counts: Counts, builds: number): Step[] {
  const parts = ORDER.map((kind): Step => {
    const n = counts[kind] ?? 0;
    const optional = kind === 'cable' || kind === 'pad';
    return {
      key: kind,
      label:
        n === 0
          ? `Add ${aKind(kind)}`
          : n === 1
            ? `1 ${KIND_LABEL[kind].one}`
            : `${n} ${KIND_LABEL[kind].many.toLowerCase()}`,
      href: `${home}/crate/${kind}/new`,
      done: n > 0,
      optional,
      about: ABOUT[kind]
    };
  });
  return [
    ...parts,
    {
      key: 'pair',
      label: builds === 0 ? 'Pair them' : `${builds} ${builds === 1 ? 'build' : 'builds'}`,
      href: `${home}/pair`,
      done: builds > 0,
      optional: false,
      about: 'the verdict, the time, the slowest link and the format follow at once'
    }
  ];
}

/** The step that is next: the open part that follows, pads never urged; then the first needed part that is open; then pairing. */
export function nextStepAfter(steps: readonly Step[], key?: string): Step | undefined {
  const parts = steps.filter((step) => step.key !== 'pair' && !step.done);
  const at = key === undefined ? -1 : steps.findIndex((step) => step.key === key);
  const later = parts.find((step) => steps.indexOf(step) > at && step.key !== 'pad');
  return later ?? parts.find((step) => !step.optional) ?? steps.find((step) => step.key === 'pair');
}
