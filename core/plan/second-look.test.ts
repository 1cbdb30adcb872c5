import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import type { Os } from '../parts/host';
import { plan } from './plan';
import type { PlanInput } from './report';

const codes = (input: PlanInput) =>
  plan(input, { workings: false })
    .findings.filter((f) => f.severity !== 'note')
    .map((f) => `${f.severity} ${f.code}`);
const tenGbit = (change: Partial<PlanInput> = {}) =>
  anInput({
    host: aHost({ modes: ['usb-10g'], powerW: 4.5 }),
    enclosure: anEnclosure({ modes: ['usb-10g'] }),
    ...change
  });

describe('power is judged as a band', () => {
  it('the commonest build, a 10 Gb/s case on an ordinary 4.5 W port, keeps its figures', () => {
    const report = plan(tenGbit(), { workings: false });
    expect(report.verdict).toBe('check');
    expect(report.throughput.write!.typical).toBe(1000);
    // (0.6 + 1.005 x 0.9)/0.88 + 1.15 x 0.696 x (0.4 + 0.6 x 0.9) = 1.71 + 0.75 W at the low end
    expect(report.power!.steadyW.low).toBeCloseTo((0.6 + 1.005 * 0.9) / 0.88 + 0.8 * (0.4 + 0.6 * 0.9), 2);
    expect(report.power!.portW).toBe(4.5);
    const { parts, steadyW } = report.power!;
    for (const end of ['low', 'typical', 'high'] as const)
      expect(parts.reduce((sum, { W }) => sum + W[end], 0)).toBeCloseTo(steadyW[end], 9);
    expect(parts.every(({ assumed }) => assumed)).toBe(true);
  });
  it('a stated active power scales with the rate: 6 W at 6000 MB/s is little at USB 2.0', () => {
    const input = tenGbit({
      host: aHost({ modes: ['usb2'], powerW: 2.5 }),
      drive: aDrive({ power: { activeW: 6 } })
    });
    const { power, findings } = plan(input, { workings: false });
    // idle 1 W; (6 - 1)/6 J/GB x 0.038 GB/s = 0.032 W; / 0.88; a USB bridge at the full rate of its link 1.15 W
    expect(power!.steadyW.typical).toBeCloseTo(1.0317 / 0.88 + 1.15, 3);
    expect(findings.filter((f) => f.severity === 'fail')).toEqual([]);
  });
  it('the peak counts bridge and converter: 7 W of a drive on 7.5 W is 7 / 0.88 + 1.15 = 9.1 W', () => {
    const input = tenGbit({ host: aHost({ modes: ['usb-10g'], powerW: 7.5 }) });
    expect(plan(input, { workings: false }).power!.peakW.typical).toBeCloseTo(7 / 0.88 + 1.15, 9);
    expect(codes(input)).toEqual(['check port-power-short']);
    expect(codes(tenGbit({ host: aHost({ modes: ['usb-10g'], powerW: 10 }) }))).toEqual([]);
  });
  it('a fail takes no figure away, and rests on what is stated', () => {
    const report = plan(tenGbit({ drive: aDrive({ power: { idleW: 5, activeW: 12 } }) }), { workings: false });
    // 5 W x 0.9 / 0.88 = 5.1 W at rest alone
    expect(report.findings[0]).toMatchObject({ severity: 'fail', code: 'port-power-short' });
    expect(report.throughput.write).not.toBeNull();
    expect(report.ifItFitted).toBeNull();
  });
  it('a Y lead adds a second port; the power at rest that somebody measured replaces both estimates', () => {
    const cable = aCable({ modes: ['usb-10g'], active: true, yLead: true });
    expect(plan(tenGbit({ cable }), { workings: false }).power!.portW).toBe(9);
    const { power, thermal } = plan(tenGbit({ enclosure: anEnclosure({ modes: ['usb-10g'], idleW: 2.6 }) }), {
      workings: false
    });
    expect(power!.idleW).toBeCloseTo(2.6, 9);
    expect(thermal!.idleW).toBeCloseTo(2.6, 9);
  });
});

describe('what fails keeps its figures apart', () => {
  it('a drive that is too long: the chain as it would be if it fitted', () => {
    const report = plan(
      anInput({ drive: aDrive({ m2LengthMm: 110 }), job: { name: 'j', purposes: [], transferGB: 34, direction: 'in' } })
    );
    expect(report).toMatchObject({ verdict: 'fails', throughput: { read: null, write: null }, power: null });
    expect(report.job).toBeUndefined();
    expect(report.link).toMatchObject({ mode: 'usb4-40g', stages: [], bottleneck: null });
    const would = report.ifItFitted!;
    expect(would.throughput.write!.typical).toBe(3400);
    expect(would.link).toMatchObject({ mode: 'usb4-40g', bottleneck: 'port' });
    // 34 GB at 3400 MB/s and one file
    expect(would.job!.seconds.typical).toBeCloseTo(10.0004, 4);
  });
  it('nothing where no link comes about, and nothing where all is well', () => {
    const none = plan(
      anInput({ host: aHost({ modes: ['usb-10g'] }), enclosure: anEnclosure({ modes: ['tbt3-40g'] }) })
    );
    expect([none.verdict, none.ifItFitted]).toEqual(['fails', null]);
    expect(plan(anInput()).ifItFitted).toBeNull();
  });
});

describe('a job’s minimum', () => {
  const job = { name: 'j', purposes: [], transferGB: 100, direction: 'in' as const };
  it('that the drive misses is a limit, not only one that the link misses', () => {
    const drive = aDrive({
      flash: { cell: 'qlc', cacheGB: 50, cacheKind: 'fixed', postCacheWriteMBps: 85, drainMBps: 0 }
    });
    expect(codes(anInput({ drive, job: { ...job, minSustainedWriteMBps: 500 } }))).toContain(
      'limit job-minimum-missed'
    );
    expect(codes(anInput({ drive, job: { ...job, minSustainedWriteMBps: 85 } }))).not.toContain(
      'limit job-minimum-missed'
    );
  });
  it('a phone that records onto a drive writes 220 MB/s, over a cable that carries it', () => {
    const phone = (mode: 'usb-10g' | 'usb2') =>
      tenGbit({
        host: aHost({ modes: ['usb-10g'], powerW: 4.5 }, { os: { family: 'ios', version: '17' } }),
        cable: aCable({ modes: [mode], active: true }),
        job: { ...job, purposes: ['camera'] }
      });
    expect(codes(phone('usb2'))).toContain('limit job-minimum-missed');
    expect(codes(phone('usb-10g'))).not.toContain('limit job-minimum-missed');
    expect(plan(phone('usb-10g')).filesystem.first.filesystem).toBe('exfat');
  });
});

describe('Windows writes with quick removal until somebody switches it', () => {
  const windows = (change: Partial<PlanInput> = {}) =>
    anInput({ host: aHost({}, { os: { family: 'windows', version: '11' } }), ...change });
  const write = (change: Partial<PlanInput> = {}) => plan(windows(change), { workings: false }).throughput.write!;
  it('through a tunnel it leaves a sixth to a half: 2800/6 - 3400/4 - 3900/2', () => {
    const { low, typical, high } = write();
    expect([low, typical, high].map(Math.round)).toEqual([467, 850, 1950]);
    const [finding] = plan(windows(), { workings: false }).findings;
    expect(finding).toMatchObject({ code: 'write-cache-policy', severity: 'limit', about: 'host' });
    expect(finding!.message).toContain('about 850 instead of 3400');
    expect(plan(windows(), { workings: false }).throughput.read!.typical).toBe(3400);
  });
  it('the crate’s rule or the build says otherwise; other systems and USB are not touched', () => {
    expect(write({ houseRules: { 'write-cache': 'performance' } }).typical).toBe(3400);
    expect(write({ writeCache: 'performance' }).typical).toBe(3400);
    expect(write({ houseRules: { 'write-cache': 'performance' }, writeCache: 'quick-removal' }).typical).toBe(850);
    expect(plan(anInput(), { workings: false }).throughput.write!.typical).toBe(3400);
    expect(write({ enclosure: anEnclosure({ modes: ['usb-10g'] }) }).typical).toBe(1000);
  });
  it('over USB it shows in files alone, and is said where that matters', () => {
    const job = { name: 'j', purposes: [], transferGB: 1, files: 5000, direction: 'in' as const };
    const usb = windows({ enclosure: anEnclosure({ modes: ['usb-10g'] }), job });
    expect(codes(usb)).toContain('limit write-cache-policy');
    expect(codes({ ...usb, job: { ...job, files: 1 } })).not.toContain('limit write-cache-policy');
  });
});

describe('which systems a role leaves out', () => {
  const mac: Os = { family: 'macos', version: '14' };
  const windows: Os = { family: 'windows' };
  const linux: Os = { family: 'linux', version: '6.1' };
  const job = (change: object) => ({ name: 'j', purposes: [], transferGB: 10, direction: 'in' as const, ...change });
  const advised = (os: Os, change: object, drive = aDrive()) => {
    const report = plan(anInput({ host: aHost({}, { os }), drive, job: job(change) }), { workings: false });
    return [
      report.filesystem.first.filesystem,
      report.findings.find((f) => f.code === 'filesystem-excludes-host')?.message ?? ''
    ];
  };
  it.each<[string, Os, object, string, RegExp]>([
    [
      'a start disk of a Mac that Windows reads',
      mac,
      { purposes: ['boot'], readHosts: [windows] },
      'apfs',
      /Windows cannot use it/
    ],
    [
      'a start disk of Linux that Windows reads',
      linux,
      { purposes: ['boot'], readHosts: [windows] },
      'ext4',
      /Windows cannot/
    ],
    [
      'a start disk of Windows that a Mac writes',
      windows,
      { purposes: ['boot'], writeHosts: [mac] },
      'ntfs',
      /macOS can only read it/
    ],
    [
      'a backup of a Mac that Windows writes',
      mac,
      { purposes: ['backup'], writeHosts: [windows] },
      'apfs',
      /Windows cannot/
    ],
    ['a backup of Windows that Linux reads', windows, { purposes: ['backup'], readHosts: [linux] }, 'ntfs', /^$/],
    ['a backup of Linux goes where all can', linux, { purposes: ['backup'], readHosts: [windows] }, 'exfat', /^$/],
    ['an older Mac', { family: 'macos', version: '10.13' }, { purposes: ['backup'] }, 'hfs+', /^$/]
  ])('%s', (_name, os, change, filesystem, message) => {
    const [first, said] = advised(os, change);
    expect(first).toBe(filesystem);
    expect(said).toMatch(message);
  });
  it('a bootable copy on a hard disk is APFS too from 10.14 on', () => {
    const disk = aDrive({ media: 'hdd', formFactor: '2.5in', pcie: undefined, flash: undefined });
    expect(advised(mac, { purposes: ['boot'] }, disk)[0]).toBe('apfs');
    expect(advised({ family: 'macos', version: '10.13' }, { purposes: ['boot'] }, disk)[0]).toBe('hfs+');
  });
});

describe('what is assumed', () => {
  const assumed = (input: PlanInput) =>
    new Set(plan(input, { workings: false }).assumed.map((a) => `${a.part} ${a.field}`));
  it('lists what was used: UAS where the chain falls back to USB, not where it runs in a tunnel', () => {
    const { uas: _uas, ...rest } = anEnclosure();
    expect(assumed(anInput({ enclosure: rest })).has('enclosure uas')).toBe(false);
    expect(
      assumed(anInput({ enclosure: rest, cable: aCable({ modes: ['usb-10g'], active: true }) })).has('enclosure uas')
    ).toBe(true);
  });
  it('nothing of a SATA bridge for an NVMe drive, nothing of bays for a module', () => {
    const { downstreamPcie: _p, maxThicknessMm: _t, ...rest } = anEnclosure({ protocols: ['nvme', 'sata'] });
    const listed = assumed(anInput({ enclosure: rest }));
    expect([listed.has('enclosure downstreamSataGbps'), listed.has('enclosure maxThicknessMm')]).toEqual([
      false,
      false
    ]);
    expect(listed.has('enclosure downstreamPcie')).toBe(true);
  });
  it('says from which rating a generation was taken, and which figures rest on a value', () => {
    const { pcie: _g, readMBps: _r, ...drive } = aDrive({ writeMBps: 6500 });
    const report = plan(anInput({ drive }), { workings: false });
    expect(report.assumed.find((a) => a.field === 'pcie')).toMatchObject({
      value: 'PCIe 4 x4',
      from: 'the slowest generation that reaches its write rate'
    });
    expect(report.assumed.find((a) => a.field === 'readMBps')!.figures).toEqual(['read', 'job']);
    expect(report.assumed.some((a) => a.field === 'writeMBps')).toBe(false);
  });
});

describe('a drive that gets too hot switches itself off', () => {
  it('is something to check, and the temperature stops there', () => {
    const input = anInput({
      enclosure: anEnclosure({ cooling: { kind: 'passive', areaCm2: 20, massG: 20, material: 'plastic' } }),
      job: { name: 'j', purposes: [], transferGB: 1500, direction: 'in', ambientC: 45 }
    });
    const report = plan(input, { workings: false });
    expect(report.findings.map((f) => f.code)).toContain('drive-shuts-down');
    expect(report.thermal!.steadyControllerC.typical).toBeLessThanOrEqual(105);
    expect(report.throughput.sustainedWrite!.typical).toBe(0);
  });
});
