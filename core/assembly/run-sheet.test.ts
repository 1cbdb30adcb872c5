import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import { randomCrate } from '../../tests/random-crate';
import type { Drive } from '../parts/drive';
import type { Enclosure, Opening, Retention } from '../parts/enclosure';
import { OPENINGS, RETENTIONS } from '../parts/enclosure';
import type { PlanInput } from '../plan/report';
import { sheetSchema, tickable, type RunSheet } from '../sheets/sheet';
import { runSheet, type SheetOptions } from './run-sheet';

const codesOf = ({ stages }: RunSheet) => stages.flatMap(({ steps }) => steps.map(({ code }) => code));
const codes = (input: PlanInput, options: SheetOptions = {}) => codesOf(runSheet(input, options));
const of = (sheet: RunSheet, code: string) =>
  sheet.stages.flatMap(({ steps }) => steps).find((step) => step.code === code);
/** What is done in the order of these, whatever else is done in between. */
function inOrder(all: readonly string[], ...wanted: string[]): void {
  const at = wanted.map((code) => all.indexOf(code));
  expect(at, wanted.join(' < ')).not.toContain(-1);
  expect(at).toEqual([...at].sort((a, b) => a - b));
}

const LAY_OUT = ['count-kit', 'photograph', 'unplug', 'discharge'];
const DRESSED = ['keep-label', 'match-key'];
/** Written out by hand: what opens the case, by how it opens. */
const OPEN: Record<Opening | 'unknown', string[]> = {
  screws: ['open-case', 'keep-screws', 'mark-direction', 'unpack-inside', ...DRESSED],
  slide: ['open-case', 'mark-direction', 'unpack-inside', ...DRESSED],
  clips: ['ease-clips', 'open-case', 'mark-direction', 'unpack-inside', ...DRESSED],
  lid: ['open-case', 'mark-direction', 'unpack-inside', ...DRESSED],
  none: ['set-down', 'unpack-inside', ...DRESSED],
  unknown: ['open-case', 'mark-direction', 'unpack-inside', ...DRESSED]
};
const PUT_IN = ['insert-slanted', 'check-edge', 'press-down'];
/** What puts a module in, by what holds it. */
const SEAT: Record<Retention | 'unknown', string[]> = {
  screw: ['set-standoff', ...PUT_IN, 'fasten-screw'],
  'screw-from-below': ['set-standoff', ...PUT_IN, 'fasten-screw'],
  turning: ['free-retainer', ...PUT_IN, 'seat-in-retainer'],
  rubber: ['free-retainer', ...PUT_IN, 'seat-in-retainer'],
  'tool-less': ['free-retainer', ...PUT_IN, 'seat-in-retainer'],
  tray: ['pull-tray', ...PUT_IN, 'fix-on-tray'],
  unknown: ['free-retainer', ...PUT_IN, 'hold-down']
};
const DRY = ['cut-pads', 'lay-on-trial', 'dry-fit', 'open-again', 'check-imprint'];
const OVER = ['peel-liner', 'place-pad', 'place-pad', 'peel-last-liner'];
const CLOSE: Record<Opening | 'unknown', string[]> = {
  screws: ['close-lid', 'fasten-lid'],
  slide: ['close-lid'],
  clips: ['close-lid', 'press-clips'],
  lid: ['close-lid'],
  none: [],
  unknown: ['close-lid']
};
const PLUG = ['plug-in', 'look-for-it', 'check-connection', 'eject'];

const held = (enclosure: Partial<Enclosure>, drive: Partial<Drive> = {}, more: Partial<PlanInput> = {}): PlanInput =>
  anInput({ enclosure: anEnclosure(enclosure), drive: aDrive(drive), ...more });

describe('the run sheet of a module, by how the case opens and how the drive is held', () => {
  for (const opening of [...OPENINGS, undefined])
    for (const retention of [...RETENTIONS, undefined])
      it(`${opening ?? 'not stated'}, ${retention ?? 'not stated'}`, () => {
        const tray = retention === 'tray';
        // A tray has a way round even where nothing else is opened, and goes in before a lid is closed.
        const begin = OPEN[opening ?? 'unknown'];
        const marked = tray && opening === 'none' ? ['set-down', 'mark-direction', 'unpack-inside', ...DRESSED] : begin;
        expect(codes(held({ ...(opening ? { opening } : {}), ...(retention ? { retention } : {}) }))).toEqual([
          ...LAY_OUT,
          ...marked,
          ...SEAT[retention ?? 'unknown'],
          ...DRY,
          ...OVER,
          'look-over',
          ...(tray ? ['slide-in-tray'] : []),
          ...CLOSE[opening ?? 'unknown'],
          'keep-spares',
          'label-case',
          ...PLUG
        ]);
      });
});

const SATA: Partial<Drive> = { media: 'sata-ssd', formFactor: '2.5in', thicknessMm: 7, sataGbps: 6 };
const BAY: Partial<Enclosure> = { formFactor: '2.5in', protocols: ['sata'], modes: ['usb-10g'], maxThicknessMm: 9.5 };
const DISK: Partial<Drive> = { media: 'hdd', formFactor: '3.5in', capacityTB: 8 };
const BAY_35: Partial<Enclosure> = {
  formFactor: '3.5in',
  protocols: ['sata'],
  modes: ['usb-10g'],
  externalSupply: true
};
const disk = (enclosure: Partial<Enclosure>, drive: Partial<Drive>, more: Partial<PlanInput> = {}) => {
  const { m2LengthMm: _l, m2Key: _k, pcie: _p, sides: _s, ...rest } = aDrive(drive);
  const { m2LengthsMm: _ls, m2Keys: _ks, downstreamPcie: _d, clearanceTopMm: _c, ...bay } = anEnclosure(enclosure);
  return anInput({ drive: rest, enclosure: bay, ...more });
};
const esata = () => aHost({ plug: 'esata', modes: ['esata-6g'] });
const esataCable = () => aCable({ ends: ['esata', 'esata'], modes: ['esata-6g'] });
const ESATA: Partial<Enclosure> = { ...BAY, plug: 'esata', morePlugs: ['micro-b'], modes: ['esata-6g', 'usb-5g'] };

describe('the run sheet of a disk', () => {
  it('of 2.5 inch without tools: no screw anywhere, the spacer first', () => {
    const all = codes(disk({ ...BAY, retention: 'tool-less', opening: 'slide', directionMark: true }, SATA));
    expect(all).toEqual([
      ...LAY_OUT,
      ...['open-case', 'mark-direction', 'unpack-inside', 'match-connector'],
      ...['fit-spacer', 'turn-right', 'push-onto-connector', 'lock-in', 'check-firm'],
      ...['look-over', 'close-lid', 'keep-spares', 'label-case'],
      ...PLUG
    ]);
  });
  it('of 2.5 inch with four screws: all are started, then tightened crosswise', () => {
    const all = codes(
      disk({ ...BAY, retention: 'screw', opening: 'screws', screws: { head: 'cross', count: 2 } }, SATA)
    );
    inOrder(all, 'push-onto-connector', 'start-screws', 'fasten-crosswise', 'close-lid', 'fasten-lid');
    expect(all).not.toContain('insert-slanted');
    expect(all).not.toContain('peel-liner');
  });
  it('of 2.5 inch as thick as its bay needs no spacer', () =>
    expect(codes(disk({ ...BAY, retention: 'screw' }, { ...SATA, thicknessMm: 9.5 }))).not.toContain('fit-spacer'));
  it('in a tray: laid in, not pushed on, and slid in before the end', () => {
    const all = codes(disk({ ...BAY, retention: 'tray', opening: 'none' }, SATA));
    inOrder(all, 'mark-direction', 'lay-in-tray', 'check-firm', 'slide-in-tray', 'label-case');
    for (const code of ['push-onto-connector', 'close-lid', 'open-case', 'start-screws', 'lock-in'])
      expect(all).not.toContain(code);
  });
  it('whose bay says nothing asks how it is held, and how it opens', () => {
    const sheet = runSheet(disk(BAY, SATA));
    expect(sheet.stages.flatMap(({ asks }) => asks.map(({ question }) => question))).toEqual([
      'opening',
      'directionMark',
      'retention'
    ]);
    expect(codesOf(sheet)).toContain('hold-down');
  });
  it('of 3.5 inch with a supply: the supply first, with its caution', () => {
    const sheet = runSheet(disk({ ...BAY_35, retention: 'tool-less', opening: 'none' }, DISK));
    inOrder(codesOf(sheet), 'push-onto-connector', 'label-case', 'connect-supply', 'plug-in', 'eject');
    expect(of(sheet, 'connect-supply')?.caution).toMatch(/Never open a supply/);
    expect(of(sheet, 'discharge')?.caution).toMatch(/knock/);
    expect(sheet.kit.map(({ what }) => what)).toContain('Its power supply');
  });
  it('of 2.5 inch in a bay of 3.5 inch is put into a frame', () =>
    inOrder(codes(disk({ ...BAY_35, retention: 'screw' }, SATA)), 'fit-adapter', 'push-onto-connector'));
  it('over eSATA beside USB power: data first, then power, and no plain plug-in', () => {
    const all = codes(disk({ ...ESATA, retention: 'screw' }, SATA, { host: esata(), cable: esataCable() }));
    inOrder(all, 'plug-data-first', 'plug-power', 'look-for-it', 'eject');
    expect(all).not.toContain('plug-in');
    expect(all).not.toContain('connect-supply');
  });
  it('over eSATA with a supply: data first, then the supply', () => {
    const input = disk({ ...ESATA, externalSupply: true, retention: 'screw' }, SATA, {
      host: esata(),
      cable: esataCable()
    });
    inOrder(codes(input), 'plug-data-first', 'connect-supply', 'look-for-it');
    expect(codes(input)).not.toContain('plug-power');
  });
});

describe('what a sheet says of the drive', () => {
  it('no heatsink step without a heatsink; with one, before the drive goes in, with its caution', () => {
    expect(codes(held({}))).not.toContain('remove-heatsink');
    const sheet = runSheet(held({ clearanceTopMm: 12 }, { heatsinkMm: 8 }));
    inOrder(codesOf(sheet), 'open-case', 'remove-heatsink', 'match-key', 'insert-slanted');
    expect(of(sheet, 'remove-heatsink')?.caution).toMatch(/stop/);
  });
  it('a paper label comes off by house rule only', () => {
    expect(codes(held({}, { label: 'paper' }))).toContain('keep-label');
    const all = codes(held({}, { label: 'paper' }, { houseRules: { label: 'remove' } }));
    inOrder(all, 'photograph', 'remove-label', 'insert-slanted');
    expect(all).not.toContain('keep-label');
  });
  it('a metal label stays whatever the rule says; without a label nothing is said', () => {
    expect(codes(held({}, { label: 'metal' }, { houseRules: { label: 'remove' } }))).toContain('keep-label');
    const none = codes(held({}, { label: 'none' }));
    expect(none).not.toContain('keep-label');
    expect(none).not.toContain('remove-label');
  });
});

describe('the pads on a sheet', () => {
  const both = () =>
    held({ clearanceBottomMm: 1.8, takesDoubleSided: true, retention: 'turning' }, { sides: 'double' });

  it('of a drive with chips on both sides: it comes out again after the imprint, and in again for good', () => {
    const sheet = runSheet(both());
    expect(sheet.stages.map(({ id }) => id)).toEqual([
      ...['lay-out', 'open', 'seat', 'dry-fit', 'pads-under', 'put-back', 'pads-over', 'close', 'plug-in']
    ]);
    const all = codesOf(sheet);
    inOrder(
      all,
      'cut-pads',
      'lay-under',
      'insert-slanted',
      'lay-on-trial',
      'check-imprint',
      'take-out-again',
      'peel-liner'
    );
    expect(all.filter((code) => code === 'insert-slanted')).toHaveLength(2);
    expect(all.filter((code) => code === 'seat-in-retainer')).toHaveLength(2);
    const check = sheet.stages.find(({ id }) => id === 'pads-over')?.check;
    // Three pieces, controller and NAND above and NAND below, each with a liner on both faces: 3 x 2.
    expect(check).toMatch(/^6 liners/);
  });
  it('in two layers: the liners between them come off before the second is laid', () => {
    // A gap over the chips of 4.8 - 1.5 = 3.3 mm (S3: 1.5 mm high): two of 2 mm are pressed by (4 - 3.3)/4 = 17.5 %.
    const pads = [{ kind: 'pad' as const, name: 'Two', thicknessMm: 2, widthMm: 40, lengthMm: 80, quantity: 9 }];
    const input = held(
      { clearanceTopMm: 4.8, retention: 'screw' },
      {},
      { pads, houseRules: { 'gap-not-closed': 'stack' } }
    );
    const sheet = runSheet(input);
    inOrder(codesOf(sheet), 'check-imprint', 'peel-liner', 'place-pad', 'stack-layer', 'peel-last-liner', 'close-lid');
    expect(of(sheet, 'place-pad')?.text).toMatch(/2\u202fmm on 2\u202fmm/);
    expect(of(sheet, 'stack-layer')?.reason).toMatch(/liner/);
  });
  it('that nothing at hand closes: the sheet says which to get, and lays none there', () => {
    const pads = [{ kind: 'pad' as const, name: 'Thin', thicknessMm: 0.5, widthMm: 20, lengthMm: 70, quantity: 1 }];
    // 4.8 - 1.5 = 3.3 mm of gap: a pad of 0.5 mm does not touch.
    const sheet = runSheet(held({ clearanceTopMm: 4.8 }, {}, { pads }));
    expect(codesOf(sheet)).not.toContain('peel-liner');
    expect(sheet.spares.join()).toMatch(/nothing at hand closes a gap/);
  });
  it('of an enclosure that states no room: the one of its box, on trial first', () => {
    const { clearanceTopMm: _room, ...enclosure } = anEnclosure();
    const sheet = runSheet(anInput({ enclosure }));
    inOrder(codesOf(sheet), 'find-pad', 'dry-fit', 'check-imprint', 'peel-liner', 'place-pad', 'peel-last-liner');
    expect(codesOf(sheet)).not.toContain('cut-pads');
  });
  it('more than three pieces of a side are one step', () => {
    const chip = (xMm: number, heightMm: number) =>
      ({ role: 'nand', side: 'top', xMm, yMm: 4, widthMm: 12, lengthMm: 10, heightMm }) as const;
    const components = [chip(10, 1), chip(25, 1.2), chip(40, 1.4), chip(55, 1.6)];
    const all = codes(held({ clearanceTopMm: 2.4 }, { components }));
    expect(all.filter((code) => code === 'place-pad')).toHaveLength(1);
  });
});

describe('several alike', () => {
  it('have tags before parts, the steps once, and minutes for all of them', () => {
    const one = runSheet(held({ retention: 'screw' }));
    const three = runSheet(held({ retention: 'screw' }), { units: 3 });
    expect(codesOf(one)).not.toContain('tag-parts');
    expect(codesOf(three)).toEqual(['tag-parts', ...codesOf(one)]);
    expect(three.units).toBe(3);
    expect(three.minutes.typical).toBeGreaterThan(2 * one.minutes.typical);
    expect(three.kit[0]?.what).toBe('3 × Test T4 2TB');
  });
});

describe('a drive out of a ready-made external', () => {
  it('is proved while it can be returned, and only then opened', () => {
    const all = codes(disk({ ...BAY, retention: 'screw' }, SATA), { from: 'ready-made' });
    inOrder(
      all,
      'check-health',
      'scan-surface',
      'save-data',
      'unplug',
      'ease-clips',
      'look-at-plug',
      'lift-out',
      'keep-clips'
    );
    inOrder(all, 'keep-clips', 'open-case', 'push-onto-connector');
    expect(codes(disk({ ...BAY, retention: 'screw' }, SATA))).not.toContain('check-health');
  });
});

describe('the parts behind a step', () => {
  const ids = (input: PlanInput) => new Map(tickable(runSheet(input)).map(({ id }) => [id, true]));
  const base = held({ retention: 'screw', opening: 'screws' });
  const changed = (change: Partial<PlanInput>) => {
    const [was, now] = [ids(base), ids({ ...base, ...change })];
    return [...now.keys()].filter((id) => !was.has(id) && !id.startsWith('kit.')).map((id) => id.replace(/\..*/, ''));
  };
  it('another drive makes every step that is done to it a new one, and leaves the others', () => {
    const now = changed({ drive: aDrive({ name: 'Another', id: '0'.repeat(25) + '7' }) });
    expect(now).toEqual(expect.arrayContaining(['photograph', 'insert-slanted', 'fasten-screw', 'close-lid']));
    for (const code of ['discharge', 'unplug', 'open-case', 'keep-screws']) expect(now).not.toContain(code);
  });
  it('another port concerns the first connection only', () =>
    expect(changed({ host: aHost({}, { name: 'Other host' }) })).toEqual([
      'plug-in',
      'look-for-it',
      'check-connection',
      'eject'
    ]));
});

describe('every sheet, of parts at random', () => {
  const inputs = Array.from({ length: 30 }, (_, seed) =>
    randomCrate(seed + 1, { hosts: 2, portsEach: 2, cables: 2, enclosures: 4, drives: 4 })
  ).flatMap(({ hosts, enclosures, drives }) =>
    enclosures.flatMap((enclosure) =>
      drives.map((drive, n): PlanInput => {
        const host = hosts[n % hosts.length]!;
        return { host, portId: host.ports[0]!.id, enclosure, drive };
      })
    )
  );
  it('holds the rules of the bench', () => {
    expect(inputs.length).toBeGreaterThan(400);
    for (const input of inputs) {
      const sheet = runSheet(input);
      const all = codesOf(sheet);
      expect(sheetSchema.safeParse(sheet).error?.issues ?? []).toEqual([]);
      const ids = tickable(sheet).map(({ id }) => id);
      expect(new Set(ids).size, ids.join()).toBe(ids.length);
      for (const { id, steps, check } of sheet.stages) {
        expect(steps.length, id).toBeGreaterThanOrEqual(3);
        expect(steps.length, id).toBeLessThanOrEqual(8);
        expect(check).not.toMatch(/undefined|NaN|null/);
        for (const { text, reason = '', caution = '' } of steps)
          expect([text, reason, caution].join('|')).not.toMatch(/undefined|NaN|null|\.\.|\s{2}/);
      }
      const before = (first: string, second: string) => {
        const [a, b] = [all.indexOf(first), all.indexOf(second)];
        if (a !== -1 && b !== -1) expect(a, `${first} before ${second}`).toBeLessThan(b);
      };
      before('check-imprint', 'peel-liner');
      before('discharge', 'insert-slanted');
      before('unplug', 'open-case');
      before('peel-last-liner', 'close-lid');
      if (all.includes('peel-liner')) expect(all).toContain('check-imprint');
      expect(all.includes('remove-heatsink')).toBe(
        input.drive.formFactor === 'm2' && (input.drive.heatsinkMm ?? 0) > 0
      );
      const retained = ['turning', 'rubber', 'tool-less'].includes(input.enclosure.retention ?? '');
      expect(sheet.stages.some(({ steps }) => steps.some(({ caution }) => caution?.startsWith('IN the notch')))).toBe(
        retained && input.drive.formFactor === 'm2'
      );
      const screwed = /^(?:fasten-screw|start-screws|fasten-crosswise)$/;
      if (input.enclosure.retention === 'tool-less' || input.enclosure.retention === 'tray')
        expect(all.filter((code) => screwed.test(code))).toEqual([]);
    }
  });
  it('is the same for the same parts', () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: inputs.length - 1 }), (n) => {
        expect(runSheet(inputs[n]!)).toEqual(runSheet(structuredClone(inputs[n]!)));
      }),
      { numRuns: 20 }
    ));
});
