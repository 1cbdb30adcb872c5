import { appliedRule, chosenOption, type AppliedRule, type HouseRules } from '../house-rules/house-rules.ts';
import type { Finding } from '../findings/finding.ts';
import type { WriteCachePolicy } from '../chain/write-cache.ts';
import type { PlanInput } from './report.ts';

type Seen = {
  input: PlanInput;
  findings: readonly Finding[];
  rules: HouseRules | undefined;
  policy: WriteCachePolicy | null;
};
type Remark = (seen: Seen) => AppliedRule | undefined;

/** A transfer that lasts longer than a case takes to warm through is what fans are about. GB. */
const LONG_WRITE_GB = 200;

/** Where a rule changed a sentence or an assumption, and where the build is on the other side of a rule. One remark a school. */
const REMARKS: readonly Remark[] = [
  ({ findings, rules }) =>
    findings.some((f) => f.code === 'drive-faster-than-link')
      ? appliedRule(
          'drive-class',
          rules,
          chosenOption('drive-class', rules) === 'headroom' ? 'the faster drive is kept' : 'a slower drive would do'
        )
      : undefined,
  ({ findings, rules, input: { job } }) => {
    const slow = findings.find(
      (f) => f.code === 'cable-limits-link' || f.code === 'port-limits-link' || f.code === 'adapter-limits-link'
    );
    if (!slow) return undefined;
    if (chosenOption('link', rules) !== 'by-job')
      return appliedRule('link', rules, 'a faster link is worth having in any case');
    return job && slow.enough !== undefined
      ? appliedRule('link', rules, `the job “${job.name}” has the rate that it needs`)
      : appliedRule(
          'link',
          rules,
          job?.minSustainedWriteMBps
            ? 'the job needs more than this link gives'
            : 'the job states no rate that it needs, so the gain is offered'
        );
  },
  ({ input: { job }, rules, policy }) =>
    policy === null || policy.from === 'build' || job?.direction === 'out'
      ? undefined
      : appliedRule(
          'write-cache',
          rules,
          policy.policy === 'performance'
            ? 'the forecast is for a cached drive: always eject'
            : 'through a tunnel it writes a sixth to a half, and every file costs 2 to 10 ms'
        ),
  ({ input: { enclosure, job, drive }, rules }) => {
    const kind = enclosure.cooling?.kind;
    const wanted = chosenOption('cooling', rules);
    const long =
      drive.media === 'nvme' && job !== undefined && job.direction !== 'out' && job.transferGB >= LONG_WRITE_GB;
    if (kind === undefined || kind === wanted || (wanted === 'fan' && !long)) return undefined;
    return appliedRule(
      'cooling',
      rules,
      wanted === 'fan'
        ? 'this case is passive, and the job writes for long'
        : 'this case has a fan, which is heard on a desk'
    );
  },
  ({ input: { enclosure, drive }, rules }) => {
    const held = enclosure.retention;
    const byScrew = held === 'screw' || held === 'screw-from-below';
    const wanted = chosenOption('retention', rules);
    return drive.formFactor !== 'm2' || held === undefined || byScrew === (wanted === 'screw')
      ? undefined
      : appliedRule(
          'retention',
          rules,
          `this case holds the module ${byScrew ? 'with a screw' : held === 'tray' ? 'in a tray' : 'without tools'}`
        );
  },
  ({ input: { drive }, rules }) =>
    drive.label === 'paper' && drive.formFactor === 'm2'
      ? appliedRule(
          'label',
          rules,
          chosenOption('label', rules) === 'leave'
            ? 'the paper label stays on'
            : 'the paper label comes off: photograph it first'
        )
      : undefined
];

/** Tells what the house rules decided in a plan, beyond what filesystem and pads say themselves. */
export function remarksOf(seen: Seen): AppliedRule[] {
  const said: AppliedRule[] = [];
  for (const remark of REMARKS) {
    const decided = remark(seen);
    if (decided) said.push(decided);
  }
  return said;
}
