import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LINK_MODE_IDS, LINK_MODES, type LinkMode } from '../facts/link-modes';
import { fillDrive } from '../parts/fill/drive';
import { fillEnclosure } from '../parts/fill/enclosure';
import { aCable, aDrive, anEnclosure, aPort } from '../../tests/parts';
import type { Cable } from '../parts/cable';
import { bestMode, closeModes, modesOf } from './modes';
import { negotiate, modeRank } from './negotiate';
import { bottleneckOf, chainStages, linkCeiling } from './stages';

describe('closing a list of modes by implication', () => {
  it.each([
    // Thunderbolt 5 hosts give everything but 2x2 and eSATA.
    [
      'host',
      ['tbt5-80g'],
      ['tbt5-80g', 'tbt4-40g', 'usb4-40g', 'tbt3-40g', 'usb4-20g', 'tbt3-20g', 'usb-10g', 'usb-5g', 'usb2']
    ],
    ['host', ['usb4-40g'], ['usb4-40g', 'usb4-20g', 'usb-10g', 'usb-5g', 'usb2']],
    ['host', ['usb-20g'], ['usb-20g', 'usb-10g', 'usb-5g', 'usb2']],
    // A Thunderbolt-only bridge has no USB fallback.
    ['bridge', ['tbt3-40g'], ['tbt3-40g', 'tbt3-20g']],
    ['bridge', ['usb4-40g'], ['usb4-40g', 'usb4-20g', 'usb-10g', 'usb-5g', 'usb2']],
    // An old active Thunderbolt 3 cable carries USB at 2.0 only; a passive 40 Gb/s one carries everything.
    ['active-cable', ['tbt3-40g'], ['tbt3-40g', 'tbt3-20g', 'usb2']],
    [
      'passive-cable',
      ['usb4-40g'],
      ['tbt5-80g', 'tbt4-40g', 'usb4-40g', 'tbt3-40g', 'usb4-20g', 'tbt3-20g', 'usb-20g', 'usb-10g', 'usb-5g', 'usb2']
    ]
  ] as const)('%s %j', (role, modes, closed) => {
    expect(modesOf(closeModes(modes, role))).toEqual(closed);
  });
});

describe('negotiation', () => {
  const cases: [string, LinkMode[], LinkMode[], LinkMode[], LinkMode | null, string[]][] = [
    // name, port, cable, enclosure, mode, who limits
    ['all at 40 Gb/s', ['usb4-40g'], ['usb4-40g'], ['usb4-40g', 'usb-10g'], 'usb4-40g', ['port', 'bridge']],
    [
      'a 10 Gb/s cable drops a 40 Gb/s chain',
      ['usb4-40g'],
      ['usb-10g'],
      ['usb4-40g', 'usb-10g'],
      'usb4-20g',
      ['cable']
    ],
    ['a charging cable is USB 2.0', ['usb4-40g'], ['usb2'], ['usb4-40g', 'usb-10g'], 'usb2', ['cable']],
    [
      '2x2 on a USB4 port runs at 10 Gb/s: neither has what the other wants',
      ['usb4-40g'],
      ['usb4-40g'],
      ['usb-20g'],
      'usb-10g',
      ['port', 'bridge']
    ],
    ['2x2 on a Thunderbolt 5 port too', ['tbt5-80g'], ['tbt5-80g'], ['usb-20g'], 'usb-10g', ['port', 'bridge']],
    ['2x2 end to end', ['usb-20g'], ['usb-20g'], ['usb-20g'], 'usb-20g', ['port', 'cable', 'bridge']],
    ['Thunderbolt-only on USB: nothing', ['usb-10g'], ['usb4-40g'], ['tbt3-40g'], null, ['port', 'bridge']],
    [
      'Thunderbolt 3 bridge on a USB4 host that does not list it: nothing',
      ['usb4-40g'],
      ['usb4-40g'],
      ['tbt3-40g'],
      null,
      ['port', 'bridge']
    ],
    ['Thunderbolt 3 bridge on a Thunderbolt 4 host', ['tbt4-40g'], ['usb4-40g'], ['tbt3-40g'], 'tbt3-40g', ['bridge']],
    ['two labels of one link', ['usb4-40g'], ['usb4-40g'], ['tbt4-40g'], 'usb4-40g', ['port', 'bridge']],
    ['port and cable together at 5 Gb/s', ['usb-5g'], ['usb-5g'], ['usb-10g'], 'usb-5g', ['port', 'cable']]
  ];
  it.each(cases)('%s', (_name, port, cable, bridge, mode, limiting) => {
    const found = negotiate(aPort({ modes: port }), aCable({ modes: cable }), anEnclosure({ modes: bridge }));
    expect(found.mode).toBe(mode);
    expect(found.limiting).toEqual(limiting);
  });

  it('takes the cable of the box with the best mode; of equals the first; and one that carries nothing is none', () => {
    const slow = aCable({ name: 'A to C', ends: ['usb-a', 'usb-c'], modes: ['usb-5g'] });
    const usb2 = aCable({ name: 'thin', modes: ['usb2'] });
    const ten = aCable({ name: 'ten', modes: ['usb-10g'], active: true });
    const also = aCable({ name: 'also ten', modes: ['usb-10g'], active: true });
    const found = negotiate(aPort(), undefined, anEnclosure({ includedCables: [slow, usb2, ten, also] }));
    expect([found.cable?.name, found.mode, found.cableFrom]).toEqual(['ten', 'usb-10g', 'box']);
    // A Thunderbolt-only case with a charging cable in its box: another one is assumed.
    const only = anEnclosure({ modes: ['tbt3-40g'], includedCables: [usb2] });
    const assumed = negotiate(aPort({ modes: ['tbt4-40g'] }), undefined, only);
    expect([assumed.cable, assumed.mode, assumed.cableFrom]).toEqual([null, 'tbt3-40g', 'assumed']);
  });

  describe('a passive cable for 10 Gb/s with USB-C at both ends has both lane pairs', () => {
    const ten = aCable({ modes: ['usb-10g'] });
    it.each<[string, LinkMode[], LinkMode[], LinkMode, boolean]>([
      ['2x2 end to end', ['usb-20g'], ['usb-20g'], 'usb-20g', true],
      ['USB4', ['usb4-40g'], ['usb4-40g'], 'usb4-20g', true],
      ['Thunderbolt only', ['tbt4-40g'], ['tbt3-40g'], 'tbt3-20g', true],
      ['10 Gb/s uses one pair, and that is certain', ['usb4-40g'], ['usb-10g'], 'usb-10g', false]
    ])('%s', (_name, port, bridge, mode, likely) => {
      const found = negotiate(aPort({ modes: port }), ten, anEnclosure({ modes: bridge }));
      expect([found.mode, found.likely]).toEqual([mode, likely]);
    });
    it('certified it is certain; active, with USB-A, or for 5 Gb/s it is not so', () => {
      const at = (change: Partial<Cable>) => {
        const { mode, likely } = negotiate(
          aPort({ modes: ['usb-20g'] }),
          aCable({ modes: ['usb-10g'], ...change }),
          anEnclosure({ modes: ['usb-20g'] })
        );
        return [mode, likely];
      };
      expect(at({ certified: true })).toEqual(['usb-20g', false]);
      expect(at({ active: true })).toEqual(['usb-10g', false]);
      expect(at({ modes: ['usb-5g'] })).toEqual(['usb-5g', false]);
      // USB-A at one end: plugs do not even meet a USB-C port, and nothing above 10 Gb/s passes.
      expect(at({ ends: ['usb-a', 'usb-c'] })[0]).toBe('usb-10g');
    });
  });

  it('an old passive Thunderbolt 3 cable at 20 Gb/s runs a Thunderbolt-only case at 20 Gb/s, and a USB4 one too', () => {
    const old = aCable({ modes: ['tbt3-20g'], lengthM: 2 });
    const port = aPort({ modes: ['tbt4-40g'] });
    expect(negotiate(port, old, anEnclosure({ modes: ['tbt3-40g'] })).mode).toBe('tbt3-20g');
    expect(negotiate(port, old, anEnclosure({ modes: ['usb4-40g'] })).mode).toBe('usb4-20g');
  });

  it('a USB-A plug removes everything above 10 Gb/s, and so does an adapter', () => {
    expect(
      negotiate(aPort({ plug: 'usb-a', modes: ['usb-20g'] }), aCable({ ends: ['usb-a', 'usb-c'] }), anEnclosure()).mode
    ).toBe('usb-10g');
    expect(negotiate(aPort({ via: 'adapter' }), aCable(), anEnclosure()).mode).toBe('usb-10g');
  });

  it('a USB4 port that tunnels no PCIe runs a USB4 bridge in its USB 3 mode', () => {
    expect(negotiate(aPort({ tunnelsPcie: false }), aCable(), anEnclosure()).mode).toBe('usb-10g');
  });

  it('a fixed cable must end in the plug of the port', () => {
    expect(
      negotiate(aPort({ plug: 'usb-a', modes: ['usb-5g'] }), undefined, anEnclosure({ captiveCable: true })).plugsMeet
    ).toBe(false);
    expect(negotiate(aPort(), undefined, anEnclosure({ captiveCable: true })).plugsMeet).toBe(true);
  });

  it('uses the socket that the cable reaches: eSATA beside USB', () => {
    const both = anEnclosure({ modes: ['esata-3g', 'usb-5g'], plug: 'esata', morePlugs: ['micro-b'] });
    expect(
      negotiate(
        aPort({ plug: 'esata', modes: ['esata-6g'] }),
        aCable({ ends: ['esata', 'esata'], modes: ['esata-6g'] }),
        both
      ).mode
    ).toBe('esata-3g');
    expect(
      negotiate(
        aPort({ plug: 'usb-a', modes: ['usb-10g'] }),
        aCable({ ends: ['usb-a', 'micro-b'], modes: ['usb-5g'] }),
        both
      ).mode
    ).toBe('usb-5g');
  });
});

describe('properties of every chain', () => {
  const modes = fc.uniqueArray(fc.constantFrom(...LINK_MODE_IDS), { minLength: 1, maxLength: 5 });

  it('the mode is in all three lists, nothing better is, and the stages come down to its band', () => {
    fc.assert(
      fc.property(modes, modes, modes, fc.boolean(), (port, cable, bridge, active) => {
        const thePort = aPort({ modes: port });
        const enclosure = anEnclosure({ modes: bridge });
        const found = negotiate(thePort, aCable({ modes: cable, active }), enclosure);
        const common = found.sets.port & found.sets.cable & found.sets.bridge;
        expect(found.mode).toBe(bestMode(common));
        if (found.mode === null) return;
        const { mode } = found;
        expect(Math.max(...modesOf(common).map((m) => modeRank(m)))).toBe(modeRank(mode));
        const stages = chainStages({
          negotiation: found,
          mode,
          port: thePort,
          enclosure: fillEnclosure(enclosure),
          drive: fillDrive(aDrive({ readMBps: 20_000, writeMBps: 20_000 })),
          quickRemoval: false
        });
        const { band } = bottleneckOf(stages, 'MBps');
        // Never above the link's own ceiling, never below the worst of its band.
        expect(band.high).toBeLessThanOrEqual(linkCeiling(mode, 4));
        expect(band.low).toBeGreaterThanOrEqual(Math.min(LINK_MODES[mode].read.low, 2150));
        expect(band.low).toBeLessThanOrEqual(band.typical);
        expect(band.typical).toBeLessThanOrEqual(band.high);
      }),
      { seed: 20261123, numRuns: 500 }
    );
  });

  it('a better cable never makes a chain slower', () => {
    fc.assert(
      fc.property(modes, modes, modes, modes, (port, cable, more, bridge) => {
        const mode = (list: LinkMode[]) =>
          modeRank(negotiate(aPort({ modes: port }), aCable({ modes: list }), anEnclosure({ modes: bridge })).mode);
        expect(mode([...new Set([...cable, ...more])])).toBeGreaterThanOrEqual(mode(cable));
      }),
      { seed: 20261124, numRuns: 300 }
    );
  });
});
