import { describe, expect, it } from 'vitest';
import { aCable, aDrive, anEnclosure, anInput, aHost } from '../../../tests/parts';
import type { PlanInput } from '../../plan/report';
import { plan } from '../../plan/plan';

/** Codes and severities of a plan, without the notes unless a case asks for one. */
const found = (input: PlanInput, notes = false) =>
  plan(input, { workings: false })
    .findings.filter((f) => notes || f.severity !== 'note')
    .map((f) => `${f.severity} ${f.code}`);

const sata = (change = {}) =>
  aDrive({ media: 'sata-ssd', pcie: undefined, sataGbps: 6, readMBps: 550, writeMBps: 500, m2Key: 'B+M', ...change });
const bay25 = (change = {}) =>
  anEnclosure({
    formFactor: '2.5in',
    protocols: ['sata'],
    modes: ['usb-10g'],
    maxThicknessMm: 7,
    downstreamSataGbps: 6,
    ...change
  });
const disk25 = (change = {}) =>
  aDrive({
    media: 'hdd',
    formFactor: '2.5in',
    pcie: undefined,
    flash: undefined,
    thicknessMm: 7,
    disk: { rpm: 5400, recording: 'cmr', outerMBps: 140, innerMBps: 70 },
    ...change
  });

describe('does it go in', () => {
  it('a sound build has nothing to say', () => expect(found(anInput())).toEqual([]));
  it('4 TB of height code S3 has one side, and goes where only such go', () =>
    expect(
      found(
        anInput({
          drive: aDrive({ capacityTB: 4, sides: undefined, m2HeightCode: 'S3' }),
          enclosure: anEnclosure({ takesDoubleSided: false })
        })
      )
    ).toEqual([]));

  it.each<[string, Partial<PlanInput>, string]>([
    ['an M.2 drive in a 2.5-inch bay', { enclosure: bay25() }, 'fail form-factor-mismatch'],
    ['a 110 mm drive where 80 is the limit', { drive: aDrive({ m2LengthMm: 110 }) }, 'fail m2-length-unsupported'],
    [
      'a B-key module in an M slot',
      { drive: sata({ m2Key: 'B' }), enclosure: anEnclosure({ protocols: ['nvme', 'sata'], downstreamSataGbps: 6 }) },
      'fail m2-key-mismatch'
    ],
    [
      'a SATA module that slides into an NVMe slot and is not recognised',
      { drive: sata() },
      'fail protocol-unsupported'
    ],
    ['a 9.5 mm drive in a 7 mm bay', { drive: disk25({ thicknessMm: 9.5 }), enclosure: bay25() }, 'fail bay-too-thin'],
    [
      'a double-sided drive over a floor 1 mm away',
      {
        drive: aDrive({ sides: 'double' }),
        enclosure: anEnclosure({ takesDoubleSided: undefined, clearanceBottomMm: 1 })
      },
      // the usual code D3 has 1.35 mm there, D4 only 0.7: nobody said which
      'check double-sided-no-clearance'
    ],
    [
      'the same of height code D3',
      {
        drive: aDrive({ sides: 'double', m2HeightCode: 'D3' }),
        enclosure: anEnclosure({ takesDoubleSided: undefined, clearanceBottomMm: 1 })
      },
      'fail double-sided-no-clearance'
    ],
    [
      'height code D5 alone where only single-sided ones go',
      { drive: aDrive({ sides: undefined, m2HeightCode: 'D5' }), enclosure: anEnclosure({ takesDoubleSided: false }) },
      'fail double-sided-no-clearance'
    ],
    [
      'a 2.5-inch drive in a 3.5-inch bay: docks take it, cases want a frame',
      { drive: disk25(), enclosure: bay25({ formFactor: '3.5in', externalSupply: true }) },
      'check form-factor-mismatch'
    ],
    ['sectors of 4096 bytes', { enclosure: anEnclosure({ sectorBytes: 4096 }) }, 'check sectors-4096'],
    [
      'a surface of 14 cm² around a module of 80 mm',
      { enclosure: anEnclosure({ cooling: { kind: 'fan', areaCm2: 14 } }) },
      'check surface-implausible'
    ],
    [
      'a double-sided drive where only single-sided ones go',
      { drive: aDrive({ sides: 'double' }) },
      'fail double-sided-no-clearance'
    ],
    ['a glued-on heatsink under a 2 mm lid', { drive: aDrive({ heatsinkMm: 6 }) }, 'fail heatsink-blocks-lid'],
    [
      '4 TB in an enclosure stated to 2',
      { drive: aDrive({ capacityTB: 4 }), enclosure: anEnclosure({ maxCapacityTB: 2 }) },
      'check capacity-above-limit'
    ]
  ])('%s', (_name, change, finding) => expect(found(anInput(change))).toContain(finding));

  it('a 2.0 TB drive passes a limit of 2^32 sectors (2.199 TB)', () => {
    expect(found(anInput({ enclosure: anEnclosure({ maxCapacityTB: 2.199 }) }))).toEqual([]);
  });

  it('a B+M module goes mechanically into a slot for M', () => {
    expect(
      found(
        anInput({ drive: aDrive({ m2Key: 'B+M', pcie: { generation: 3, lanes: 2 }, readMBps: 1700, writeMBps: 1500 }) })
      )
    ).toEqual([]);
  });

  it('what rests on an assumed value is to check, never a fail', () => {
    // 110 mm stated, the enclosure's lengths not: assumed 42, 60, 80
    expect(
      found(anInput({ drive: aDrive({ m2LengthMm: 110 }), enclosure: anEnclosure({ m2LengthsMm: undefined }) }))
    ).toEqual(['check m2-length-unsupported']);
    expect(
      found(anInput({ drive: aDrive({ sides: 'double' }), enclosure: anEnclosure({ takesDoubleSided: undefined }) }))
    ).toEqual(['check double-sided-no-clearance']);
    expect(
      found(anInput({ drive: aDrive({ heatsinkMm: 6 }), enclosure: anEnclosure({ clearanceTopMm: undefined }) }))
    ).toEqual(['check heatsink-blocks-lid']);
  });
});

describe('does it connect, and is there power', () => {
  it.each<[string, Partial<PlanInput>, string]>([
    [
      'a Thunderbolt-only case on a USB port',
      { host: aHost({ modes: ['usb-10g'] }), enclosure: anEnclosure({ modes: ['tbt3-40g'] }) },
      'fail no-common-link-mode'
    ],
    ['a cable with the wrong ends', { cable: aCable({ ends: ['usb-a', 'usb-c'] }) }, 'fail plug-mismatch'],
    // 2 m passive where 40 Gb/s wants 0.8
    ['a long passive cable', { cable: aCable({ lengthM: 2 }) }, 'check cable-length-doubtful'],
    [
      'a PCIe 5 drive behind a tunnel',
      { drive: aDrive({ pcie: { generation: 5, lanes: 4 } }) },
      'check pcie-generation-above-tunnel'
    ],
    [
      'a 3.5-inch disk without a supply',
      {
        drive: aDrive({ media: 'hdd', formFactor: '3.5in', pcie: undefined, flash: undefined }),
        enclosure: anEnclosure({ formFactor: '3.5in', protocols: ['sata'], modes: ['usb-10g'], externalSupply: false })
      },
      'fail external-supply-needed'
    ],
    [
      'eSATA without power',
      {
        host: aHost({ plug: 'esata', modes: ['esata-6g'], powerW: undefined }),
        cable: aCable({ ends: ['esata', 'esata'], modes: ['esata-6g'] }),
        drive: disk25(),
        enclosure: bay25({ plug: 'esata', modes: ['esata-6g'] })
      },
      // whether it has a supply is not stated
      'check esata-needs-power'
    ],
    [
      'eSATA, and stated that it has none',
      {
        host: aHost({ plug: 'esata', modes: ['esata-6g'], powerW: undefined }),
        cable: aCable({ ends: ['esata', 'esata'], modes: ['esata-6g'] }),
        drive: disk25(),
        enclosure: bay25({ plug: 'esata', modes: ['esata-6g'], externalSupply: false })
      },
      'fail esata-needs-power'
    ],
    // (1.5 + 1.5 J/GB x 3.4)/0.88 + 2.2 = 9.7 W steady on 7.5 W, all of it estimates: (1 + 1 x 2.8)/0.88 + 1.5 = 5.8 W at the low end
    ['steady need above what the port states', { host: aHost({ powerW: 7.5 }) }, 'check port-power-short'],
    [
      'what the sheet states alone is above it: 14 W x 0.9 at 2800 of 6500 MB/s, / 0.88 = 6.2 W on 4.5 W',
      { host: aHost({ powerW: 4.5 }), drive: aDrive({ writeMBps: 6500, power: { activeW: 14 } }) },
      'fail port-power-short'
    ],
    [
      'an ordinary 10 Gb/s case on 4.5 W: from 2.5 to 5.6 W, so the peak alone is to check',
      {
        host: aHost({ modes: ['usb-10g'], powerW: 4.5 }),
        enclosure: anEnclosure({ modes: ['usb-10g'] })
      },
      'check port-power-short'
    ],
    [
      'a hub without a supply of its own',
      { host: aHost({ modes: ['usb-10g'], powerW: undefined, via: 'bus-powered-hub' }) },
      'check shared-hub-power'
    ],
    // the same need on a USB4 port that states nothing: 7.5 W is assumed
    ['steady need above an assumed supply', { host: aHost({ powerW: undefined }) }, 'check port-power-short'],
    // 2.5-inch disk spins up with 5 W on a 4.5 W port; steady 1.8/0.88 + 1.15 = 3.2 W
    [
      'only the peak above it',
      {
        host: aHost({ plug: 'usb-a', modes: ['usb-10g'], powerW: 4.5 }),
        cable: aCable({ ends: ['usb-a', 'usb-c'], modes: ['usb-10g'] }),
        drive: disk25(),
        enclosure: bay25()
      },
      'check port-power-short'
    ]
  ])('%s', (_name, change, finding) => expect(found(anInput(change))).toContain(finding));

  it('an active or certified cable may be long; a supply of its own needs nothing from the port', () => {
    expect(found(anInput({ cable: aCable({ lengthM: 2, active: true }) }))).toEqual([]);
    expect(found(anInput({ cable: aCable({ lengthM: 2, certified: true }) }))).toEqual([]);
    expect(found(anInput({ host: aHost({ powerW: 4.5 }), enclosure: anEnclosure({ externalSupply: true }) }))).toEqual(
      []
    );
  });
});

describe('who limits whom', () => {
  it('a cable that costs more than a tenth is a limit, with the gain in words', () => {
    const report = plan(anInput({ cable: aCable({ modes: ['usb-10g'], active: true }) }));
    expect(report.findings[0]).toMatchObject({ code: 'cable-limits-link', severity: 'limit', about: 'cable' });
    expect(report.findings[0]!.message).toContain('it carries 10\u202fGb/s here');
    expect(report.findings[0]!.remedy).toBe(
      'A 40\u202fGb/s cable would take the write from 1000 to about 3400\u202fMB/s.'
    );
    expect(report.link).toMatchObject({ bottleneck: 'cable', alsoLimits: [], mode: 'usb-10g' });
  });

  it('does not promise a gain that the other part would take away again', () => {
    // port and cable at 10 Gb/s, enclosure 2x2: neither alone helps
    const report = plan(
      anInput({
        host: aHost({ modes: ['usb-10g'] }),
        cable: aCable({ modes: ['usb-10g'], active: true }),
        enclosure: anEnclosure({ modes: ['usb-20g'] })
      })
    );
    expect(report.findings[0]).toMatchObject({ code: 'port-limits-link' });
    expect(report.findings[0]!.remedy).toContain('together with a cable that carries it');
  });

  it('a port behind an adapter is named as such', () => {
    expect(found(anInput({ host: aHost({ via: 'adapter' }) }))).toEqual(['limit adapter-limits-link']);
  });

  it('a loss below a tenth is no finding: a SATA drive at 10 Gb/s in a 40 Gb/s case', () => {
    const slow = aDrive({ readMBps: 900, writeMBps: 800, flash: { cell: 'tlc', dram: true, postCacheWriteMBps: 900 } });
    expect(found(anInput({ drive: slow, cable: aCable({ modes: ['usb-10g'], active: true }) }))).toEqual([]);
  });

  it('but it is one when the job misses what it needs: 760 MB/s against 3000', () => {
    const drive = aDrive({ readMBps: 1000, writeMBps: 1040, flash: { cell: 'slc', dram: true } });
    // typical write: min(1040 x 0.95 = 988, 1000) = 988 here, 988 in the best mode: nothing to gain, no finding
    const job = { name: 'j', purposes: [], transferGB: 10, direction: 'in' as const, minSustainedWriteMBps: 2000 };
    expect(found(anInput({ drive, cable: aCable({ modes: ['usb-10g'], active: true }), job }))).toEqual([
      'limit job-minimum-missed'
    ]);
    // 1060 x 0.95 = 1007 against 1000 at 10 Gb/s: under a tenth, yet the job wants more than it gets
    const better = aDrive({ readMBps: 1000, writeMBps: 1060, flash: { cell: 'slc', dram: true } });
    expect(found(anInput({ drive: better, cable: aCable({ modes: ['usb-10g'], active: true }), job }))).toEqual([
      'limit cable-limits-link',
      'limit job-minimum-missed'
    ]);
  });

  it('bulk-only transport, a write ceiling, an unused rating', () => {
    const usb = {
      host: aHost({ modes: ['usb-10g'], uas: false }),
      cable: aCable({ modes: ['usb-10g'], active: true }),
      enclosure: anEnclosure({ modes: ['usb-10g'] })
    };
    const bulk = plan(anInput(usb));
    expect(bulk.findings.map((f) => f.code)).toContain('bulk-only-transport');
    expect(bulk.throughput.read).toEqual({ low: 700, typical: 800, high: 900 });
    expect(found(anInput({ host: aHost({ writeCapMBps: 1700 }) }))).toEqual(['limit host-write-ceiling']);
    expect(found(anInput(), true)).toEqual(['note drive-faster-than-link']);
  });
});

describe('how it will do over time', () => {
  it('TRIM does not pass a bridge that says so, nor bulk-only transport', () => {
    const usb = { host: aHost({ modes: ['usb-10g'] }), cable: aCable({ modes: ['usb-10g'], active: true }) };
    expect(found(anInput({ ...usb, enclosure: anEnclosure({ modes: ['usb-10g'], trim: false }) }), true)).toContain(
      'note trim-not-passed'
    );
    expect(found(anInput({ enclosure: anEnclosure({ trim: false }) }), true)).not.toContain('note trim-not-passed'); // a tunnel passes it
  });
  it('nearly full flash, shingled disks', () => {
    expect(found(anInput({ drive: aDrive({ fillFraction: 0.9 }) }))).toEqual(['limit drive-nearly-full']);
    const shingled = {
      drive: disk25({ disk: { recording: 'smr', outerMBps: 140, innerMBps: 70 } }),
      enclosure: bay25(),
      host: aHost({ modes: ['usb-10g'] })
    };
    expect(found(anInput(shingled))).toEqual(['check smr-rewrite-risk']);
  });
});

describe('a rating that its interface cannot carry', () => {
  // PCIe 4.0 x4 carries 4 x 1969 = 7876 MB/s
  it.each<[string, object, string | undefined]>([
    ['7000 megabytes as megabits: 56000 / 8 = 7000', { readMBps: 56000 }, 'megabits'],
    [
      'a factor of a thousand: 3 500 000 is above any schema, 600 000 / 8 is no rating, / 1000 = 600 neither',
      { readMBps: 600_000 },
      'data sheet'
    ],
    ['1 000 000 / 1000 = 1000 MB/s', { writeMBps: 1_000_000 }, 'thousand'],
    ['rounded up a little: 8000 on 7876', { readMBps: 8000 }, undefined],
    [
      'SATA 6 Gb/s carries 600: 4400 / 8 = 550',
      { media: 'sata-ssd', pcie: undefined, sataGbps: 6, readMBps: 4400, writeMBps: 500 },
      'megabits'
    ],
    ['no interface stated: nothing to hold it against', { pcie: undefined, readMBps: 56000 }, undefined]
  ])('%s', (_name, change, meant) => {
    const finding = plan(anInput({ drive: aDrive(change) }), { workings: false }).findings.find(
      (f) => f.code === 'unit-suspect'
    );
    if (meant === undefined) expect(finding).toBeUndefined();
    else {
      expect(finding).toMatchObject({ severity: 'check', about: 'drive' });
      expect(finding!.remedy).toContain(meant);
    }
  });
});
