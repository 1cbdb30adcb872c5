import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { render } from 'svelte/server';
import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput, aPort } from '../../../tests/parts';
import { libraryOf } from '#core/build/assemble';
import { HOUSE_RULES } from '#core/house-rules/house-rules';
import { plan } from '#core/plan/plan';
import { rank } from '#core/compare/ranking/rank';
import type { RankRow } from '#core/compare/ranking/request';
import { differences } from '#core/compare/swaps/difference';
import { whatIf } from '#core/compare/swaps/what-if';
import { KEY_GROUPS } from './frame/key-list';
import Decided from './pair/Decided.svelte';
import Findings from './pair/Findings.svelte';
import { measuredByPort } from './pair/measured';
import Reasons from './pair/Reasons.svelte';
import SinceStart from './pair/SinceStart.svelte';
import WhatIfPanel from './pair/WhatIfPanel.svelte';
import { sortedRows } from './pair/what-if-rows';
import { chartSummary, keyOf, rankTraces } from './rank/chart';
import { foldPorts } from './rank/fold';
import Rejected from './rank/Rejected.svelte';
import Table from './rank/Table.svelte';
import { heldAgainst, stateFromQuery, stateToQuery, type RankState } from './rank/state';
import { seatsFromText, seatsOf, seatsToText, taskOf } from './together/state';

const id = (n: number) => String(n).padStart(26, '0');
const HOSTILE = '<img src=x onerror=alert(1)>';
const SLOW = { ...aCable({ name: 'Slow C-C', modes: ['usb-10g'], active: true }), id: id(1) };
const FAST = { ...aCable({ name: HOSTILE }), id: id(2) };
const CASE = { ...anEnclosure(), id: id(3) };
const DRIVE = { ...aDrive(), id: id(4) };
const HOST = { ...aHost({}, { ports: [aPort(), aPort({ id: 'q', label: 'second' })] }), id: id(5) };
const CHOICE = { hostId: HOST.id, portId: 'p', cableId: SLOW.id, enclosureId: CASE.id, driveId: DRIVE.id };
const library = libraryOf(
  [SLOW, FAST, CASE, DRIVE, HOST],
  [],
  {},
  new Map([[FAST.id, { owned: 1, free: 1, builds: [] }]])
);
const around = whatIf(library, CHOICE)!;
const nothing = () => {};
const textOf = (body: string) => body.replace(/<[^>]*>/g, ' ').replace(/[\s\u202f]+/g, ' ');

describe('what stands around a choice', () => {
  it('offers stand under their finding, with a button that names the part, and never as markup', () => {
    const findings = plan(anInput({ cable: SLOW })).findings;
    const { body } = render(Findings, { props: { findings, offers: around.offers, onswap: nothing } });
    expect(body).not.toContain(HOSTILE);
    expect(textOf(body)).toMatch(/which is in your crate: write 1000 → about 3400 MB\/s\. Use it/);
    expect(textOf(body)).toContain('what to do');
    // the same finding elsewhere has nobody to put a part in
    expect(render(Findings, { props: { findings, offers: around.offers } }).body).not.toContain('Use it');
  });
  it('every other part is a row with what it would do and what it costs', () => {
    const props = {
      around,
      place: 'cable' as const,
      hasJob: false,
      measured: new Map(),
      onplace: nothing,
      onswap: nothing,
      onchoose: nothing
    };
    const text = textOf(render(WhatIfPanel, { props }).body);
    expect(text).toMatch(/at hand .*Works .*USB4 40 Gb\/s .*3400 .*3400 .*1500 .*nothing .*nothing .*Use it/);
  });
  it('a measured result stands at its own port, the newest, and only for this drive in this enclosure', () => {
    const run = {
      hostId: HOST.id,
      portId: 'p',
      enclosureId: CASE.id,
      driveId: DRIVE.id,
      date: '2026-05-01',
      simulated: true
    };
    const found = measuredByPort(
      [
        { ...run, writeMBps: 900 },
        { ...run, writeMBps: 800 },
        { ...run, portId: 'q', driveId: id(99), writeMBps: 1 }
      ],
      CHOICE
    );
    expect([...found]).toEqual([[`${HOST.id}~p`, { date: '2026-05-01', simulated: true, writeMBps: 900 }]]);
  });
  it('rows sort by a column, what has no value last either way', () => {
    const rows = [
      { ...around.swaps.cable[0]!, name: 'b', seconds: null },
      { ...around.swaps.cable[0]!, name: 'a', seconds: 5 },
      { ...around.swaps.cable[0]!, name: 'c', seconds: 9 }
    ];
    expect(sortedRows(rows, 'seconds', false).map((r) => r.name)).toEqual(['a', 'c', 'b']);
    expect(sortedRows(rows, 'seconds', true).map((r) => r.name)).toEqual(['c', 'a', 'b']);
    expect(sortedRows(rows, 'name', true).map((r) => r.name)).toEqual(['c', 'b', 'a']);
  });
});

describe('against the starting point', () => {
  const before = plan(anInput({ cable: SLOW }));
  const after = plan(anInput({ cable: aCable() }));
  const changes = differences(before, after);
  it('says figure by figure what changes, in words for those who see no colour', () => {
    const text = textOf(render(Reasons, { props: { report: after, selected: 'throughput.write', changes } }).body);
    expect(text).toMatch(/▲ 2400 \(\+240 %\) , better/);
    expect(text).toContain('new');
  });
  it('the line above says what was swapped, what it gains and what it costs', () => {
    const props = {
      swapped: [{ label: 'cable', from: 'Slow C-C', to: 'Fast' }],
      changes,
      currency: 'EUR',
      perGain: { of: 'write' as const, amount: 24.9 / 2400, currency: 'EUR' },
      toPay: { amount: 24.9, currency: 'EUR' },
      onback: nothing,
      onstart: nothing
    };
    const text = textOf(render(SinceStart, { props }).body);
    expect(text).toContain('cable: Slow C-C → Fast');
    expect(text).toContain('+2400 MB/s');
    expect(text).toContain('to pay 24.90 EUR');
    // 24.90 / 2400 = 0.0104
    expect(text).toMatch(/0\.01 EUR per MB\/s of write gained/);
    const free = textOf(
      render(SinceStart, { props: { ...props, toPay: { amount: 0, currency: 'EUR' }, perGain: null } }).body
    );
    expect(free).toContain('nothing to pay');
  });
});

describe('house rules that decided', () => {
  it('are named with their side and effect, and lead to where they are chosen; unknown ones are left out', () => {
    const rules = [
      { school: 'scheme', choice: 'mbr', own: true, effect: 'MBR partitions' },
      { school: 'nonsense', choice: 'x', own: true, effect: 'y' }
    ];
    const { body } = render(Decided, { props: { rules, href: '/rules' } });
    expect(textOf(body)).toContain(`One house rule decided something here: ${HOUSE_RULES.scheme.name}`);
    expect(body).toContain('href="/rules#scheme"');
    expect(render(Decided, { props: { rules: rules.slice(1) } }).body).not.toContain('house rule');
  });
});

describe('the page of a ranking', () => {
  const quotes = [CASE, DRIVE, SLOW, FAST].map((part, i) => ({
    partId: part.id,
    vendor: 'V',
    date: '2026-05-01',
    currency: 'EUR',
    list: 10 * (i + 1)
  }));
  const report = rank({
    hosts: [HOST],
    cables: [SLOW, FAST],
    enclosures: [CASE],
    drives: [DRIVE, { ...aDrive({ name: 'Too long', m2LengthMm: 110 }), id: id(6) }],
    job: { name: 'j', purposes: [], transferGB: 10, direction: 'in' },
    quotes,
    stock: { [DRIVE.id]: 1 }
  });
  const chainOf = () => ['host, port', 'cable', 'case', HOSTILE];
  it('ports that come to the same fold into one row, under the first of their ranks', () => {
    expect(report.rows).toHaveLength(4);
    const folded = foldPorts(report.rows, true);
    expect(folded.map(({ rank: n, alike }) => [n, alike.length])).toEqual([
      [1, 1],
      [2, 1]
    ]);
    expect(foldPorts(report.rows, false)).toHaveLength(4);
  });
  it('a row says why it stands there, opens in Pair, and shows names as text', () => {
    const props = {
      rows: foldPorts(report.rows, true),
      chainOf,
      nameOf: () => HOSTILE,
      hrefOf: () => '/pair?x',
      currency: 'EUR',
      selected: undefined,
      onselect: nothing
    };
    const { body } = render(Table, { props });
    expect(body).not.toContain(HOSTILE);
    expect(body).toContain('href="/pair?x"');
    expect(textOf(body)).toMatch(/and 1 more port/);
    expect(textOf(body)).toMatch(/write 100 %/);
  });
  it('rejected ones are counted by their first failing rule, with the reason and examples to open', () => {
    const { body } = render(Rejected, {
      props: { rejected: report.rejected, considered: report.considered, chainOf, hrefOf: () => '/pair?y' }
    });
    expect(textOf(body)).toMatch(/4 M\.2 length unsupported 50 % of all/);
    expect(body).toContain('href="/pair?y"');
    expect(body).not.toContain(HOSTILE);
  });
  it('the chart holds rows at hand and to buy, the frontier and what is ready-made', () => {
    const row = (perTB: number | null, toBuy: string[]): RankRow => ({ ...report.rows[0]!, perTB, toBuy });
    const ways = [
      {
        id: 'a',
        name: 'Portable',
        sort: 'portable',
        gainedTB: 2,
        cost: 100,
        perTB: 50,
        write: 900,
        read: 900,
        seconds: 1,
        fits: true
      },
      {
        id: 'b',
        name: 'No price',
        sort: 'other',
        gainedTB: 1,
        cost: null,
        perTB: null,
        write: 10,
        read: null,
        seconds: null,
        fits: false
      }
    ];
    const traces = rankTraces(
      [row(10, []), row(20, ['x']), row(null, [])],
      report.frontierPerTB,
      ways,
      () => 'n',
      () => 1,
      'EUR'
    ) as { name: string; x: number[]; customdata?: string[] }[];
    expect(traces.map(({ name, x }) => [name, x.length])).toEqual([
      ['best for the money: cheapest for its speed', report.frontierPerTB.length],
      ['at hand', 1],
      ['something to buy', 1],
      ['ready-made, as stated', 1]
    ]);
    expect(traces[1]!.customdata).toEqual([keyOf(report.rows[0]!)]);
    // charts read tags in their texts: a name must stay a name
    const named = rankTraces(
      [row(10, [])],
      [],
      ways.map((way) => ({ ...way, name: '<a href="http://x">&' })),
      () => HOSTILE,
      () => 1,
      'EUR'
    );
    expect(JSON.stringify(named)).not.toMatch(/<(img|a) /);
    expect(JSON.stringify(named)).toContain('&lt;a href=\\"http://x\\">&amp;');
    expect(chartSummary(report.frontierPerTB, () => 'this one', 'EUR')).toContain('from the cheapest (this one');
    expect(chartSummary([], () => '', 'EUR')).toContain('price');
  });
  it('is held against what the house rule says, among those with a price', () => {
    const ways = [
      { sort: 'portable', cost: 1 },
      { sort: 'internal-upgrade', cost: null },
      { sort: 'other', cost: 2 }
    ];
    expect(heldAgainst(ways, 'bare')).toBe(ways[0]);
    expect(heldAgainst(ways, 'take-out')).toBe(ways[2]);
    expect(heldAgainst([{ sort: 'memory-card', cost: 3 }], 'bare')).toMatchObject({ cost: 3 });
    expect(heldAgainst([], 'nonsense')).toBeUndefined();
  });
});

describe('an address holds the state', () => {
  it('of a ranking, there and back', () => {
    const state: RankState = {
      jobId: id(7),
      hostIds: [id(1), id(2)],
      weights: { sustainedWrite: 0.5, cost: 3 },
      filters: { verdicts: ['works'], ownedOnly: true, maxSpend: 99.5, minCapacityTB: 2 },
      takeApart: true
    };
    expect(stateFromQuery(new URLSearchParams(stateToQuery(state)))).toEqual(state);
    const bare: RankState = { weights: {}, filters: {}, takeApart: false };
    expect(stateToQuery(bare)).toBe('');
  });
  it('and nonsense in it is left out', () => {
    const query = new URLSearchParams(
      `job=<script>&hosts=x.${id(1)}&weights=cost_-1~constructor_2~read_x&max-pay=&min-tb=-3&max-cost=1e99&verdicts=fails.works&owned=maybe`
    );
    expect(stateFromQuery(query)).toEqual({
      hostIds: [id(1)],
      weights: {},
      filters: { verdicts: ['works'] },
      takeApart: false
    });
  });
  it('of builds that work at once, there and back', () => {
    const builds = [
      { tag: 'AC-0001', name: 'a', choice: CHOICE },
      { tag: 'AC-0002', name: 'b', choice: CHOICE },
      { tag: 'AC-0003', name: 'c', choice: { ...CHOICE, hostId: id(99) } }
    ];
    const seats = [
      { tag: 'AC-0001', portId: 'usb.c-1', does: 'copy:AC-0002' as const },
      { tag: 'AC-0002', portId: 'q', does: 'idle' as const }
    ];
    expect(seatsFromText(seatsToText(seats), builds)).toEqual(seats);
    expect(seatsFromText('AC-0001/p/fly~XX/p/write~AC-0002//write', builds)).toEqual([]);
    expect(taskOf(seats[0]!, seats)).toEqual({ copyTo: 1 });
    expect(taskOf({ ...seats[0]!, does: 'copy:gone' }, seats)).toBe('idle');
    // two builds of one port: the second goes to the next free one
    expect(seatsOf(HOST.id, ['p', 'q'], builds).map((s) => [s.tag, s.portId])).toEqual([
      ['AC-0001', 'p'],
      ['AC-0002', 'q']
    ]);
    expect(seatsOf(HOST.id, ['p'], builds)).toHaveLength(1);
  });
});

describe('the page of keys', () => {
  const root = fileURLToPath(new URL('../..', import.meta.url));
  const files = (folder: string): string[] =>
    readdirSync(join(root, folder), { withFileTypes: true }).flatMap((entry) =>
      entry.isDirectory()
        ? files(join(folder, entry.name))
        : entry.name.endsWith('.svelte')
          ? [join(folder, entry.name)]
          : []
    );
  it('lists every key that a page adds, and no other single key', () => {
    const added = new Set(
      ['routes', 'lib/ui'].flatMap(files).flatMap((file) => {
        const text = readFileSync(join(root, file), 'utf8');
        return [...text.matchAll(/keys: '([^']+)', label|station\('\w+', '([^']+)'/g)].map((m) => m[1] ?? m[2]!);
      })
    );
    expect(added.size).toBeGreaterThan(12);
    const listed = new Set(KEY_GROUPS.flatMap(({ keys }) => keys.map(([key]) => (key === 'Space' ? ' ' : key))));
    const elsewhere = ['Ctrl K', '?', 'Esc', '↑ ↓'];
    expect([...added].filter((key) => !listed.has(key))).toEqual([]);
    expect([...listed].filter((key) => !added.has(key) && !elsewhere.includes(key))).toEqual([]);
  });
});
