import { render } from 'svelte/server';
import { describe, expect, it } from 'vitest';
import { answersOf } from '#core/answers/answers';
import { plan } from '#core/plan/plan';
import { sentenceOf } from '#core/findings/words';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../../tests/parts';
import BandBar from './common/BandBar.svelte';
import Explained from './common/Explained.svelte';
import BuildLane from './common/BuildLane.svelte';
import Lane from './common/Lane.svelte';
import Verdict from './common/Verdict.svelte';
import Rail from './frame/Rail.svelte';
import { tableColumns } from './parts/columns';
import { GLOSSARY, splitTerms } from '#core/facts/glossary';
import { formFields } from '#core/parts/form/form-fields';
import { MODEL_SCHEMAS } from '#core/parts/model';
import { PORT_PRESETS, portDraft } from '#core/parts/form/port-presets';
import { editablePaths, choicesOf } from './parts/choices';
import { age, priceTraces } from './prices/history';
import { tagIn } from './items/scanned';
import { refusedFields } from './parts/refused';
import Findings from './pair/Findings.svelte';
import Reasons from './pair/Reasons.svelte';
import Ticket from './pair/Ticket.svelte';

const input = anInput({ cable: aCable({ modes: ['usb-10g'], active: true }) });
const report = plan(input);
const lane = { stages: report.link.stages, bottleneck: report.link.bottleneck, predicted: report.throughput.write };

describe('the lane', () => {
  it('says the whole chain to a screen reader, and names the slowest link in words', () => {
    const { body } = render(Lane, { props: lane });
    expect(body).toContain(
      'port 3000, cable 1000, bridge 3400, slot 6890, drive 6650 megabytes per second; narrowest at the cable.'
    );
    expect(body).toMatch(/cable.*, slowest link/s);
  });
  it('draws the measured line only where something was measured', () => {
    expect(render(Lane, { props: lane }).body).not.toContain('class="measured');
    const { body } = render(Lane, { props: { ...lane, measured: 950, measuredLabel: 'simulated' } });
    expect(body).toContain('simulated 950');
  });
  it('small, it is hidden from screen readers, for its text stands beside it', () => {
    const { body } = render(BuildLane, { props: { build: { ...report.link, write: report.throughput.write } } });
    expect(body).toContain('aria-hidden="true"');
    expect(body).not.toContain('role="img"');
  });
  it('a chain that does not work is drawn broken', () => {
    expect(render(BuildLane, { props: { build: { stages: [], bottleneck: null, write: null } } }).body).toContain(
      'M0 28H50'
    );
  });
  it('a drive beyond the scale is drawn cut off, and says so', () => {
    const fast = plan(
      anInput({ drive: aDrive({ readMBps: 14_000, writeMBps: 12_000, pcie: { generation: 5, lanes: 4 } }) })
    );
    expect(
      render(Lane, { props: { stages: fast.link.stages, bottleneck: fast.link.bottleneck, predicted: null } }).body
    ).toContain('drawn cut off');
  });
  it('a band bar stays inside its box', () => {
    const { body } = render(BandBar, { props: { band: { low: 0, typical: 5000, high: 99_999 } } });
    const [x, width] = [/rect x="([\d.]+)"/.exec(body)![1], /width="([\d.]+)" height="9"/.exec(body)![1]].map(Number);
    expect(x! + width!).toBeLessThanOrEqual(160);
  });
});

describe('verdicts and findings', () => {
  it.each([
    ['works', 'Works'],
    ['limited', 'Works, limited'],
    ['check', 'Check first'],
    ['fails', 'Does not work']
  ] as const)('%s is a word beside its shape', (verdict, word) => {
    const { body } = render(Verdict, { props: { verdict } });
    expect(body).toContain(word);
    expect(body).toContain('<svg');
  });
  it('gives every finding its word, message and remedy; names are text, never markup', () => {
    const { message } = sentenceOf({
      code: 'drive-limits-link',
      severity: 'note',
      about: 'drive',
      drive: 532,
      link: 1000
    });
    const findings = [
      { code: 'a', severity: 'note' as const, message },
      { code: 'b', severity: 'fail' as const, message: '<img src=x onerror=alert(1)>', remedy: '<script>1</script>' }
    ];
    const { body } = render(Findings, { props: { findings } });
    expect(body).toContain('Note');
    expect(body).toContain('Fails');
    expect(body).toContain('&lt;img src=x');
    expect(body).not.toMatch(/<img|<script/);
  });
  it('without findings it says that nothing stands in the way', () => {
    expect(render(Findings, { props: { findings: [] } }).body).toContain('Nothing stands in the way');
  });
});

describe('the ticket', () => {
  const props = {
    tag: 'AC-0001',
    stage: 'planned',
    input,
    report,
    answers: answersOf({ report }),
    next: 'Do it.',
    folded: false,
    onfold: () => {}
  };
  it('sums the build up', () => {
    const { body } = render(Ticket, { props });
    for (const text of [
      'AC-0001',
      'planned',
      'Works, limited',
      'Test C-C',
      'Test 40',
      'Test T4 2TB',
      'USB 10 Gb/s',
      '900 – 1070',
      'ext4, GPT',
      'No price is known',
      'Do it.'
    ])
      expect(body).toContain(text);
  });
  it('folded it is a strip with its tag', () => {
    const { body } = render(Ticket, { props: { ...props, folded: true } });
    expect(body).toContain('AC-0001');
    expect(body).not.toContain('Runs as');
    expect(body).toContain('aria-expanded="false"');
  });
  it('counts what was assumed and lists it', () => {
    const bare = plan(anInput({ drive: { kind: 'drive', name: 'd', media: 'nvme', formFactor: 'm2', capacityTB: 1 } }));
    const { body } = render(Ticket, { props: { ...props, report: bare } });
    expect(body).toContain(`${bare.assumed.length} values`);
    expect(body).toMatch(/drive, M\.2 length: <strong[^>]*>80\u202fmm/);
  });
  it('blank before anything is chosen', () => {
    expect(
      render(Ticket, { props: { ...props, input: null, report: null, tag: undefined, stage: undefined } }).body
    ).toContain('Fills itself as you choose');
  });
});

describe('reasons', () => {
  it('show the working of the chosen figure, and which values were assumed for it', () => {
    const bare = plan(anInput({ drive: { kind: 'drive', name: 'd', media: 'nvme', formFactor: 'm2', capacityTB: 1 } }));
    const { body } = render(Reasons, { props: { report: bare, selected: 'stage.drive' } });
    expect(body).toContain('class rating × 0.5 – 0.95 – 1');
    expect(body).toContain('drive, sequential read, “up to”');
    // a figure that this plan does not have: its first one is shown instead
    expect(render(Reasons, { props: { report: bare, selected: 'nothing' } }).body).toContain(
      'the least over all links'
    );
  });
});

describe('the rail', () => {
  it('says which station is here, which is done, and which is next', () => {
    const stations = [
      { id: 'pair', label: 'Pair', state: 'done' as const },
      { id: 'measure', label: 'Measure', state: 'next' as const }
    ];
    const { body } = render(Rail, { props: { tag: 'AC-0001', name: 'n', stations, here: 'measure' } });
    expect(body).toMatch(/href="\/b\/AC-0001\/measure" aria-current="page"/);
    expect(body).toContain(', done');
    expect(body).toContain('Step 2 of 2: Measure');
  });
});

describe('what a scanner or a person gives', () => {
  it.each([
    ['d-004', 'D-004'],
    ['http://127.0.0.1:4310/c/fernhollow/u/E-001', 'E-001'],
    ['http://127.0.0.1:4310/c/x/u/my%20tag', 'my tag'],
    ['http://elsewhere.example/other', undefined],
    ['http://a/c/x/u/%E0%A4%A', undefined],
    ['my own', 'my own'],
    ['  ', undefined]
  ])('%s', (text, tag) => expect(tagIn(text)).toBe(tag));
});

describe('prices over time', () => {
  const quote = (vendor: string, date: string, list: number) => ({ partId: 'p', vendor, date, currency: 'EUR', list });
  it('are a line a vendor in the order of the days, and the target across them', () => {
    const traces = priceTraces(
      [quote('a', '2026-03-01', 90), quote('b', '2026-02-01', 95), quote('a', '2026-01-01', 100)],
      {
        amount: 80,
        currency: 'EUR'
      }
    ) as { name: string; x: string[]; y: number[] }[];
    expect(traces.map((t) => t.name)).toEqual(['a, EUR', 'b, EUR', 'target, EUR']);
    expect(traces[0]).toMatchObject({ x: ['2026-01-01', '2026-03-01'], y: [100, 90] });
    expect(traces[2]!.x).toEqual(['2026-01-01', '2026-03-01']);
    expect(priceTraces([], { amount: 1, currency: 'EUR' })).toEqual([]);
  });
  it.each([
    ['2026-11-24', 'today'],
    ['2026-11-23', '1 day'],
    ['2026-10-20', '35 days'],
    ['2026-05-24', '6 months'] // 184 days / 30.4
  ])('the age of %s', (date, words) => expect(age(date, '2026-11-24')).toBe(words));
});

describe('fields that many parts can share', () => {
  const fields = formFields(MODEL_SCHEMAS.drive);
  it('are single values by their path; names and lists are not among them', () => {
    const paths = editablePaths(fields).map((e) => e.path);
    expect(paths).toEqual(expect.arrayContaining(['media', 'flash.cell', 'pcie.lanes', 'warrantyYears']));
    expect(paths).not.toEqual(expect.arrayContaining(['name']));
    expect(paths).not.toEqual(expect.arrayContaining(['components']));
  });
  it('offer the choices of their field', () => {
    expect(choicesOf(fields, 'flash.cell').options.map((o) => o.value)).toEqual(['tlc', 'qlc', 'mlc', 'slc']);
    expect(choicesOf(fields, 'nothing').options).toEqual([]);
  });
});

describe('ports as they are printed', () => {
  it('fill plug, modes and power; what was typed stays', () => {
    const preset = PORT_PRESETS.find((p) => p.label === 'Thunderbolt 4 port')!;
    expect(portDraft(preset, 'ports.1', { 'ports.1.label': 'left' })).toEqual({
      'ports.1.id': 'p2',
      'ports.1.plug': 'usb-c',
      'ports.1.modes': ['tbt4-40g'],
      'ports.1.powerW': '15'
    });
  });
});

describe('the glossary', () => {
  const named = (text: string) => splitTerms(text).flatMap(({ text, term }) => (term ? [`${text}: ${term.term}`] : []));
  it.each([
    ['knows a term by its other names', 'USB 3.2 Gen 2x1 with UASP', ['USB 3.2 Gen 2x1: USB 10 Gb/s', 'UASP: UAS']],
    ['takes the longest name', 'a USB 20 Gb/s port', ['USB 20 Gb/s: USB 20 Gb/s']],
    ['finds a term at its first use, in the plural too', 'Bridges and the bridge', ['Bridges: Bridge']],
    ['keeps to whole words', 'abridged, trimmed, multilanes', []],
    ['keeps to the case of short names', 'trim the TRIM', ['TRIM: TRIM']],
    ['leaves everyday words alone', 'a band of rubber, an active person', []],
    ['knows nothing of object parts', 'constructor toString', []],
    ['reads "Key (M.2)" as key', 'the key of the module', ['key: Key (M.2)']]
  ])('%s', (_, text, expected) => {
    expect(named(text)).toEqual(expected);
    expect(
      splitTerms(text)
        .map((piece) => piece.text)
        .join('')
    ).toBe(text);
  });
  it('explains a word in place, its text never markup', () => {
    const { body } = render(Explained, { props: { text: '<b>TRIM</b>' } });
    expect(body).toContain('&lt;b>');
    expect(body).toMatch(/<button[^>]*popovertarget[^>]*>TRIM<\/button>/);
    // what it means is no part of the sentence until it is asked for
    expect(body).not.toContain('Without it the write cache shrinks');
  });
  it('has every term once, in plain sentences', () => {
    expect(new Set(GLOSSARY.map((t) => t.term)).size).toBe(GLOSSARY.length);
    for (const { term, means } of GLOSSARY) expect(means, term).toMatch(/\.$/);
  });
});

describe('tables of parts', () => {
  it.each([
    ['drive', aDrive(), ['Test T4 2TB', 'NVMe, M.2', 'PCIe 4.0 x4', '2\u202fTB', '7000\u202fMB/s', '6000\u202fMB/s']],
    [
      'enclosure',
      anEnclosure(),
      ['Test 40', 'M.2 NVMe', 'USB4 40 Gb/s, Thunderbolt 3, USB 10 Gb/s', 'USB-C', 'passive', '']
    ],
    ['cable', aCable(), ['Test C-C', 'USB-C to USB-C', 'USB4 40 Gb/s', 'passive', '0.8\u202fm']],
    ['host', aHost(), ['Test host', 'Linux 6.1', 'USB4 40 Gb/s', '1', '']]
  ] as const)('%s', (kind, spec, cells) => {
    const plain = tableColumns(kind).filter((column) => column.plain);
    expect(plain.map((column) => column.cell(spec).text)).toEqual(cells);
  });
  it('what the server refused finds its field again', () => {
    expect(refusedFields([{ path: 'spec.flash.cacheGB', message: 'is too small' }], 'spec.')).toEqual({
      'flash.cacheGB': 'Is too small.'
    });
  });
});
