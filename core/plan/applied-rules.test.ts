import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import { HOUSE_RULE_IDS, HOUSE_RULES, optionOf } from '../house-rules/house-rules';
import type { Job } from '../parts/job';
import { plan } from './plan';
import type { PlanInput } from './report';

const job = (change: Partial<Job> = {}): Job => ({
  name: 'Scans',
  purposes: [],
  transferGB: 300,
  direction: 'in',
  ...change
});
const chips = (controllerMm: number, nandMm: number) => [
  {
    role: 'controller' as const,
    side: 'top' as const,
    xMm: 18,
    yMm: 5,
    widthMm: 12,
    lengthMm: 13,
    heightMm: controllerMm
  },
  { role: 'nand' as const, side: 'top' as const, xMm: 50, yMm: 4, widthMm: 14, lengthMm: 18, heightMm: nandMm }
];
const decided = (input: PlanInput) => plan(input, { workings: false }).houseRules;
const effect = (input: PlanInput, school: string) => decided(input).find((d) => d.school === school);

describe('a house rule is named where it decided, and only there', () => {
  it('a sound build on the default side of everything names the one rule behind a sentence', () => {
    // the 7000 MB/s drive is faster than its 40 Gb/s link
    expect(decided(anInput())).toEqual([
      { school: 'drive-class', choice: 'just-above-link', own: false, effect: 'a slower drive would do' }
    ]);
  });

  it('headroom turns the remark around, in the decision and in the sentence', () => {
    const input = anInput({ houseRules: { 'drive-class': 'headroom' } });
    expect(effect(input, 'drive-class')).toMatchObject({ own: true, effect: 'the faster drive is kept' });
    expect(plan(input).findings.find((f) => f.code === 'drive-faster-than-link')!.remedy).toMatch(/^Keep it.*headroom/);
  });

  it('10 Gb/s is enough where the job has what it needs; the other school wants more all the same', () => {
    const slow = (rules: Record<string, string>, min?: number) =>
      anInput({
        cable: aCable({ modes: ['usb-10g'], active: true }),
        job: job(min ? { minSustainedWriteMBps: min } : {}),
        houseRules: rules
      });
    const remedy = (input: PlanInput) => plan(input).findings.find((f) => f.code === 'cable-limits-link')!.remedy!;
    // 1000 MB/s typical at 10 Gb/s
    expect(remedy(slow({}, 800))).toContain('The job needs 800\u202fMB/s and has it');
    expect(effect(slow({}, 800), 'link')!.effect).toContain('has the rate');
    expect(remedy(slow({}, 1200))).not.toContain('has it');
    expect(effect(slow({}, 1200), 'link')!.effect).toContain('needs more');
    expect(remedy(slow({ link: 'forty-and-more' }, 800))).not.toContain('has it');
    expect(effect(slow({ link: 'forty-and-more' }, 800), 'link')).toMatchObject({ own: true });
  });

  it('filesystem, scheme and encryption', () => {
    const windows = aHost({}, { os: { family: 'windows', version: '11' } });
    expect(effect(anInput({ host: windows }), 'windows-drive')).toMatchObject({ choice: 'ntfs', own: false });
    const other = plan(anInput({ host: windows, houseRules: { 'windows-drive': 'exfat', scheme: 'mbr' } }));
    expect(other.filesystem.first).toMatchObject({ filesystem: 'exfat', scheme: 'mbr' });
    expect(other.houseRules.map((d) => d.school)).toEqual(expect.arrayContaining(['windows-drive', 'scheme']));
    expect(other.filesystem.first.because.join()).toContain('house rule “Windows drive”: exFAT');
    expect(effect(anInput({ job: job({ carried: true }) }), 'encrypt')!.effect).toContain('own encryption');
    expect(effect(anInput({ job: job({ carried: true, encrypt: false }) }), 'encrypt')).toBeUndefined();
    const camera = anInput({ job: job({ carried: true, writeHosts: [{ family: 'camera' }] }) });
    expect(effect(camera, 'encrypt')!.effect).toContain('simple device');
    // encryption is advice; it never takes away the one filesystem a camera knows
    expect(plan(camera).findings.map((f) => f.code)).not.toContain('filesystem-no-common');
  });

  it('quick removal costs every file of a job on Windows', () => {
    const host = aHost({}, { os: { family: 'windows', version: '11' } });
    const many = job({ transferGB: 1, files: 1000 });
    const time = (rules: Record<string, string>) => plan(anInput({ host, job: many, houseRules: rules })).job!;
    // 1000 files x 0.4 ms against 1000 x 5 ms: 4.6 s more; and 1 GB at 3400 against a quarter of it, 850 MB/s: 0.882 s more
    const performance = time({ 'write-cache': 'performance' }).seconds.typical;
    expect(time({ 'write-cache': 'quick-removal' }).seconds.typical - performance).toBeCloseTo(4.6 + 0.88235, 4);
    // What nobody chose is what Windows does by itself.
    expect(time({}).seconds.typical).toBe(time({ 'write-cache': 'quick-removal' }).seconds.typical);
    const chosen = anInput({ host, job: many, houseRules: { 'write-cache': 'performance' } });
    expect(effect(chosen, 'write-cache')!.effect).toContain('always eject');
  });

  it('one sheet takes one thickness over chips of two heights, pieces take their own', () => {
    // lid at 2.0 mm; chips of 1.2 and 0.6 mm leave gaps of 0.8 and 1.4 mm.
    const drive = aDrive({ components: chips(1.2, 0.6) });
    const pads = [1, 1.5, 2].map((thicknessMm) => ({
      kind: 'pad' as const,
      name: `P${thicknessMm}`,
      thicknessMm,
      widthMm: 100,
      lengthMm: 100
    }));
    const stack = (rules: Record<string, string>) => plan(anInput({ drive, pads, houseRules: rules })).stack.components;
    // 1.0 in 0.8: 20 %; 1.5 in 1.4: 6.7 % and 2.0 in 1.4: 30 %
    expect(stack({}).map((row) => row.pads)).toEqual([[1], [2]]);
    // one sheet: 1.0 leaves 1.4 open; 1.5 is 46.7 % and 6.7 %; 2.0 is 60 %: over-compressed beats no contact, and 1.5 is nearer the middle
    expect(stack({ pieces: 'sheet' }).map((row) => row.pads)).toEqual([[1.5], [1.5]]);
    expect(effect(anInput({ drive, pads, houseRules: { pieces: 'sheet' } }), 'pieces')!.effect).toContain(
      '1.5 mm sheet'
    );
    // chips of one height: nothing to decide
    expect(effect(anInput({ drive: aDrive({ components: chips(1.2, 1.2) }), pads }), 'pieces')).toBeUndefined();
  });

  it('stacking is named where it changes the pads', () => {
    // gap 1.2: a 1.0 does not touch, 1.0 + 0.5 = 1.5 is 20 %
    const drive = aDrive({ components: chips(0.8, 0.8) });
    const pads = [0.5, 1].map((thicknessMm) => ({
      kind: 'pad' as const,
      name: `P${thicknessMm}`,
      thicknessMm,
      widthMm: 100,
      lengthMm: 100
    }));
    expect(effect(anInput({ drive, pads }), 'gap-not-closed')!.effect).toContain('none stacked');
    expect(
      effect(anInput({ drive, pads, houseRules: { 'gap-not-closed': 'stack' } }), 'gap-not-closed')!.effect
    ).toMatch(/0\.5 \+ 1|1 \+ 0\.5/);
  });

  it('a case and a drive on the other side of a rule are remarked on', () => {
    const fan = anEnclosure({ cooling: { kind: 'fan' }, retention: 'tool-less' });
    const input = anInput({ enclosure: fan, drive: aDrive({ label: 'paper' }), job: job() });
    expect(decided(input).map((d) => d.school)).toEqual(expect.arrayContaining(['cooling', 'retention', 'label']));
    const agreed = { ...input, houseRules: { cooling: 'fan', retention: 'tool-less' } };
    expect(decided(agreed).map((d) => d.school)).not.toEqual(expect.arrayContaining(['cooling']));
    // a passive case is no matter where the job is short
    const passive = anInput({
      enclosure: anEnclosure({ cooling: { kind: 'passive' } }),
      houseRules: { cooling: 'fan' }
    });
    expect(effect({ ...passive, job: job({ transferGB: 20 }) }, 'cooling')).toBeUndefined();
    expect(effect({ ...passive, job: job({ transferGB: 300 }) }, 'cooling')).toMatchObject({ own: true });
  });
});

describe('the schools', () => {
  it.each(HOUSE_RULE_IDS)('%s states both sides with a reason, and where it decides', (id) => {
    const { choices, decides } = HOUSE_RULES[id];
    for (const choice of Object.keys(choices)) {
      expect(optionOf(id, choice).because).toMatch(/^\S.{20,}\.$/s);
      expect(optionOf(id, choice).label).not.toBe('');
    }
    expect(decides).not.toBe('');
  });
  it('a choice that is no choice is the default, also by a name that every object has', () => {
    expect(decided(anInput({ houseRules: { 'drive-class': 'constructor' } }))[0]).toMatchObject({
      choice: 'just-above-link'
    });
  });
});
