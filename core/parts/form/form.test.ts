import { describe, expect, it } from 'vitest';
import { draftFrom, isDay, NEEDED, readDraft, type Field } from './form';
import { formFields } from './form-fields';
import { MODEL_SCHEMAS, modelSchema } from '../model';
import { unitSchema } from '../item';
import { aCable, aDrive, aHost, anEnclosure } from '../../../tests/parts';

const fieldsOf = (kind: keyof typeof MODEL_SCHEMAS) => formFields(MODEL_SCHEMAS[kind]);
const find = (fields: readonly Field[], key: string) => fields.find((f) => f.key === key);

describe('a form made from its schema', () => {
  it('asks for every field of the kind but the kind itself and the id', () => {
    for (const kind of Object.keys(MODEL_SCHEMAS) as (keyof typeof MODEL_SCHEMAS)[]) {
      const asked = fieldsOf(kind).map((f) => f.key);
      const known = Object.keys(MODEL_SCHEMAS[kind].shape).filter((key) => key !== 'kind' && key !== 'id');
      expect(asked.sort(), kind).toEqual(known.sort());
    }
  });

  it('knows units, ranges, choices and what is needed', () => {
    const fields = fieldsOf('drive');
    expect(find(fields, 'capacityTB')).toMatchObject({
      type: 'quantity',
      unit: 'TB',
      min: 0.001,
      max: 200,
      required: true
    });
    expect(find(fields, 'media')).toMatchObject({
      type: 'choice',
      required: true,
      options: [{ value: 'nvme', label: 'NVMe SSD' }, { value: 'sata-ssd' }, { value: 'hdd' }]
    });
    expect(find(fields, 'flash')).toMatchObject({ type: 'group', required: false });
    expect(find(fieldsOf('host'), 'ports')).toMatchObject({ type: 'list', item: 'port', required: true });
    const ports = find(fieldsOf('host'), 'ports');
    expect(ports?.type === 'list' && ports.fields.map((f) => f.key)).toContain('id');
  });

  it.each([
    [
      'drive',
      aDrive({
        components: [{ role: 'controller', side: 'top', xMm: 1, yMm: 1, widthMm: 5, lengthMm: 5, heightMm: 1 }]
      })
    ],
    ['enclosure', anEnclosure({ includedCables: [aCable()] })],
    ['cable', aCable()],
    ['host', aHost({}, { internalDisk: { readMBps: 5000, writeMBps: 4000 } })]
  ] as const)('a %s goes into the form and comes back the same', (kind, part) => {
    const fields = fieldsOf(kind);
    const { spec, errors } = readDraft(fields, draftFrom(fields, { ...part }));
    expect(errors).toEqual({});
    // parts inside a part carry their kind too
    const back = modelSchema.safeParse({
      ...spec,
      kind,
      ...(kind === 'enclosure' ? { includedCables: [{ ...(spec.includedCables as object[])[0], kind: 'cable' }] } : {})
    });
    expect(back.data).toEqual(part);
  });
});

describe('reading what was typed', () => {
  const fields = fieldsOf('drive');
  const typed = { name: 'My drive', media: 'nvme', formFactor: 'm2', capacityTB: '2 TB' };

  it('a name, what it is and how large is enough', () => {
    expect(readDraft(fields, typed)).toEqual({
      spec: { name: 'My drive', media: 'nvme', formFactor: 'm2', capacityTB: 2 },
      errors: {}
    });
  });
  it('takes units: 3.64 TiB, 1,2 GB/s', () => {
    const { spec } = readDraft(fields, { ...typed, capacityTB: '3.64 TiB', readMBps: '1,2 GB/s' });
    expect(spec.capacityTB).toBeCloseTo(4.002, 3);
    expect(spec.readMBps).toBe(1200);
  });
  it('an error stands beside its field and the other fields are still read', () => {
    const { spec, errors } = readDraft(fields, { ...typed, capacityTB: '-2', readMBps: '7000 GB/s' });
    expect(Object.keys(errors)).toEqual(['capacityTB', 'readMBps']);
    expect(errors.readMBps!.suggestions.length).toBeGreaterThan(0);
    expect(spec.name).toBe('My drive');
  });
  it('a group counts once one of its fields is filled in', () => {
    expect(readDraft(fields, { ...typed, 'pcie.generation': '' }).errors).toEqual({});
    expect(readDraft(fields, { ...typed, 'pcie.generation': '4' }).errors).toEqual({
      'pcie.lanes': { message: NEEDED, suggestions: [] }
    });
  });
  it.each([
    ['2026-12-01', true],
    ['2028-02-29', true], // a leap year
    ['2026-02-29', false],
    ['2026-13-01', false],
    ['1.12.2026', false],
    ['2026-12-1', false],
    ['', false]
  ])('%s is a day: %s', (text, expected) => {
    expect(isDay(text)).toBe(expected);
  });
  it('says beside a date that it is none', () => {
    const { spec, errors } = readDraft(formFields(unitSchema), { tag: 'D-1', state: 'owned', dueBack: 'tomorrow' });
    expect(errors.dueBack?.message).toContain('a day such as');
    expect(spec.tag).toBe('D-1');
  });
  it('says what is missing', () => {
    expect(Object.keys(readDraft(fields, {}).errors).sort()).toEqual(['capacityTB', 'formFactor', 'media', 'name']);
    expect(readDraft(fieldsOf('host'), { name: 'h', 'os.family': 'linux' }).errors.ports!.message).toBe(
      'At least one port is needed.'
    );
  });
});
