import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput, aPort } from '../../tests/parts';
import { FILESYSTEM_IDS, type FilesystemId } from '../facts/filesystems';
import type { LinkMode } from '../facts/link-modes';
import { fillDrive } from '../parts/fill/drive';
import { fillEnclosure } from '../parts/fill/enclosure';
import { plan } from '../plan/plan';
import type { PlanInput } from '../plan/report';
import { trimAnswer } from './trim';

const usb = (enclosure: object = {}, os: PlanInput['host']['os'] = { family: 'linux', version: '6.1' }) =>
  anInput({
    host: aHost({ modes: ['usb-10g'] }, { os }),
    cable: aCable({ modes: ['usb-10g'], active: true }),
    enclosure: anEnclosure({ modes: ['usb-10g'], ...enclosure })
  });
const answer = (input: PlanInput) => plan(input, { workings: false }).trim!;

describe('whether TRIM gets through', () => {
  it.each<[string, PlanInput, string, RegExp]>([
    ['a tunnel and Linux', anInput(), 'yes', /like a slot inside/],
    ['USB, UAS, a bridge that translates it, Linux', usb(), 'yes', /translates it/],
    ['a bridge that says no', usb({ trim: false }), 'no', /does not translate/],
    ['a bridge that says nothing', usb({ trim: undefined }), 'unknown', /not stated/],
    ['bulk-only transport', usb({ uas: false }), 'no', /bulk-only/],
    ['macOS over USB', usb({}, { family: 'macos', version: '14' }), 'unknown', /seldom/],
    [
      'macOS over a tunnel',
      anInput({ host: aHost({}, { os: { family: 'macos', version: '14' } }) }),
      'yes',
      /APFS sends it/
    ],
    ['Windows over USB with NTFS', usb({}, { family: 'windows', version: '11' }), 'yes', /Windows on NTFS sends it/],
    ['a tablet: nobody knows', usb({}, { family: 'ipados', version: '17' }), 'unknown', /not known/]
  ])('%s', (_name, input, wanted, because) => {
    const trim = answer(input);
    expect(trim.answer).toBe(wanted);
    expect(trim.because.join('; ')).toMatch(because);
    expect(trim.effect).not.toBe('');
  });

  it('a "no" is not softened by something unknown beside it', () => {
    const trim = answer(usb({ trim: false }, { family: 'ipados', version: '17' }));
    expect(trim.answer).toBe('no');
    expect(trim.because).toHaveLength(2);
  });

  it('says how to find out on this system, and not where there is nothing to find out', () => {
    expect(answer(usb()).check).toContain('lsblk --discard');
    expect(answer(usb({}, { family: 'windows' })).check).toContain('ReTrim');
    expect(answer(usb({}, { family: 'ipados' })).check).toContain('attach the build to a computer');
    expect(answer(anInput()).check).toBe('');
  });

  it('a hard disk needs none; a chain that fails has no answer', () => {
    const disk = aDrive({
      media: 'hdd',
      formFactor: '2.5in',
      pcie: undefined,
      flash: undefined,
      m2LengthMm: undefined,
      m2Key: undefined,
      thicknessMm: 7,
      sataGbps: 6
    });
    const bay = anEnclosure({
      formFactor: '2.5in',
      protocols: ['sata'],
      modes: ['usb-10g'],
      downstreamSataGbps: 6,
      maxThicknessMm: 7
    });
    expect(answer(anInput({ drive: disk, enclosure: bay, host: aHost({ modes: ['usb-10g'] }) })).answer).toBe(
      'not-needed'
    );
    expect(plan(anInput({ enclosure: anEnclosure({ formFactor: '2.5in' }) })).trim).toBeNull();
  });

  it('a dynamic cache lives in free space: once all is written and nothing given back, there is none', () => {
    const dynamic = aDrive({
      flash: { cell: 'tlc', dram: true, cacheGB: 200, cacheKind: 'dynamic', postCacheWriteMBps: 500, drainMBps: 0 }
    });
    const no = answer({ ...usb({ trim: false }), drive: dynamic });
    // W (1 - 0/1000) = (F - W)/3 with F = 0 gives W = 0
    expect(no.onceWrittenGB).toEqual({ low: 0, typical: 0, high: 0 });
    expect(no.effect).toContain('next to nothing');
    expect(no.effect).toContain('500\u202fMB/s');
    // a fixed cache stays; with TRIM there is nothing to lose
    expect(
      answer({
        ...usb({ trim: false }),
        drive: aDrive({
          flash: { cell: 'tlc', cacheGB: 50, cacheKind: 'fixed', postCacheWriteMBps: 500, drainMBps: 0 }
        })
      }).onceWrittenGB
    ).toBeNull();
    expect(answer({ ...usb(), drive: dynamic }).onceWrittenGB).toBeNull();
  });
});

/**
 * Who sends it on what, written down a second time from what the systems do: `t` over a tunnel for certain and over USB not known,
 * `a` over every link that passes it, `n` never. What is not here is not known.
 */
const SENDS: Record<string, Partial<Record<string, 't' | 'a' | 'n'>>> = {
  linux: { ntfs: 'a', exfat: 'a', fat32: 'a', ext4: 'a', xfs: 'a', btrfs: 'a' },
  windows: { ntfs: 'a' },
  macos: { apfs: 't', 'hfs+': 't', exfat: 'n', fat32: 'n' }
};
const SYSTEMS = ['linux', 'windows', 'macos', 'ipados', 'android', 'console'] as const;

describe('TRIM by link, bridge, system and filesystem', () => {
  const flash = fillDrive(aDrive());
  const ask = (
    mode: LinkMode,
    bridge: { uas?: boolean; trim?: boolean },
    os: (typeof SYSTEMS)[number],
    filesystem: FilesystemId
  ) =>
    trimAnswer({
      mode,
      port: aPort(),
      enclosure: fillEnclosure(anEnclosure({ uas: true, ...bridge })),
      drive: flash,
      filesystem,
      os,
      cache: { cliffAtGB: null, recoverS: null, sustained: { low: 1, typical: 1, high: 1 }, typicalCliff: false },
      write: { low: 1, typical: 1, high: 1 }
    }).answer;

  for (const os of SYSTEMS)
    it.each(FILESYSTEM_IDS)(`${os} on %s`, (filesystem) => {
      const sends = SENDS[os]?.[filesystem];
      for (const mode of ['usb4-40g', 'tbt3-40g', 'tbt5-80g', 'esata-6g'] as const)
        expect(ask(mode, { trim: false }, os, filesystem)).toBe(sends === 'n' ? 'no' : sends ? 'yes' : 'unknown');
      for (const mode of ['usb-5g', 'usb-10g', 'usb-20g'] as const) {
        expect(ask(mode, { trim: true }, os, filesystem)).toBe(
          sends === 'a' ? 'yes' : sends === 'n' ? 'no' : 'unknown'
        );
        expect(ask(mode, { trim: undefined }, os, filesystem)).toBe(sends === 'n' ? 'no' : 'unknown');
        expect(ask(mode, { trim: false }, os, filesystem)).toBe('no');
        expect(ask(mode, { trim: true, uas: false }, os, filesystem)).toBe('no');
      }
    });
});
