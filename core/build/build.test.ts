import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput, aPort } from '../../tests/parts';
import { plan } from '../plan/plan';
import { assemble, libraryOf } from './assemble';
import { obviousChoice } from './options';
import { addDays } from '../quantities/days';
import { nextStep, type BuildState } from './next-step';

const library = libraryOf(
  [
    { ...aHost(), id: 'h' },
    { ...aCable(), id: 'c' },
    { ...anEnclosure(), id: 'e' },
    { ...aDrive(), id: 'd' }
  ],
  []
);

describe('assembling a choice', () => {
  it('gives the parts in full', () => {
    const made = assemble(library, { hostId: 'h', portId: 'p', cableId: 'c', enclosureId: 'e', driveId: 'd' });
    expect(made.ok && [made.input.host.name, made.input.cable?.name]).toEqual(['Test host', 'Test C-C']);
  });
  it('tells what is not chosen yet from what is chosen and gone', () => {
    const made = assemble(library, { hostId: 'h', portId: 'nope', driveId: 'gone' });
    expect(!made.ok && made.missing.map((m) => [m.slot, m.chosen])).toEqual([
      ['enclosureId', false],
      ['driveId', true],
      ['portId', true]
    ]);
  });
  it('says what to choose in the words of the screen', () => {
    const made = assemble(library, {});
    expect(!made.ok && made.missing.map((m) => m.message)).toEqual([
      'Choose a computer.',
      'Choose an enclosure.',
      'Choose a drive.'
    ]);
  });
});

describe('what need not be asked', () => {
  it('is the part of which there is only one, and of a computer its fastest port', () => {
    expect(obviousChoice(library)).toEqual({ hostId: 'h', portId: 'p', cableId: 'c', enclosureId: 'e', driveId: 'd' });
    const ports = [aPort({ id: 'a', plug: 'usb-a', modes: ['usb-5g'] }), aPort({ id: 'b', modes: ['usb-10g'] })];
    const two = libraryOf(
      [
        { ...aHost({}, { ports }), id: 'h' },
        { ...aDrive(), id: 'd' },
        { ...aDrive(), id: 'd2' }
      ],
      []
    );
    expect(obviousChoice(two)).toEqual({ hostId: 'h', portId: 'b' });
  });
  it('a cable that does not fit the port is none of it', () => {
    const lead = { ...aCable({ ends: ['usb-a', 'micro-b'] }), id: 'c' };
    expect(obviousChoice(libraryOf([{ ...aHost(), id: 'h' }, lead], []))).toEqual({ hostId: 'h', portId: 'p' });
  });
});

describe('the next step of a build', () => {
  const sound = plan(anInput());
  const state = (change: Partial<BuildState>): BuildState => ({
    stage: 'planned',
    report: sound,
    outdated: false,
    latest: [],
    measuredOn: undefined,
    ...change
  });
  const failing = plan(anInput({ drive: aDrive({ m2LengthMm: 110 }) }));
  const limited = plan(anInput({ cable: aCable({ modes: ['usb-10g'], active: true }) }));
  const below = [
    {
      field: 'writeMBps' as const,
      measured: 380,
      band: { low: 900, typical: 1000, high: 1070 },
      place: 'below' as const,
      percentOfTypical: 38
    }
  ];

  it.each<[string, Partial<BuildState>, string, string]>([
    ['what fails comes first', { report: failing, stage: 'in service' }, 'urgent', 'standoff'],
    ['then parts that changed', { outdated: true, stage: 'benched' }, 'do', 'plan again'],
    ['a limit is thought over before buying', { report: limited }, 'do', '3400'],
    ['planned', {}, 'do', 'Get the parts together'],
    ['bought', { stage: 'bought' }, 'do', 'Assemble'],
    ['assembled', { stage: 'assembled' }, 'do', 'Format it as ext4, GPT'],
    ['formatted', { stage: 'formatted' }, 'do', 'Run the speed check'],
    ['measured below the forecast', { stage: 'benched', latest: below, measuredOn: '2026-11-01' }, 'urgent', '38 %'],
    ['measured as forecast', { stage: 'benched', measuredOn: '2026-11-01' }, 'do', 'put it in service'],
    ['benched by hand, never measured', { stage: 'benched' }, 'do', 'without a result'],
    ['in service, never measured', { stage: 'in service' }, 'do', 'without a result'],
    // 91 days after 1 Sep is 1 Dec
    ['in service, measured lately', { stage: 'in service', measuredOn: '2026-09-01' }, 'waits', '1 Dec 2026'],
    ['in service, measured long ago', { stage: 'in service', measuredOn: '2026-08-01' }, 'do', 'again'],
    ['retired', { stage: 'retired', report: failing }, 'waits', 'Retired']
  ])('%s', (_name, change, tone, text) => {
    const step = nextStep(state(change), '2026-11-23');
    expect(step.tone).toBe(tone);
    expect(step.text).toContain(text);
  });
});

describe('days', () => {
  it.each([
    ['2026-11-23', 8, '2026-12-01'],
    ['2028-02-28', 1, '2028-02-29'],
    ['2026-12-31', 1, '2027-01-01'],
    ['2026-03-01', -1, '2026-02-28']
  ])('%s and %d days', (from, days, to) => expect(addDays(from, days)).toBe(to));
  it('refuses what is no date', () => expect(() => addDays('soon', 1)).toThrow(RangeError));
});
