import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure } from '../../../tests/parts';
import { plan } from '../../plan/plan';
import { rank } from './rank';
import type { RankInput } from './request';

const job = { name: 'j', purposes: [], transferGB: 100, direction: 'in' as const };

describe('a ranking without cables', () => {
  it('two enclosures that differ only in the cable in the box are two links', () => {
    const boxed = (id: string, modes: ('usb-10g' | 'usb4-40g')[]) =>
      anEnclosure({
        id,
        name: id,
        includedCables: [aCable({ modes, certified: true, ends: ['usb-c', 'usb-c'] })]
      });
    const host = { ...aHost({ modes: ['usb4-40g', 'usb-10g'] }), id: 'h' };
    const drive = { ...aDrive(), id: 'd' };
    const enclosures = [boxed('slow', ['usb-10g']), boxed('fast', ['usb4-40g'])];
    const { rows } = rank({ hosts: [host], cables: [], enclosures, drives: [drive], job } as RankInput);
    for (const enclosure of enclosures) {
      const { throughput } = plan({ host, portId: 'p', enclosure, drive, job }, { workings: false });
      expect(rows.find((row) => row.enclosureId === enclosure.id)!.read).toEqual(throughput.read);
    }
    expect(rows[0]!.enclosureId).toBe('fast');
    expect(rows[0]!.read.typical).toBeGreaterThan(rows[1]!.read.typical);
  });
});

describe('how many rows', () => {
  it('a hundred where nobody says, and as many as are asked for', () => {
    const input: RankInput = {
      hosts: [{ ...aHost(), id: 'h' }],
      cables: [{ ...aCable(), id: 'c' }],
      enclosures: [{ ...anEnclosure(), id: 'e' }],
      drives: Array.from({ length: 130 }, (_, i) => ({ ...aDrive({ name: `Drive ${i}` }), id: `d${i}` })),
      job
    };
    expect(rank(input)).toMatchObject({ considered: 130, accepted: 130 });
    expect(rank(input).rows).toHaveLength(100);
    expect(rank({ ...input, limit: 7 }).rows).toHaveLength(7);
    expect(rank({ ...input, limit: 0 }).rows).toHaveLength(0);
  });
});
