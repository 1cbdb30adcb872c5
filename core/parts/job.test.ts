import { describe, expect, it } from 'vitest';
import { aHost, aPort } from '../../tests/parts';
import { draftFrom, readDraft, withoutRow } from './form/form';
import { formFields } from './form/form-fields';
import { hostSchema } from './host';
import { jobProblems, jobSchema, type Job } from './job';
import { JOB_TEMPLATES } from './job-templates';
import { unitSchema } from './item';

const job = (change: Partial<Job> = {}): Job => ({
  name: 'J',
  purposes: ['backup'],
  transferGB: 10,
  direction: 'in',
  ...change
});

describe('a job that contradicts itself', () => {
  it.each<[string, Partial<Job>, string[]]>([
    ['nothing stated beyond the size', {}, []],
    ['one file as large as the whole', { largestFileGB: 10, files: 1 }, []],
    ['a file larger than the whole', { largestFileGB: 11 }, ['largestFileGB']],
    // 5 files of at most 1 GB are 5 GB, not 10
    ['too few files of that size', { largestFileGB: 1, files: 5 }, ['largestFileGB']],
    ['just enough of them', { largestFileGB: 1, files: 10 }, []]
  ])('%s', (_name, change, paths) => expect(jobProblems(job(change)).map((p) => p.path)).toEqual(paths));
});

describe('templates of jobs', () => {
  it.each(JOB_TEMPLATES.map((t) => [t.id, t] as const))('%s is a job that holds together', (_id, template) => {
    expect(jobSchema.safeParse(template.job).error?.issues ?? []).toEqual([]);
    expect(jobProblems(template.job)).toEqual([]);
    expect(template.title).not.toBe('');
    expect(template.about).not.toBe('');
  });
  it('have names and ids of their own', () => {
    expect(new Set(JOB_TEMPLATES.map((t) => t.id)).size).toBe(JOB_TEMPLATES.length);
    expect(new Set(JOB_TEMPLATES.map((t) => t.job.name)).size).toBe(JOB_TEMPLATES.length);
  });
  it.each(JOB_TEMPLATES.map((t) => [t.id, t] as const))('%s comes through the form as it is', (_id, template) => {
    const fields = formFields(jobSchema.omit({ id: true }));
    const { spec, errors } = readDraft(fields, draftFrom(fields, template.job));
    expect(errors).toEqual({});
    expect(spec).toEqual(template.job);
  });
});

describe('lists in a form', () => {
  const fields = formFields(jobSchema.omit({ id: true }));
  const spec = job({ writeHosts: [{ family: 'linux', version: '6.1' }, { family: 'macos' }, { family: 'windows' }] });
  it('a row is taken out, the later ones move up, and nothing else changes', () => {
    const draft = withoutRow(draftFrom(fields, spec), 'writeHosts', 1);
    expect(readDraft(fields, draft).spec.writeHosts).toEqual([
      { family: 'linux', version: '6.1' },
      { family: 'windows' }
    ]);
    expect(readDraft(fields, draft).spec.name).toBe('J');
  });
  it('the first, the last, and the only one', () => {
    const names = (row: number) =>
      (
        readDraft(fields, withoutRow(draftFrom(fields, spec), 'writeHosts', row)).spec.writeHosts as {
          family: string;
        }[]
      ).map((h) => h.family);
    expect(names(0)).toEqual(['macos', 'windows']);
    expect(names(2)).toEqual(['linux', 'macos']);
    const one = draftFrom(fields, job({ readHosts: [{ family: 'linux' }] }));
    expect(readDraft(fields, withoutRow(one, 'readHosts', 0)).spec.readHosts).toBeUndefined();
  });
  it('a list whose name begins like another’s is left alone', () => {
    const draft = { 'ab.0.x': '1', ab: 1, 'abc.0.x': '2', abc: 1 };
    expect(withoutRow(draft, 'ab', 0)).toEqual({ ab: 0, 'abc.0.x': '2', abc: 1 });
  });
});

describe('what ports share', () => {
  const host = (shared: object[], shares = 'hub') => ({ ...aHost({}, { ports: [aPort({ shares })] }), shared });
  it.each<[string, object, boolean]>([
    ['a hub with what it carries and gives', host([{ id: 'hub', label: 'the hub', MBps: 450, powerW: 10 }]), true],
    ['only its name', host([{ id: 'hub' }]), true],
    ['a port that names what is not described', host([]), true],
    ['two of one name', host([{ id: 'a' }, { id: 'a' }]), false],
    ['a name with a space', host([{ id: 'a b' }]), false],
    ['a port with a slash in it', host([{ id: 'a' }], 'a/b'), false],
    ['nothing carried at all', host([{ id: 'a', MBps: 0 }]), false]
  ])('%s', (_name, spec, valid) => expect(hostSchema.safeParse(spec).success).toBe(valid));
  it('is asked for by the form of a host, by the names that the schema has', () => {
    const fields = formFields(hostSchema);
    expect(fields.find((f) => f.key === 'shared')).toMatchObject({ type: 'list', item: 'controller or hub' });
  });
});

describe('what a unit would sell for', () => {
  const unit = { modelId: '0'.repeat(26), tag: 'D-001', state: 'owned' };
  it.each<[number, boolean]>([
    [0, true],
    [90.5, true],
    [-1, false],
    [1e9, false]
  ])('%d', (resale, valid) => expect(unitSchema.safeParse({ ...unit, resale }).success).toBe(valid));
});
