import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { aCable, aDrive, aHost, anEnclosure, aPort } from '../../tests/parts';
import { runInputSchema } from '../results/run';
import { buildInputSchema } from '../build/choice';
import { planInputSchema, planReportSchema } from '../plan/report';
import { jobSchema } from './job';
import { modelSchema } from './model';
import { quoteSchema } from './quote';
import { unitSchema } from './item';

const ID = '01ARZ3NDEKTSV4RRFFQ69G5FAV';
/** The path of the first thing refused; empty where nothing is. */
const refusedAt = (schema: z.ZodType, value: unknown) => {
  const parsed = schema.safeParse(value);
  return parsed.success ? 'accepted' : parsed.error.issues[0]!.path.join('.');
};

describe('parts', () => {
  it.each([
    ['a drive', aDrive()],
    ['an enclosure', anEnclosure()],
    ['a cable', aCable()],
    ['a host', aHost()],
    ['a pad', { kind: 'pad', name: 'p', thicknessMm: 1, widthMm: 20, lengthMm: 70 }],
    ['an alternative', { kind: 'alternative', name: 'a', sort: 'portable', capacityTB: 2 }]
  ])('%s is accepted', (_name, part) => expect(refusedAt(modelSchema, part)).toBe('accepted'));

  it.each<[string, unknown, string]>([
    ['an unknown kind', { ...aDrive(), kind: 'toaster' }, 'kind'],
    ['no name', { ...aDrive(), name: '' }, 'name'],
    ['a name of spaces', { ...aDrive(), name: '   ' }, 'name'],
    ['a name with a line break', { ...aDrive(), name: 'a\nb' }, 'name'],
    ['a name that is too long', { ...aDrive(), name: 'x'.repeat(121) }, 'name'],
    ['zero capacity', { ...aDrive(), capacityTB: 0 }, 'capacityTB'],
    ['a negative rate', { ...aDrive(), readMBps: -1 }, 'readMBps'],
    ['an infinite rate', { ...aDrive(), readMBps: Infinity }, 'readMBps'],
    ['NaN', { ...aDrive(), readMBps: NaN }, 'readMBps'],
    ['a number as text', { ...aDrive(), readMBps: '7000' }, 'readMBps'],
    ['null for not known', { ...aDrive(), readMBps: null }, 'readMBps'],
    ['PCIe 6', { ...aDrive(), pcie: { generation: 6, lanes: 4 } }, 'pcie.generation'],
    ['three lanes', { ...aDrive(), pcie: { generation: 4, lanes: 3 } }, 'pcie.lanes'],
    ['a fill above 1', { ...aDrive(), fillFraction: 1.2 }, 'fillFraction'],
    [
      'an inner edge faster than the outer',
      { ...aDrive(), disk: { outerMBps: 100, innerMBps: 101 } },
      'disk.innerMBps'
    ],
    ['no link mode', { ...anEnclosure(), modes: [] }, 'modes'],
    ['a cable with one end', { ...aCable(), ends: ['usb-c'] }, 'ends'],
    ['a host without ports', { ...aHost(), ports: [] }, 'ports'],
    ['two ports of one name', { ...aHost(), ports: [aPort(), aPort()] }, 'ports'],
    ['a version in words', { ...aHost(), os: { family: 'linux', version: 'newest' } }, 'os.version'],
    ['an id that is none', { ...aDrive(), id: 'drive 1' }, 'id']
  ])('%s is refused at its place', (_name, part, path) => expect(refusedAt(modelSchema, part)).toBe(path));
});

describe('the rest', () => {
  const quote = { partId: ID, vendor: 'v', date: '2026-05-01', currency: 'EUR', list: 10 };
  const job = { name: 'j', purposes: [], transferGB: 10, direction: 'in' };
  const choice = { hostId: ID, portId: 'p', enclosureId: ID, driveId: ID };
  const run = { protocol: 'pair-check', date: '2026-05-01', results: { readMBps: 100 }, conditions: {} };

  it.each<[string, z.ZodType, unknown, string]>([
    ['a quote', quoteSchema, quote, 'accepted'],
    ['a quote on 31 February', quoteSchema, { ...quote, date: '2026-02-31' }, 'date'],
    ['a quote in euros by sign', quoteSchema, { ...quote, currency: '€' }, 'currency'],
    ['a discount of 120 %', quoteSchema, { ...quote, discountPercent: 120 }, 'discountPercent'],
    ['a job', jobSchema, job, 'accepted'],
    ['a job sideways', jobSchema, { ...job, direction: 'sideways' }, 'direction'],
    ['half a file', jobSchema, { ...job, files: 0.5 }, 'files'],
    ['a unit', unitSchema, { modelId: ID, tag: 'D-001', state: 'owned' }, 'accepted'],
    ['a unit in limbo', unitSchema, { modelId: ID, tag: 'D-001', state: 'lost' }, 'state'],
    ['a build', buildInputSchema, { name: 'b', choice }, 'accepted'],
    [
      'a build without a drive',
      buildInputSchema,
      { name: 'b', choice: { ...choice, driveId: undefined } },
      'choice.driveId'
    ],
    ['a result', runInputSchema, run, 'accepted'],
    ['a result with nothing in it', runInputSchema, { ...run, results: {} }, 'results'],
    ['a result of zero', runInputSchema, { ...run, results: { readMBps: 0 } }, 'results.readMBps'],
    [
      'conditions at 120 % full',
      runInputSchema,
      { ...run, conditions: { fillPercent: 120 } },
      'conditions.fillPercent'
    ],
    ['half a repeat', runInputSchema, { ...run, conditions: { repeats: 1.5 } }, 'conditions.repeats']
  ])('%s', (_name, schema, value, path) => expect(refusedAt(schema, value)).toBe(path));

  it('all of them can be told as JSON Schema, without a transform in the way', () => {
    for (const schema of [
      modelSchema,
      quoteSchema,
      jobSchema,
      unitSchema,
      buildInputSchema,
      runInputSchema,
      planInputSchema,
      planReportSchema
    ]) {
      expect(() => z.toJSONSchema(schema, { io: 'input' })).not.toThrow();
    }
  });
});
