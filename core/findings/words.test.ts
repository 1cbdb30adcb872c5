import { describe, expect, it } from 'vitest';
import { verdictOf, worstFirst, type Finding, type FindingCode, type FindingFacts } from './finding';
import { sentenceOf } from './words';

/** Facts for every code there is (the type asks for all of them), and what the sentence must say. */
const CASES: { [C in FindingCode]: [FindingFacts[C], RegExp[]] } = {
  'no-common-link-mode': [
    { port: ['usb-10g'], bridge: ['tbt3-40g'], thunderboltOnly: true },
    [/no USB fallback/, /Thunderbolt port/]
  ],
  'plug-mismatch': [
    { port: 'usb-c', enclosure: ['esata', 'micro-b'], ends: ['usb-a', 'usb-b'] },
    [/USB-A and USB-B/, /takes USB-C/, /eSATA or Micro-B/]
  ],
  'port-limits-link': [
    { now: 1000, best: 1950, direction: 'read', mode: 'usb-10g', wanted: 'usb-20g' },
    [/USB 10 Gb\/s/, /2x2/, /read from 1000 to about 1950.MB\/s/]
  ],
  'cable-limits-link': [
    {
      now: 38,
      best: 1000,
      direction: 'write',
      mode: 'usb2',
      wanted: 'usb-10g',
      enough: { needs: 30, rule: 'house rule Y' }
    },
    [/needs 30.MB\/s and has it \(house rule Y\)/, /480 Mb\/s/, /A 10.Gb\/s cable/, /38 to about 1000/]
  ],
  'adapter-limits-link': [
    { now: 1000, best: 3400, direction: 'write', mode: 'usb-10g', wanted: 'usb4-40g', via: 'hub' },
    [/The hub in front/, /without the hub/]
  ],
  'bridge-limits-link': [{ mode: 'usb-10g', bridge: 1000, drive: 6650 }, [/1000.MB\/s/, /6650.MB\/s/]],
  'drive-limits-link': [{ drive: 532, link: 1000 }, [/532.MB\/s/, /1000.MB\/s/]],
  'drive-faster-than-link': [
    { drive: 7000, link: 1000, percent: 14.2857, keep: true, rule: 'house rule X' },
    [/7000.MB\/s/, /14.3.%/, /Keep it.*house rule X/]
  ],
  'unit-suspect': [
    { what: 'read', value: 56000, ceiling: 7876, meant: 'bits' },
    [/56000.MB\/s/, /7880.MB\/s at most/, /megabits.*7000.MB\/s/]
  ],
  'bulk-only-transport': [
    { who: 'port', read: 800, withUas: 1000 },
    [/The port uses bulk-only/, /800 instead of 1000/]
  ],
  'host-write-ceiling': [{ cap: 1500, without: 3000 }, [/1500.MB\/s/, /second computer/]],
  'cable-length-doubtful': [{ lengthM: 2, safeM: 0.8, mode: 'usb4-40g' }, [/2.m/, /0.8.m/]],
  'pcie-generation-above-tunnel': [{ drive: 5, slot: 4 }, [/PCIe 5/, /PCIe 4/]],
  'form-factor-mismatch': [{ drive: 'm2', bay: '2.5in' }, [/^An M.2 drive/, /a 2.5-inch enclosure/]],
  'm2-length-unsupported': [{ driveMm: 110, takesMm: [60, 80], assumed: false }, [/110.mm/, /60 or 80/]],
  'm2-key-mismatch': [{ drive: 'B', takes: ['M'], assumed: false }, [/key B/, /never force/]],
  'protocol-unsupported': [{ drive: 'sata', takes: ['nvme'] }, [/speaks SATA/, /only NVMe/, /not recognised/]],
  'bay-too-thin': [{ driveMm: 15, bayMm: 9.5, assumed: true }, [/15.mm/, /9.5.mm \(assumed\)/, /Measure/]],
  'capacity-above-limit': [{ driveTB: 4, limitTB: 2 }, [/2.TB/, /4.TB/]],
  'known-bad-pair': [
    { bridge: 'Mullion M10', reason: 'drops out under load.', source: 'bench, 3 May' },
    [/bridge Mullion M10/, /drops out under load \(bench, 3 May\)\./, /another enclosure/]
  ],
  'known-good-pair': [{ bridge: 'B1', reason: 'a year without an error' }, [/work well: a year without an error\./]],
  'double-sided-no-clearance': [{ clearanceMm: 1, neededMm: 1.35, assumed: false }, [/1.35.mm/, /there are 1.mm/]],
  'heatsink-blocks-lid': [{ heatsinkMm: 6, clearanceMm: 2 }, [/6.mm/, /2.mm/, /warranty/]],
  'port-power-short': [
    { need: { low: 5.5, typical: 9.7, high: 14 }, portW: 7.5, what: 'steady', portAssumed: true, usbA: false },
    [/While it writes/, /about 9.7.W \(from 5.5 to 14\)/, /at least 7.5.W \(assumed/, /Look up what the port gives/]
  ],
  'external-supply-needed': [{ stated: true }, [/12 V/, /Never open the supply/]],
  'esata-needs-power': [{ stated: false }, [/no power/, /is not stated/, /data cable first, then the power/]],
  'shared-hub-power': [
    { hubW: { low: 4.5, high: 7.5 }, need: { low: 3, typical: 4, high: 6 }, peakW: 9 },
    [/4.5 to 7.5.W for all of its ports together/, /about 4.W, for moments 9.W/, /supply/]
  ],
  'sectors-4096': [{}, [/4096 bytes/, /looks empty/, /copy its data off/]],
  'surface-implausible': [{ areaCm2: 5, leastCm2: 15 }, [/5.cm²/, /at least 15.cm²/, /Leave the field empty/]],
  'cable-rate-likely': [{ mode: 'usb4-20g' }, [/USB4 20 Gb\/s is likely/, /Try it before you buy/]],
  'write-cache-policy': [
    { from: 'system', now: 712, better: 2850, of: 'rate', rule: 'house rule W' },
    [/“quick removal”, its default/, /about 712 instead of 2850.MB\/s/, /ejected/]
  ],
  'drive-shuts-down': [{ afterS: 95, offC: 105 }, [/After about 1:35.min/, /105.°C/, /breaks off/, /pad/]],
  'room-outside-drive-range': [{ roomC: -5, limitC: 0 }, [/room has -5.°C/, /work from 0.°C/, /dew/]],
  'bridge-too-hot': [{ bridgeC: 112, limitC: 105 }, [/112.°C/, /about 105.°C/]],
  'filesystem-excludes-host': [
    { filesystem: 'apfs', role: 'backup', system: 'macos', excluded: ['windows'], readOnly: [] },
    [/APFS is what macOS makes its backups on; Windows cannot use it/, /second volume/, /network/]
  ],
  'job-minimum-missed': [{ needs: 500, gives: 85, assumed: false }, [/needs 500.MB\/s/, /about 85.MB\/s/]],
  'trim-not-passed': [{ who: 'bridge' }, [/bridge/, /tenth/]],
  'drive-nearly-full': [{ percent: 90 }, [/90.% full/]],
  'smr-rewrite-risk': [{ recording: 'unknown' }, [/not known/, /3 – 60.MB\/s/]],
  'pad-none-fits': [{ gapMm: 0.95, role: 'controller' }, [/0.95.mm/, /No single stock thickness/]],
  'pad-no-contact': [{ gapMm: 1.2, padMm: 1, buyMm: 1.5, role: 'controller' }, [/does not touch/, /1.5.mm pad/]],
  'pad-over-compressed': [{ gapMm: 1, padMm: 2, percent: 50, buyMm: 1.5, role: 'nand' }, [/50.%/, /bends/]],
  'chip-touches-lid': [
    { role: 'nand', heightMm: 1.35, roomMm: 1.2, assumed: true },
    [/NAND stands 1.35.mm over the board \(height assumed\)/, /lid leaves 1.2.mm/, /Measure/]
  ],
  'board-bows': [{ bowMm: 0.91, limitMm: 0.5 }, [/0.91.mm/, /0.5.mm is the limit/, /softer/]],
  'pad-pressure-high': [{ role: 'controller', pressureMPa: 0.42, limitMPa: 0.35 }, [/0.42.MPa/, /0.35.MPa/]],
  'throttles-in-job': [
    { afterS: 95, from: 2900, to: 1740, form: 'saw-tooth', startC: 80 },
    [/After about 1:35.min/, /80.°C/, /2900 to about 1740.MB\/s on average/, /fan/]
  ],
  'case-too-hot-to-hold': [
    { caseC: 58.2, limitC: 55, material: 'aluminium', rule: 'house rule Z' },
    [/58.2.°C/, /bare metal above 55.°C/, /house rule Z/, /Do not hold/]
  ],
  'disk-too-warm': [{ diskC: 63, limitC: 60 }, [/63.°C/, /60.°C/, /fan/]],
  'filesystem-no-common': [{ writers: ['macos', 'linux'], readers: [] }, [/macOS and Linux/]],
  'filesystem-read-only-on-host': [{ filesystem: 'ntfs', hosts: ['macos'] }, [/macOS can read NTFS but not write/]],
  'os-too-old': [
    { family: 'linux', version: '4.19', since: '5.7', filesystem: 'exfat', perhaps: false },
    [/exFAT needs Linux 5.7/, /4.19/]
  ],
  'file-above-limit': [{ fileGB: 9, limitGB: 4.29, filesystem: 'fat32' }, [/9.GB/, /FAT32 stops at 4.29.GB/]],
  'mbr-above-2tib': [{ capacityTB: 4, who: 'house rule', families: [] }, [/house rule/, /2.2.TB of this 4.TB/]],
  'cache-cliff-in-job': [
    { atGB: 200, before: 3400, after: 1500 },
    [/200.GB/, /3400 to about 1500.MB\/s/, /not a fault/]
  ],
  'job-does-not-fit': [{ needGB: 2100, freeGB: 1990 }, [/2100.GB/, /1990.GB/]],
  'endurance-short': [{ years: 0.27, warrantyYears: 5, gbPerDay: 1000 }, [/1000.GB a day/, /0.27.years/, /5.years/]]
};

describe('every finding says what it found, with its figures and units', () => {
  it.each(Object.entries(CASES) as [FindingCode, [object, RegExp[]]][])('%s', (code, [facts, says]) => {
    const { message, reason, remedy } = sentenceOf({ code, severity: 'check', about: 'drive', ...facts } as Finding);
    const whole = `${message} ${remedy ?? ''}`;
    for (const part of says) expect(whole).toMatch(part);
    expect(whole).not.toMatch(/undefined|NaN|\[object/);
    expect(message).toMatch(/^\S.*\.$/s);
    expect(reason).toMatch(/^\S.{20,}\.$/s);
    if (code !== 'known-good-pair') expect(remedy).toMatch(/^\S.*\.$/s);
    expect(whole).not.toContain('!');
  });

  it('an unnamed clearance, a fixed cable, a stated exclusion: the other half of some sentences', () => {
    const say = (finding: object) =>
      sentenceOf({ severity: 'fail', about: 'enclosure', ...finding } as Finding).message;
    expect(say({ code: 'heatsink-blocks-lid', heatsinkMm: 6 })).toContain('is not known');
    expect(say({ code: 'double-sided-no-clearance', neededMm: 1.35, assumed: false })).toContain(
      'single-sided drives only'
    );
    expect(say({ code: 'double-sided-no-clearance', neededMm: 1.35, assumed: true })).toContain('is not known');
    expect(say({ code: 'plug-mismatch', port: 'usb-c', enclosure: ['usb-a'] })).toContain('fixed cable ends in USB-A');
    expect(say({ code: 'external-supply-needed', stated: false })).toContain('not stated');
    expect(say({ code: 'no-common-link-mode', port: [], bridge: ['usb-10g'], thunderboltOnly: false })).toContain(
      'carries nothing'
    );
    expect(
      say({ code: 'no-common-link-mode', port: ['esata-6g'], bridge: ['usb-10g'], thunderboltOnly: false })
    ).toContain('eSATA 6 Gb/s');
  });
});

describe('verdicts', () => {
  it('the worst finding decides', () => {
    expect(verdictOf([])).toBe('works');
    expect(verdictOf([{ severity: 'note' }])).toBe('works');
    expect(verdictOf([{ severity: 'note' }, { severity: 'limit' }])).toBe('limited');
    expect(verdictOf([{ severity: 'check' }, { severity: 'limit' }])).toBe('check');
    expect(verdictOf([{ severity: 'check' }, { severity: 'fail' }])).toBe('fails');
  });
  it('worst first, equals in the order they were found', () => {
    const list = [
      { severity: 'note' as const, n: 1 },
      { severity: 'fail' as const, n: 2 },
      { severity: 'check' as const, n: 3 },
      { severity: 'fail' as const, n: 4 }
    ];
    expect(worstFirst(list).map((f) => f.n)).toEqual([2, 4, 3, 1]);
    expect(list.map((f) => f.n)).toEqual([1, 2, 3, 4]);
  });
});
