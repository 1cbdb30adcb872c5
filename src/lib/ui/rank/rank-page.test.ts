import { describe, expect, it } from 'vitest';
import type { RankReport, RankRow } from '#core/compare/ranking/request';
import { besideOf, runnerUp } from './beside';
import { keyOf, rankTraces } from './chart';
import { rankCsv } from './csv';
import { foldPorts } from './fold';
import { namesOf } from './names';

const parts = {
  host: [{ id: 'h', name: 'Desk', ports: [{ id: 'p', label: 'front' }] }],
  cable: [{ id: 'c', name: 'Short' }],
  enclosure: [
    { id: 'e', name: '=Case' },
    { id: 'f', name: 'Other "case"' }
  ],
  drive: [{ id: 'd', name: 'Drive', capacityTB: 2 }],
  pad: []
};
const names = namesOf(parts, '/c/x', 'j');
const row = (enclosureId: string, change: Partial<RankRow> = {}): RankRow => ({
  hostId: 'h',
  portId: 'p',
  cableId: 'c',
  enclosureId,
  driveId: 'd',
  verdict: 'limited',
  sustainedWrite: { low: 900, typical: 1000, high: 1070 },
  read: { low: 900, typical: 1000, high: 1070 },
  seconds: 100,
  cost: 120.5,
  perTB: 60.25,
  frontier: false,
  score: -0.5,
  shares: {},
  spend: null,
  toBuy: [],
  ...change
});
const report = (rows: RankRow[], change: Partial<RankReport> = {}): RankReport => ({
  considered: 2,
  accepted: 2,
  filtered: 0,
  rows,
  frontier: [],
  frontierPerTB: [],
  rejected: [],
  alternatives: [],
  houseRules: [],
  best: {},
  weights: {},
  currency: 'EUR',
  ...change
});

describe('names in a ranking', () => {
  it('say the chain, what is gone, and the address of Pair', () => {
    expect(names.lineOf(row('e'))).toBe('=Case · Drive on Desk, front with Short');
    expect(names.nameOf('?')).toBe('gone');
    expect(names.hrefOf(row('e'))).toMatch(/^\/c\/x\/pair\?.*job/);
    expect(names.capacityOf('d')).toBe(2);
  });
});

describe('the rows as a file', () => {
  it('have headings that people know with their units, guarded cells and quotes that end', () => {
    const [head, first, second] = rankCsv(report([row('e'), row('f', { cost: null })]), names).split('\r\n');
    expect(head).toContain('"Write after the cache (MB/s)"');
    expect(head).toContain('"Price (EUR)"');
    expect(first).toBe(
      '"1","Desk","front","Short","\'=Case","Drive","Works, limited","1000.0","1000.0","100.0","120.50","60.25","","-0.5000"'
    );
    expect(second).toContain('"Other ""case"""');
  });
});

describe('what a row is held against', () => {
  const rows = [row('e'), row('f', { score: -0.7 })];
  const folded = foldPorts(rows, true);
  const way = {
    id: 'w',
    name: 'Ready',
    sort: 'portable',
    gainedTB: 1,
    cost: 90,
    perTB: 90,
    write: 500,
    read: 500,
    seconds: 200,
    fits: true
  };
  it('is the next one below the first, and the first for all others', () => {
    expect(runnerUp(folded, rows[0]!)).toBe(rows[1]);
    expect(runnerUp(folded, rows[1]!)).toBe(rows[0]);
    expect(runnerUp(foldPorts([rows[0]!], true), rows[0]!)).toBeUndefined();
  });
  it('is something ready-made where a house rule of the crate says so', () => {
    const all = report(rows, { alternatives: [way] });
    const of = (own: boolean) => besideOf(all, folded, rows[0]!, { names, rule: { choice: 'ready-made', own } });
    expect(of(false).first).toBe(keyOf(rows[1]!));
    expect(of(true).first).toBe('w');
    expect(of(true).ways.map(({ key }) => key)).toEqual([keyOf(rows[1]!), 'w']);
  });
});

describe('names in the chart', () => {
  const way = (i: number, perTB: number, write: number) => ({
    id: `w${i}`,
    name: `Way ${i}`,
    sort: 'drive',
    gainedTB: 1,
    write,
    read: write,
    seconds: 10,
    cost: perTB,
    perTB,
    fits: true
  });
  const namesIn = (ways: ReturnType<typeof way>[]) =>
    rankTraces([], [], ways, names.lineOf, names.capacityOf, 'EUR')
      .flatMap((trace) => ('text' in trace && trace.name?.startsWith('ready-made') ? (trace.text as string[]) : []))
      .map((text) => text.trim());

  it('are those of all, where they are few', () => {
    expect(namesIn([way(1, 50, 100), way(2, 40, 200)])).toEqual(['Way 1', 'Way 2']);
  });
  it('are those that no other one beats, where they are many, and all can be pointed at', () => {
    // Way 0 is the cheapest, and each tenth one is faster than all before it; the others are dearer and slower than one of these.
    const ways = Array.from({ length: 60 }, (_, i) => way(i, 10 + i, i % 10 === 0 ? 100 + i : 50));
    expect(namesIn(ways).filter(Boolean)).toEqual(['Way 0', 'Way 10', 'Way 20', 'Way 30', 'Way 40', 'Way 50']);
    const [trace] = rankTraces([], [], ways, names.lineOf, names.capacityOf, 'EUR');
    expect((trace as { hovertext: string[] }).hovertext).toHaveLength(60);
  });
});
