import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anInput } from '../../tests/parts';
import { runSheet } from '../assembly/run-sheet';
import { withAnswers } from '../assembly/answers';
import { changesSince, entryInputSchema, judge, marksOf, placeOf, progressOf, seenSteps, type Entry } from './progress';
import { tickable } from './sheet';

let made = 0;
const entry = (change: Partial<Entry>): Entry => ({
  key: `K${String((made += 1)).padStart(3, '0')}`,
  stepId: 's',
  unitId: null,
  done: true,
  note: null,
  answer: null,
  at: '2026-11-27T10:00:00.000Z',
  by: 'one',
  against: null,
  ...change
});
const stateOf = (entries: Entry[]) => marksOf(entries).get(placeOf('s', null));

describe('how a step stands', () => {
  it('a tick and a tick are one, and the first hand is kept', () => {
    const [a, b] = [entry({ by: 'one' }), entry({ by: 'two' })];
    expect(stateOf([a, b])).toMatchObject({ done: true, entry: { by: 'one' }, disputed: null });
  });
  it('ticked and unticked by one who saw it, it is open', () => {
    expect(stateOf([entry({}), entry({ done: false })])).toMatchObject({ done: false, disputed: null });
  });
  it('a tick and an untick that did not see each other are both shown, and the step is open', () => {
    const a = entry({ by: 'one' });
    const b = entry({ by: 'two', done: false, against: a.key });
    expect(stateOf([a, b])).toMatchObject({ done: false, entry: { by: 'one' }, disputed: { by: 'two' } });
    const decided = entry({ by: 'three', done: true });
    expect(stateOf([a, b, decided])).toMatchObject({ done: true, entry: { by: 'three' }, disputed: null });
  });
  it('without the tick that was contradicted, the other stands alone', () => {
    const b = entry({ done: false, against: 'GONE' });
    expect(stateOf([b])).toMatchObject({ done: false, disputed: null });
  });
  it('notes and answers tick nothing', () => expect(marksOf([entry({ done: null, note: 'n' })]).size).toBe(0));
});

describe('what becomes of a tick that arrives', () => {
  const at = (minute: number) => `2026-11-27T10:${String(minute).padStart(2, '0')}:00.000Z`;
  const ticked = marksOf([entry({ key: 'A', at: at(10) })]).get(placeOf('s', null));

  it('the first is taken; an untick of what was never ticked changes nothing', () => {
    expect(judge(undefined, { done: true, at: at(1) })).toEqual({ is: 'accepted' });
    expect(judge(undefined, { done: false, at: at(1) })).toEqual({ is: 'already' });
  });
  it('the same again is one with the first, also from long ago', () => {
    expect(judge(ticked, { done: true, at: at(2) }).is).toBe('already');
    expect(judge(ticked, { done: true, at: at(20), seen: null }).is).toBe('already');
  });
  it('the contrary of one who saw it is taken, of one who did not it is a conflict', () => {
    expect(judge(ticked, { done: false, at: at(20), seen: 'A' }).is).toBe('accepted');
    expect(judge(ticked, { done: false, at: at(20), seen: null })).toMatchObject({
      is: 'conflict',
      theirs: { key: 'A' }
    });
    expect(judge(ticked, { done: false, at: at(20), seen: 'OTHER' }).is).toBe('conflict');
  });
  it('where the sender does not say what it saw, times decide', () => {
    expect(judge(ticked, { done: false, at: at(20) }).is).toBe('accepted');
    expect(judge(ticked, { done: false, at: at(5) }).is).toBe('conflict');
  });
});

describe('a sheet', () => {
  const input = anInput();
  const sheet = runSheet(input);
  const done = (ids: readonly string[]) => ids.map((stepId) => entry({ stepId }));
  const idsOf = (n: number) => [...sheet.stages[n]!.steps.map(({ id }) => id), sheet.stages[n]!.checkId];

  it('is at its first stage that is not complete: every step and the check', () => {
    expect(progressOf(sheet, [], []).current).toBe(0);
    expect(progressOf(sheet, done(idsOf(0)), []).current).toBe(1);
    expect(progressOf(sheet, done(idsOf(0).slice(0, -1)), []).current).toBe(0);
    expect(progressOf(sheet, done(idsOf(0).slice(1)), []).stages[0]).toMatchObject({ checked: true, complete: false });
    const all = sheet.stages.flatMap((_, n) => idsOf(n));
    expect(progressOf(sheet, done(all), []).current).toBeNull();
  });
  it('for two items asks for each step twice, and once for what is done once', () => {
    const two = runSheet(input, { units: 2 });
    const [first] = progressOf(two, [], ['U1', 'U2']).stages;
    // tag-parts, photograph and unplug for each of two; count-kit and discharge once: 3 x 2 + 2.
    expect(first?.all).toBe(8);
  });
  it('says what its parts have made new and what fell away, and what of that was done', () => {
    const seen = seenSteps(sheet);
    const now = runSheet({ ...input, drive: { ...input.drive, name: 'Other', heatsinkMm: 5 } });
    const gone = sheet.stages.flatMap(({ steps }) => steps).find(({ code }) => code === 'insert-slanted')!;
    const changes = changesSince(seen, now, done([gone.id]));
    expect(changes.added.some(({ text }) => /heatsink/.test(text))).toBe(true);
    expect(changes.gone.find(({ id }) => id === gone.id)).toMatchObject({ done: true });
    expect(changes.gone.filter((step) => step.done)).toHaveLength(1);
    expect(changesSince(seen, sheet, [])).toEqual({ added: [], gone: [] });
  });
  it('takes an answer where the part is silent, and the part where it speaks', () => {
    const answer = { question: 'retention', value: 'turning' } as const;
    const said = [entry({ stepId: 'ask:retention', done: null, answer })];
    expect(withAnswers(input, said).enclosure.retention).toBe('turning');
    const stated = { ...input, enclosure: { ...input.enclosure, retention: 'screw' as const } };
    expect(withAnswers(stated, said).enclosure.retention).toBe('screw');
    const asks = (of: typeof input) =>
      runSheet(of).stages.flatMap((stage) => stage.asks.map(({ question }) => question));
    expect(asks(input)).toContain('retention');
    expect(asks(withAnswers(input, said))).not.toContain('retention');
  });
  it('an entry says something: a tick, a note or an answer', () => {
    const base = { key: '01ARZ3NDEKTSV4RRFFQ69G5FAV', stepId: 's', at: '2026-11-27T10:00:00.000Z' };
    expect(entryInputSchema.safeParse(base).success).toBe(false);
    expect(entryInputSchema.safeParse({ ...base, note: 'n' }).success).toBe(true);
    for (const note of ['', ' \n ']) expect(entryInputSchema.safeParse({ ...base, note }).success).toBe(false);
    const answer = { question: 'directionMark', value: true } as const;
    expect(entryInputSchema.safeParse({ ...base, answer }).success).toBe(true);
    expect(entryInputSchema.safeParse({ ...base, answer, done: true }).success).toBe(false);
    for (const at of ['yesterday', '2026-11-27T10:00:00.123456789Z', '2026-11-27T10:00:00+05:00'])
      expect(entryInputSchema.safeParse({ ...base, note: 'n', at }).success).toBe(false);
    expect(entryInputSchema.safeParse({ ...base, done: true, stepId: '../x' }).success).toBe(false);
  });
});

describe('entries in any order of two hands', () => {
  it('leave every step done, open, or shown with both', () => {
    const one = fc.record({
      done: fc.boolean(),
      sees: fc.boolean(),
      by: fc.constantFrom('one', 'two'),
      step: fc.constantFrom('s', 't')
    });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 14 }), (list) => {
        const kept: Entry[] = [];
        for (const [n, { done, sees, by, step }] of list.entries()) {
          const mark = marksOf(kept).get(placeOf(step, null));
          const last = mark?.disputed ?? mark?.entry ?? null;
          const at = `2026-11-27T10:${String(n).padStart(2, '0')}:00.000Z`;
          const verdict = judge(mark, { done, at, seen: sees ? (last?.key ?? null) : 'BLIND' });
          if (verdict.is === 'already') {
            expect(last === null ? done === false : last.done === done).toBe(true);
            continue;
          }
          const against = verdict.is === 'conflict' ? verdict.theirs.key : null;
          kept.push(entry({ stepId: step, done, by, at, against }));
          const now = marksOf(kept).get(placeOf(step, null));
          if (verdict.is === 'conflict') expect(now?.done).toBe(false);
          else expect(now).toMatchObject({ done, disputed: null });
        }
      })
    );
  });
});

describe('what can be ticked', () => {
  it('is named once', () => {
    const ids = tickable(runSheet(anInput(), { units: 3 })).map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
  });
});
