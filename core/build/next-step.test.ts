import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import type { Comparison } from '../results/compare';
import type { HouseRules } from '../house-rules/house-rules';
import { plan } from '../plan/plan';
import { nextStep, type BuildState } from './next-step';
import type { BuildStage } from './stages';

const TODAY = '2026-11-26';
const report = plan(anInput(), { workings: false });
const step = (stage: BuildStage, rules?: HouseRules, more: Partial<BuildState> = {}) =>
  nextStep(
    { stage, report, outdated: false, latest: [], measuredOn: undefined, ...(rules ? { rules } : {}), ...more },
    TODAY
  );
const below: Comparison = {
  field: 'writeMBps',
  measured: 340,
  band: { low: 2800, typical: 3400, high: 3900 },
  place: 'below',
  percentOfTypical: 10
};

describe('the next step follows the house rules, and names one that the crate chose', () => {
  it.each<[string, HouseRules | undefined, RegExp, RegExp | undefined]>([
    ['by default both', undefined, /speed check.*then time a copy/, undefined],
    ['both, chosen', { 'judge-by': 'both' }, /speed check.*then time a copy/, /house rule “Judge by”/],
    [
      'the speed check',
      { 'judge-by': 'synthetic' },
      /^Run the speed check and enter the result \(/,
      /house rule “Judge by”/
    ],
    ['the own copy', { 'judge-by': 'copy' }, /^Time a copy of your own/, /house rule “Judge by”: the own copy job/]
  ])('formatted, judged by: %s', (_name, rules, says, names) => {
    const { text, station } = step('formatted', rules);
    expect(station).toBe('measure');
    expect(text).toMatch(says);
    if (names) expect(text).toMatch(names);
    else expect(text).not.toContain('house rule');
  });

  it.each<[string, HouseRules | undefined, RegExp]>([
    ['by default the system’s own tools', undefined, /with the system’s own tools\. Formatting erases/],
    ['chosen', { software: 'system' }, /own tools \(house rule “Software”.*\)\. Formatting erases/],
    ['the supplied software', { software: 'supplied' }, /supplied software.*house rule “Software”.*Formatting erases/]
  ])('assembled, formatted with: %s', (_name, rules, says) => expect(step('assembled', rules).text).toMatch(says));

  it.each<[string, HouseRules | undefined, RegExp]>([
    [
      'by default computer and chain first',
      undefined,
      /10 % of the typical forecast: other port, other cable, then a second computer\./
    ],
    [
      'the drive first',
      { 'one-host': 'drive-first' },
      /the drive’s own test and health first.*house rule “Slow on one computer”/
    ]
  ])('measured below the forecast: %s', (_name, rules, says) => {
    const found = step('in service', rules, { latest: [below], measuredOn: '2026-11-01' });
    expect(found.tone).toBe('urgent');
    expect(found.text).toMatch(says);
  });

  it('a rule with nonsense in it is the default, and is not named as a choice of something else', () => {
    expect(step('formatted', { 'judge-by': 'astrology' }).text).toMatch(/speed check.*then time a copy/);
  });

  it('what stands in the way comes before every rule', () => {
    const failing = plan(anInput({ enclosure: anEnclosure({ formFactor: '2.5in' }) }), { workings: false });
    expect(step('formatted', { 'judge-by': 'copy' }, { report: failing })).toMatchObject({
      station: 'pair',
      tone: 'urgent'
    });
    expect(step('formatted', { 'judge-by': 'copy' }, { outdated: true }).text).toContain('plan again');
  });

  it('before buying, a limit is told with the rule that speaks of it', () => {
    const slow = plan(
      anInput({
        cable: aCable({ modes: ['usb-10g'], active: true }),
        job: { name: 'j', purposes: [], transferGB: 10, direction: 'in', minSustainedWriteMBps: 500 }
      }),
      { workings: false }
    );
    expect(step('planned', undefined, { report: slow }).text).toMatch(/think it over.*house rule “Link”/);
    const host = aHost({ powerW: 4.5 });
    const drive = aDrive({ power: { activeW: 16 } });
    const starved = plan(anInput({ host, drive }), { workings: false });
    expect(step('planned', undefined, { report: starved }).tone).toBe('urgent');
  });
});

describe('a run sheet that was begun', () => {
  const stage = (id: string, title: string, complete: boolean) => ({
    id,
    title,
    complete,
    checked: complete,
    done: complete ? 4 : 1,
    all: 4
  });
  const stages = [
    stage('lay-out', 'Lay out', true),
    stage('dry-fit', 'Pads and dry fit', false),
    stage('x', 'X', false)
  ];
  const sheet = { stages, current: 1, done: 5, all: 12 };

  it('is named with its stage, before the build is said to be outdated', () => {
    const next = step('bought', undefined, { sheet, outdated: true });
    expect(next).toMatchObject({ text: 'Stage 2 of 3: pads and dry fit.', station: 'assemble' });
    expect(next.marks).toBeUndefined();
  });
  it('that is done is followed by marking the build', () =>
    expect(step('bought', undefined, { sheet: { ...sheet, current: null } })).toMatchObject({ marks: 'assembled' }));
  it('is not spoken of once the build is further on, and never hides what fails', () => {
    expect(step('formatted', undefined, { sheet }).station).toBe('measure');
    const failing = plan(anInput({ drive: aDrive({ m2Key: 'B' }) }), { workings: false });
    expect(step('bought', undefined, { sheet, report: failing }).tone).toBe('urgent');
  });
  it('that was not begun is offered', () => expect(step('bought')).toMatchObject({ station: 'assemble' }));
});
