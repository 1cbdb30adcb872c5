import { describe, expect, it } from 'vitest';
import type { Job } from '../parts/job';
import { adviseFilesystem, type AdviceInput } from './advise';

const job = (change: Partial<Job>): Job => ({
  name: 'j',
  purposes: ['exchange'],
  transferGB: 100,
  direction: 'in',
  ...change
});
const advise = (change: Partial<AdviceInput>) =>
  adviseFilesystem({
    host: { family: 'macos', version: '14' },
    media: 'nvme',
    capacityTB: 1,
    job: undefined,
    rules: undefined,
    ...change
  });

describe('what a drive is for comes first', () => {
  it('a Mac’s own backup is APFS, though Windows is to read it; the one left out is named', () => {
    const { advice, findings } = advise({ job: job({ purposes: ['backup'], readHosts: [{ family: 'windows' }] }) });
    expect(advice.first.filesystem).toBe('apfs');
    expect(findings).toContainEqual(
      expect.objectContaining({ code: 'filesystem-excludes-host', severity: 'check', excluded: ['windows'] })
    );
  });
  it('a disk to start a Linux from is no exFAT, whoever else reads it', () => {
    const { advice } = advise({
      host: { family: 'linux', version: '6.1' },
      job: job({ purposes: ['boot'], readHosts: [{ family: 'windows' }] })
    });
    expect(advice.first.filesystem).toBe('ext4');
  });
});

describe('a simple device and a large drive', () => {
  it('above 2 TiB the device may not know GPT: to be looked up, and no fail', () => {
    const { advice, findings } = advise({ capacityTB: 4, job: job({ writeHosts: [{ family: 'camera' }] }) });
    expect(advice.first.scheme).toBe('gpt');
    expect(findings).toContainEqual(
      expect.objectContaining({ code: 'mbr-above-2tib', severity: 'check', who: 'device' })
    );
  });
  it('the crate’s GPT is not overruled for a camera, and the rule is named', () => {
    const { advice, decisions } = advise({
      job: job({ writeHosts: [{ family: 'camera' }] }),
      rules: { scheme: 'gpt' }
    });
    expect(advice.first.scheme).toBe('gpt');
    expect(decisions.map(({ school }) => school)).toContain('scheme');
    expect(advise({ job: job({ writeHosts: [{ family: 'camera' }] }) }).advice.first.scheme).toBe('mbr');
  });
});

describe('encryption', () => {
  const said = (change: Partial<AdviceInput>) => advise(change).advice.first.because.join('; ');
  it('native where one family uses it', () =>
    expect(said({ job: job({ encrypt: true }) })).toContain('APFS with the system’s own encryption'));
  it('nothing native spans macOS and Windows: a container, and never on FAT32', () => {
    const mixed = { job: job({ encrypt: true, readHosts: [{ family: 'windows' as const }] }) };
    expect(said(mixed)).toContain('an encrypted container');
    expect(advise(mixed).advice.rejected.find(({ filesystem }) => filesystem === 'fat32')).toBeDefined();
  });
  it('a carried drive that says nothing is advised to be, or not, by the rule of the crate', () => {
    expect(said({ job: job({ carried: true }) })).toMatch(/encryption is advisable for a carried drive|not encrypted/);
    expect(said({ job: job({ carried: false }) })).not.toMatch(/encryption is|not encrypted/);
  });
});

describe('what systems can do', () => {
  it('Windows and a Linux of 5.10 share exFAT, and nobody says that NTFS needs 5.15', () => {
    const { advice, findings } = advise({
      host: { family: 'windows' },
      job: job({ readHosts: [{ family: 'linux', version: '5.10' }] })
    });
    expect(advice.first.filesystem).toBe('exfat');
    expect(findings.filter(({ code }) => code === 'os-too-old')).toEqual([]);
  });
  it('a phone of the same family reads APFS', () =>
    expect(advise({ job: job({ readHosts: [{ family: 'ios', version: '17' }] }) }).advice.first.filesystem).toBe(
      'apfs'
    ));
  it('external drives came with iPadOS 13: before it nothing does', () => {
    const { advice } = advise({ job: job({ readHosts: [{ family: 'ipados', version: '12' }] }) });
    expect(advice.rejected.find(({ filesystem }) => filesystem === 'exfat')!.because).toContain('13');
  });
  it('ChromeOS reads NTFS', () => {
    const { advice } = advise({
      host: { family: 'windows' },
      job: job({ direction: 'in', readHosts: [{ family: 'chromeos' }] })
    });
    expect(advice.rejected.some(({ filesystem }) => filesystem === 'ntfs')).toBe(false);
  });
});
