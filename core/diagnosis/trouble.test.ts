import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import { randomCrate } from '../../tests/random-crate';
import { walkAll } from '../../tests/walk-trouble';
import { seeded } from '../quantities/random';
import { CAUSE_WORDS, CAUSES, type CauseCode } from './causes';
import { PRIORS } from './priors';
import { CANNOT_TELL, SYMPTOMS, type Question, type Symptom } from './question';
import { situationOf, type Situation } from './situation';
import { QUESTIONS, UnknownAnswer, type TroubleAnswer } from './asking';
import { MOST_QUESTIONS, trouble, troubleReportSchema } from './trouble';

const m2 = situationOf(anInput());
const disk = situationOf(
  anInput({
    drive: aDrive({ media: 'hdd', formFactor: '3.5in', capacityTB: 8 }),
    enclosure: anEnclosure({ formFactor: '3.5in', protocols: ['sata'], externalSupply: true, modes: ['usb-10g'] })
  })
);
const tests = (symptom: Symptom, at: Situation, answers: TroubleAnswer[]) => trouble(symptom, at, answers);

describe('the table', () => {
  it('has one question of each code, and every share of an outcome adds up to 1', () => {
    expect(new Set(QUESTIONS.map(({ code }) => code)).size).toBe(QUESTIONS.length);
    for (const { code, outcomes, usual, given } of QUESTIONS)
      for (const [cause, row] of [['usual', usual], ...Object.entries(given)] as [string, readonly number[]][]) {
        expect(row.length, `${code} ${cause}`).toBe(outcomes.length);
        expect(
          row.reduce((a, b) => a + b, 0),
          `${code} ${cause}`
        ).toBeCloseTo(1, 9);
        // Nothing is certain: a slip of the person who answers must not rule a cause out for ever.
        expect(Math.min(...row), `${code} ${cause}`).toBeGreaterThan(0);
      }
  });
  it('has words for every cause, and every symptom has causes that a question can tell apart', () => {
    expect(Object.keys(CAUSE_WORDS).sort()).toEqual([...CAUSES].sort());
    for (const symptom of SYMPTOMS) {
      const asked = QUESTIONS.filter((question) => question.for.includes(symptom));
      for (const cause of Object.keys(PRIORS[symptom]) as CauseCode[])
        expect(
          asked.some(({ given }) => cause in given),
          `${symptom}: ${cause}`
        ).toBe(true);
    }
  });
  it('speaks of causes of its own symptoms only', () => {
    for (const { code, given, for: symptoms } of QUESTIONS)
      for (const cause of Object.keys(given))
        expect(
          symptoms.some((symptom) => cause in PRIORS[symptom]),
          `${code}: ${cause}`
        ).toBe(true);
  });
});

describe('what the build already says', () => {
  it('is not asked: a key that does not fit', () => {
    const at = situationOf(anInput({ drive: aDrive({ m2Key: 'B' }) }));
    const report = tests('will-not-go-in', at, []);
    expect(report.known.map(({ test }) => test)).toContain('notch-over-key');
    expect(report.causes[0]?.cause).toBe('wrong-part');
  });
  it('is not asked: the write cache, how full it is, and the rate that was measured', () => {
    const input = anInput({
      host: aHost({}, { os: { family: 'windows', version: '11' } }),
      writeCache: 'quick-removal',
      drive: aDrive({ fillFraction: 0.97 })
    });
    const known = tests('slow', situationOf(input, { readMBps: 38, writeMBps: 36 }), []);
    expect(known.known.map(({ test }) => test).sort()).toEqual(['how-full', 'policy', 'read-or-write', 'reads-at']);
    expect(known.causes[0]).toMatchObject({ cause: 'usb2-fallback', of: 'cable' });
  });
  it('nobody without a hub is asked to leave it out, nobody without pads to take them out', () => {
    const asked = (at: Situation, symptom: Symptom) => everyQuestion(symptom, at);
    expect(asked(m2, 'not-detected')).not.toContain('straight-in');
    expect(asked(disk, 'not-detected')).not.toContain('without-pads-on');
    const hub = situationOf(anInput({ host: aHost({ via: 'bus-powered-hub' }) }));
    expect(asked(hub, 'no-power')).toContain('straight-in');
  });
});

describe('what is asked', () => {
  it('a new drive that is in the list of disks is empty: two looks', () => {
    const report = tests('not-detected', m2, [
      { test: 'disk-list', outcome: 'right' },
      { test: 'seen-before', outcome: 'never' }
    ]);
    expect(report).toMatchObject({ end: 'cause', ask: null });
    expect(report.causes[0]).toMatchObject({ cause: 'not-initialised', backTo: 'look-for-it' });
    expect(report.causes[0]?.says).toBe('The drive is well and empty: it has no partition yet, so no volume shows.');
    expect(report.causes[0]?.evidence).toHaveLength(2);
    expect(report.causes[0]?.of).toBe('drive');
  });
  it('2 TB that show as 1.82 are right: 2e12 / 2^40 = 1.819', () => {
    const report = tests('wrong-capacity', m2, []);
    expect(report.ask?.outcomes.find(({ outcome }) => outcome === 'binary')?.text).toBe('About 1.82\u202fTB');
    const end = tests('wrong-capacity', m2, [
      { test: 'shown-size', outcome: 'binary' },
      { test: 'device-or-volume', outcome: 'no' }
    ]);
    expect(end.causes[0]?.cause).toBe('healthy');
  });
  it('firmware comes with its caution: a copy first', () => {
    for (const cause of ['bridge-firmware', 'not-detected-drive', 'wrong-capacity', 'bulk-only'] as const)
      expect(CAUSE_WORDS[cause].remedy).toMatch(/Copy everything that is on the drive first/);
  });
  it('refuses what it did not ask, and an outcome that a test does not have', () => {
    const wrong = (answers: TroubleAnswer[]) => () => tests('slow', m2, answers);
    expect(wrong([{ test: 'disk-list', outcome: 'right' }])).toThrow(UnknownAnswer);
    expect(wrong([{ test: 'how-it-falls', outcome: 'blue' }])).toThrow('answers.0.outcome');
  });
  it('names the driver where the case is held by screws, and none where it is not', () => {
    const opening = (how: 'screws' | 'slide') => situationOf(anInput({ enclosure: anEnclosure({ opening: how }) }));
    const asked = (at: Situation) => {
      const answers: TroubleAnswer[] = [];
      for (;;) {
        const { ask } = tests('no-capacity', at, answers);
        if (ask === null || ask.minutes > 5) return ask?.tools;
        answers.push({ test: ask.test, outcome: ask.outcomes[0]!.outcome === 'yes' ? 'no' : ask.outcomes[0]!.outcome });
        if (answers[0]!.test === 'board-flat') answers[0]!.outcome = 'yes';
      }
    };
    expect(asked(opening('screws'))).toContain('a screwdriver for the case');
    expect(asked(opening('slide'))).not.toContain('a screwdriver for the case');
  });
  it('where nothing can be told it names what would', () => {
    const answers: TroubleAnswer[] = [];
    for (;;) {
      const report = tests('not-detected', m2, answers);
      if (!report.ask) {
        expect(report.end).toBe('cannot-tell');
        expect(report.wouldTell.length).toBeGreaterThan(0);
        break;
      }
      answers.push({ test: report.ask.test, outcome: CANNOT_TELL });
    }
    expect(answers.length).toBeLessThanOrEqual(MOST_QUESTIONS);
  });
});

/** The questions that a build can be asked at all. */
const everyQuestion = (symptom: Symptom, at: Situation) =>
  QUESTIONS.filter((q) => q.for.includes(symptom) && (q.applies?.(at) ?? true)).map(({ code }) => code);

describe('every path', () => {
  const inputs = Array.from({ length: 25 }, (_, seed) =>
    randomCrate(seed + 1, { hosts: 2, portsEach: 2, cables: 1, enclosures: 4, drives: 4 })
  )
    .flatMap(({ hosts, enclosures, drives }) =>
      enclosures.flatMap((enclosure, e) => {
        const host = hosts[e % hosts.length]!;
        return drives.slice(0, 2).map((drive) => ({ host, portId: host.ports[0]!.id, enclosure, drive }));
      })
    )
    .slice(0, 200);

  it(
    'of 200 builds at random ends after six questions at most, in a cause or in what would tell',
    { timeout: 240_000 },
    () => {
      expect(inputs).toHaveLength(200);
      const situations = inputs.map((input) => situationOf(input));
      for (const at of situations)
        for (const symptom of SYMPTOMS) {
          const first = tests(symptom, at, []);
          expect(troubleReportSchema.safeParse(first).error?.issues ?? []).toEqual([]);
          expect(JSON.stringify(first)).not.toMatch(/undefined|NaN/);
        }
      const { ends, kinds, faults } = walkAll(situations);
      expect(faults.slice(0, 5)).toEqual([]);
      expect(kinds).toBeGreaterThan(60);
      expect(ends).toBeGreaterThan(5000);
    }
  );
});

describe('answers that are drawn as the table says', () => {
  const pick = (weights: readonly number[], random: () => number): number => {
    let left = random() * weights.reduce((a, b) => a + b, 0);
    const at = weights.findIndex((weight) => (left -= weight) < 0);
    return at === -1 ? weights.length - 1 : at;
  };
  it('lead to the true cause in most cases, and seldom to a wrong one', () => {
    const random = seeded(20261127);
    const score = { right: 0, open: 0, wrong: 0 };
    for (const at of [m2, disk])
      for (const symptom of SYMPTOMS) {
        const causes = (Object.entries(PRIORS[symptom]) as [CauseCode, number][]).filter(
          ([cause]) => CAUSE_WORDS[cause].applies?.(at) ?? true
        );
        for (let n = 0; n < 60; n++) {
          const [cause] =
            causes[
              pick(
                causes.map(([, weight]) => weight),
                random
              )
            ]!;
          const answers: TroubleAnswer[] = [];
          let report = tests(symptom, at, answers);
          while (report.ask) {
            const { test } = report.ask;
            const question: Question = QUESTIONS.find(({ code }) => code === test)!;
            const outcome = question.outcomes[pick(question.given[cause] ?? question.usual, random)]!;
            answers.push({ test, outcome: outcome.outcome });
            report = tests(symptom, at, answers);
          }
          if (report.end === 'cannot-tell') score.open += 1;
          else score[report.causes[0]?.cause === cause ? 'right' : 'wrong'] += 1;
        }
      }
    const all = score.right + score.open + score.wrong;
    expect(score.right / all).toBeGreaterThan(0.72);
    expect(score.wrong / all).toBeLessThan(0.15);
  });
});

describe('the cable of a build', () => {
  it('that is fixed to its case is not asked to be changed', () => {
    const captive = situationOf(anInput({ enclosure: anEnclosure({ captiveCable: true }) }));
    expect(everyQuestion('slow', captive)).not.toContain('other-cable');
    expect(everyQuestion('slow', situationOf(anInput({ cable: aCable() })))).toContain('other-cable');
  });
});
