import { expect, it } from 'vitest';
import { aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import { prefill } from './prefill';

const input = anInput({
  host: aHost({}, { memoryGB: 32 }),
  drive: aDrive({ fillFraction: 0.424 }),
  enclosure: anEnclosure({ cooling: { kind: 'fan', areaCm2: 200 } })
});
const format = {
  system: { family: 'linux' as const },
  filesystem: 'exfat' as const,
  scheme: 'gpt' as const,
  label: 'SCANS',
  full: false,
  encryption: 'none' as const,
  allocationUnit: '128 KiB'
};

it('takes what the parts say', () =>
  expect(prefill(input, null, null)).toEqual({ memoryGB: 32, osVersion: 'Linux 6.1', fillPercent: 42, fan: true }));
it('what was made of the drive stands over what the last run said', () =>
  expect(prefill(null, format, { filesystem: 'ntfs', encrypted: true, power: 'mains' })).toEqual({
    power: 'mains',
    filesystem: 'exfat',
    encrypted: false,
    allocationUnit: '128 KiB'
  }));
it('keeps of the last run what lasts, and asks anew for what is another one on another day', () =>
  expect(
    prefill(null, null, {
      tool: 'bench',
      toolVersion: '2',
      ambientC: 30,
      startC: 40,
      files: 5,
      source: 'drive',
      notes: 'then',
      notKnown: ['fan'],
      flushed: true
    })
  ).toEqual({ tool: 'bench', toolVersion: '2' }));
it('a version that was written down stands over the one of the part; a fan that was off stays off', () =>
  expect(prefill(input, null, { osVersion: 'Linux 6.8', fan: false })).toMatchObject({
    osVersion: 'Linux 6.8',
    fan: false
  }));
it('of nothing comes nothing', () => expect(prefill(null, null, null)).toEqual({}));
