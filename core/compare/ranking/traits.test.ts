import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure } from '../../../tests/parts';
import { randomCrate } from '../../../tests/random-crate';
import type { Enclosure } from '../../parts/enclosure';
import { rank } from './rank';
import { CRITERIA, TRAITS, type RankInput, type Weights } from './request';

const job = { name: 'j', purposes: [], transferGB: 400, direction: 'in' as const };
const nothing = Object.fromEntries(CRITERIA.map((criterion) => [criterion, 0])) as Weights;
const ranked = (change: Partial<RankInput>, weights: Partial<Weights>) =>
  rank({
    hosts: [{ ...aHost({ modes: ['tbt4-40g', 'usb4-40g', 'usb-10g'] }), id: 'h' }],
    cables: [{ ...aCable(), id: 'c' }],
    enclosures: [{ ...anEnclosure(), id: 'e' }],
    drives: [{ ...aDrive(), id: 'd' }],
    job,
    weights: { ...nothing, ...weights },
    ...change
  }).rows;
const two = (a: Partial<Enclosure>, b: Partial<Enclosure>) => ({
  enclosures: [
    { ...anEnclosure({ name: 'A', ...a }), id: 'a' },
    { ...anEnclosure({ name: 'B', ...b }), id: 'b' }
  ]
});

describe('what one lives with', () => {
  it('a fan is half as silent as none: ln(1/2) at weight 1', () => {
    const change = two({ cooling: { kind: 'fan' } }, { cooling: { kind: 'passive' } });
    const rows = ranked(change, { silence: 1 });
    expect(rows.map((row) => [row.enclosureId, row.shares.silence])).toEqual([
      ['b', 1],
      ['a', 0.5]
    ]);
    expect(rows[1]!.score).toBeCloseTo(Math.log(0.5), 12);
  });
  it('weight counts with the drive: 112 + 8 against 232 + 8 g is a half', () => {
    const rows = ranked(two({ weightG: 232 }, { weightG: 112 }), { lightness: 1 });
    expect(rows.map((row) => row.enclosureId)).toEqual(['b', 'a']);
    expect(rows[1]!.shares.lightness).toBeCloseTo(120 / 240, 12);
  });
  it('a screw, or no word about it, is half of no tools', () => {
    const rows = ranked(two({ retention: 'screw' }, { retention: 'tool-less' }), { tools: 1 });
    expect(rows.map((row) => [row.enclosureId, row.shares.tools])).toEqual([
      ['b', 1],
      ['a', 0.5]
    ]);
  });
  it('a case for Thunderbolt alone has no way out on a plain port', () => {
    const rows = ranked(two({ modes: ['tbt3-40g'] }, { modes: ['usb4-40g', 'usb-10g'] }), { fallback: 1 });
    expect(rows.map((row) => [row.enclosureId, row.shares.fallback])).toEqual([
      ['b', 1],
      ['a', 0.1]
    ]);
  });
  it('the longer cable reaches further, though it is dearer: 0.4 of 0.8 m is a half', () => {
    const cables = [
      { ...aCable({ lengthM: 0.4 }), id: 'short' },
      { ...aCable({ lengthM: 0.8 }), id: 'long' }
    ];
    const quotes = ['short', 'long'].map((partId, i) => ({
      partId,
      vendor: 'V',
      date: '2026-05-01',
      currency: 'EUR',
      list: 10 + 20 * i
    }));
    expect(ranked({ cables, quotes }, { reach: 1 }).map((row) => [row.cableId, row.shares.reach])).toEqual([
      ['long', 1],
      ['short', 0.5]
    ]);
    // and the price against it
    expect(ranked({ cables, quotes }, { reach: 0, cost: 1 }).map((row) => row.cableId)).toEqual(['long', 'short']);
  });
  it('room counts up to the job and a fifth: 400 GB fit twice into a drive of 1 TB, hardly into one of 0.48 TB', () => {
    const drives = [0.48, 1, 4].map((capacityTB) => ({ ...aDrive({ capacityTB }), id: `d${capacityTB}` }));
    const rows = ranked({ drives }, { room: 1 });
    const shares = Object.fromEntries(rows.map((row) => [row.driveId, row.shares.room]));
    expect([shares.d1, shares.d4]).toEqual([1, 1]);
    // ext4 on Linux takes 6.6 %: 480 GB x 0.934 = 448.32 GB, four fifths of it are 358.656 of 400 GB
    expect(shares['d0.48']).toBeCloseTo(358.656 / 400, 9);
  });
  it('counts nothing where nobody gave it a weight', () => {
    const rows = ranked(two({ cooling: { kind: 'fan' } }, {}), { seconds: 1 });
    expect(Object.keys(rows[0]!.shares)).toEqual(['seconds']);
  });
});

const SIZES = { hosts: 2, portsEach: 2, cables: 5, enclosures: 6, drives: 6 };
describe('over random crates', () => {
  it.each([21, 22, 23, 24, 25, 26])(
    'crate %i: the score is the weighted sum of the shares, rows stand in its order, and the first few are the first of all',
    (seed) => {
      const weights = Object.fromEntries(
        [...CRITERIA, ...TRAITS].map((name, i) => [name, (seed * (i + 3)) % 4])
      ) as Weights;
      const input = { ...randomCrate(seed, SIZES), filters: {}, weights };
      const { rows } = rank({ ...input, limit: 5000 });
      for (const [i, row] of rows.entries()) {
        const sum = Object.entries(row.shares).reduce(
          (total, [name, share]) => total + (weights[name as keyof Weights] ?? 0) * Math.log(share),
          0
        );
        expect(row.score).toBeCloseTo(sum, 9);
        if (i > 0) expect(row.score).toBeLessThanOrEqual(rows[i - 1]!.score);
        for (const share of Object.values(row.shares)) expect(share).toBeLessThanOrEqual(1 + 1e-12);
      }
      expect(rank({ ...input, limit: 7 }).rows).toEqual(rows.slice(0, 7));
    }
  );
});
