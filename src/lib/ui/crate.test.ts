import { render } from 'svelte/server';
import { describe, expect, it } from 'vitest';
import { formFields } from '#core/parts/form/form-fields';
import { MODEL_SCHEMAS } from '#core/parts/model';
import { quoteSchema } from '#core/parts/quote';
import { readSpecification } from '#core/box-text/read';
import { KINDS } from '#core/parts/kinds';
import { matchColumns } from '#core/tables/headings';
import { fileColumns, fileFields } from '#core/tables/kinds-of-table';
import { phrasesOf, takeApart } from '#core/tables/phrases';
import { readRow } from '#core/tables/table';
import { DEMO_MODELS } from '../server/demo/parts';
import FilePicker from './common/FilePicker.svelte';
import Files from './common/Files.svelte';
import HistoryTable from './common/HistoryTable.svelte';
import Pages from './common/Pages.svelte';
import RecordForm from './common/RecordForm.svelte';
import TaskProgress from './common/TaskProgress.svelte';
import { tableColumns } from './parts/columns';
import Preview from './tables/Preview.svelte';
import Pairs from './parts/tabs/KnownCombinations.svelte';
import Quotes from './parts/tabs/Prices.svelte';
import ReadingView from './parts/ReadingView.svelte';
import UnitTable from './items/ItemTable.svelte';
import When from './common/When.svelte';

/** What a person reads: the text without its markup. */
const textOf = (body: string) =>
  body
    .replace(/<[^>]*>/g, '')
    .replace(/&lt;/g, '<')
    .replace(/&amp;/g, '&')
    .replace(/&ensp;/g, ' ')
    .replace(/[\s\u00a0\u2002\u202f]+/g, ' ')
    .trim();
const HOSTILE = '<img src=x onerror=alert(1)>';
const nothing = () => Promise.resolve(undefined);
const today = '2026-11-24';

describe('quotes of a part', () => {
  const quote = {
    partId: '0'.repeat(26),
    vendor: HOSTILE,
    date: '2026-10-20',
    currency: 'EUR',
    list: 100,
    discountPercent: 10,
    shipping: 5,
    taxPercent: 20
  };
  const page = (more: object = {}, target?: { amount: number; currency: string }) =>
    render(Quotes, {
      props: {
        crate: { id: 'c', currency: 'EUR' },
        part: { id: 'p', version: 1, target },
        quotes: [{ id: 'q', version: 1, quote: { ...quote, ...more } }],
        today,
        onchange: nothing
      }
    }).body;

  it('show what each comes to at the door, and how old it is', () => {
    const text = textOf(page());
    // (100 - 10 %) + 5 = 95, and 20 % on it: 114; 20 October to 24 November are 11 + 24 = 35 days
    expect(text).toContain('114.00 EUR');
    expect(text).toContain('35 days');
  });
  it('say which have run out', () => {
    expect(textOf(page({ expires: '2026-11-23' }))).toContain('23 Nov 2026, run out');
    expect(textOf(page({ expires: '2026-11-24' }))).not.toContain('run out');
  });
  it('say how far the target is: reached, above, and not by an offer that has run out', () => {
    expect(textOf(page({}, { amount: 114, currency: 'EUR' }))).toContain('reached, 114.00 EUR is offered');
    expect(textOf(page({}, { amount: 100, currency: 'EUR' }))).toContain('14.00 EUR above it');
    expect(textOf(page({ expires: '2026-11-01' }, { amount: 200, currency: 'EUR' }))).not.toContain('reached');
    expect(textOf(page({}, { amount: 200, currency: 'USD' }))).not.toContain('reached');
  });
  it('a vendor is text, never markup', () => {
    expect(page()).not.toContain('<img');
  });
});

describe('known combinations', () => {
  const pair = { driveId: 'd', drive: 'Chert', bridge: 'T40', verdict: 'bad' as const, reason: HOSTILE };
  const page = (at: { drive: string } | { bridge: string }, pairs = [{ id: 'k', version: 1, pair }]) =>
    render(Pairs, {
      props: { crateId: 'c', drives: [{ id: 'd', name: 'Chert' }], pairs, today, onchange: nothing, ...at }
    }).body;
  it('ask for the bridge at a drive, for the drive at an enclosure', () => {
    expect(textOf(page({ drive: 'd' }))).toMatch(/^Bridge chip or board/);
    expect(textOf(page({ bridge: 'T40' }))).toMatch(/^Drive/);
  });
  it('say the verdict in words, and what each button does', () => {
    const body = page({ drive: 'd' });
    expect(textOf(body)).toContain('Chert × T40: gives trouble');
    expect(body).toContain('aria-label="Delete Chert with T40"');
    expect(body).not.toContain('<img');
  });
  it('empty, say what they are for', () => {
    expect(textOf(page({ drive: 'd' }, []))).toContain('A bad pair makes every plan with it a check.');
  });
});

describe('files', () => {
  it('are listed with their size and day, each to be taken away by name', () => {
    const files = [{ id: 'f', version: 1, name: HOSTILE, size: 12_345, addedAt: '2026-11-01T10:00:00.000Z' }];
    const props = { crateId: 'c', subject: { table: 'models' as const, id: 'm' }, files, onchange: nothing };
    const { body } = render(Files, { props });
    expect(textOf(body)).toContain('12.3 kB, 1 Nov 2026');
    expect(body).not.toContain('<img');
    expect(textOf(render(Files, { props: { ...props, files: [] } }).body)).toContain('No file yet');
  });
});

describe('a form of a small record', () => {
  const fields = formFields(quoteSchema.omit({ partId: true }));
  const form = (value: Record<string, unknown>, more: object = {}) =>
    render(RecordForm, {
      props: { draftKey: 'draft:test', fields, value, busy: false, saveLabel: 'Save it', onsave: nothing, ...more }
    }).body;
  it('stands with what is known, and asks for days as such', () => {
    const body = form({ currency: 'EUR', date: today });
    expect(body).toContain('value="24 Nov 2026"');
    expect(body.match(/bx--date-picker__input/g)).toHaveLength(2);
    expect(textOf(body)).toContain('Discount, % (optional)');
  });
  it('says nothing is wrong before anything was typed', () => {
    expect(textOf(form({}))).not.toContain('This is needed.');
  });
  it('says at once what was wrong from the start', () => {
    expect(textOf(form({ list: 'much' }))).toContain('does not begin with a number');
  });
  it('hints at what it comes to only when it can be read', () => {
    const hint = (record: Record<string, unknown>) => `comes to ${String(record.list)}`;
    expect(textOf(form({ vendor: 'v', date: today, currency: 'EUR', list: 5 }, { hint }))).toContain('comes to 5');
    expect(textOf(form({ vendor: 'v', list: 5 }, { hint }))).not.toContain('comes to');
  });
  it('offers to cancel only where there is something to go back to', () => {
    expect(textOf(form({}))).not.toContain('Cancel');
    expect(textOf(form({}, { oncancel: () => {} }))).toContain('Cancel');
  });
});

describe('units', () => {
  const row = {
    id: 'u',
    version: 1,
    unit: { tag: 'A/1?#%', state: 'owned' as const, custodian: HOSTILE, dueBack: '2026-11-23' },
    model: { id: 'm', name: 'Chert', kind: 'drive' },
    build: { tag: 'AC-0001', name: 'Backup' }
  };
  const table = (more: object = {}) => render(UnitTable, { props: { rows: [row], home: '/c/x', today, ...more } }).body;
  it('link by their tag, whatever signs it has', () => {
    expect(table()).toContain('href="/c/x/u/A%2F1%3F%23%25"');
  });
  it('say who is late', () => {
    expect(textOf(table())).toContain('23 Nov 2026, late');
    expect(textOf(table({ today: '2026-11-23' }))).not.toContain('late');
    expect(table()).not.toContain('<img');
  });
  it('can be chosen only where something can be done with them', () => {
    expect(table()).not.toContain('type="checkbox"');
    expect(table({ picked: new Map(), onpick: () => {} })).toContain('aria-label="Choose A/1?#%"');
  });
});

describe('the preview of an import', () => {
  const preview = {
    headings: ['Name', 'colour'],
    mapping: ['name', null],
    missing: ['capacityTB'],
    columns: [
      { path: 'name', title: 'Name', required: true },
      { path: 'capacityTB', title: 'Capacity, TB', required: true }
    ],
    counts: { new: 1, changed: 0, same: 2, wrong: 1 },
    rows: [
      {
        row: 1,
        outcome: 'wrong' as const,
        name: HOSTILE,
        cells: { name: HOSTILE, capacityTB: '-1' },
        errors: { capacityTB: 'It is less than nothing.', '': 'This is the same thing as row 9.' }
      }
    ]
  };
  const mended = [{ row: 1, path: 'capacityTB', cell: '-1' }];
  const { body } = render(Preview, { props: { preview, mended, onassign: () => {}, onmend: () => {} } });
  it('says what is left out and what is needed, in the words of the form', () => {
    expect(textOf(body)).toContain('1 is left out');
    expect(textOf(body)).toContain('Needed and not in the file: Capacity, TB.');
  });
  it('stands each error beside its cell, and counts', () => {
    expect(textOf(body)).toContain('1 new, 0 changed, 2 there already, 1 wrong.');
    expect(textOf(body)).toContain('It is less than nothing.');
    expect(textOf(body)).toContain('This is the same thing as row 9.');
    expect(body).not.toContain('<img');
  });
  it('lets a wrong cell be put right where it stands, and the name of a row that is there twice', () => {
    expect(body).toMatch(/value="-1"/);
    expect(textOf(body)).toContain('Capacity, TB, row 1');
    expect(textOf(body)).toContain('Name, row 1');
  });
});

describe('the tables of the crate', () => {
  // computed from several fields, or from lists: there is nothing that a cell of them could be read into
  const COMPUTED = ['Best port', 'Ports', 'Cooling'];
  it.each(KINDS)('%s: every heading of the page is known to the import', (kind) => {
    const titles = tableColumns(kind).map(({ title }) => title);
    const found = matchColumns(titles, fileColumns('models', kind));
    const unknown = titles.filter((title, i) => found[i] === null && !COMPUTED.includes(title));
    expect(unknown).toEqual([]);
  });
  it.each([...DEMO_MODELS])('$name goes from the page into a file and is read as it was', (spec) => {
    const shown = tableColumns(spec.kind).filter(({ title }) => !COMPUTED.includes(title));
    const paths = matchColumns(
      shown.map(({ title }) => title),
      fileColumns('models', spec.kind)
    );
    const cells = Object.fromEntries(shown.map((column, i) => [paths[i], column.cell(spec).text]));
    const { cells: apart, errors } = takeApart(phrasesOf('models', spec.kind), cells);
    const read = readRow(fileFields('models', spec.kind), apart);
    // ports, thickness of a pad and the like are no column of every page: what is wrong may only be missing
    const wrong = Object.values({ ...read.errors, ...errors }).filter((said) => said !== 'This cell is needed.');
    expect(wrong.filter((said) => !said.startsWith('At least one'))).toEqual([]);
  });
});

describe('what was read from a text', () => {
  const text = `Andiron ${HOSTILE}\nM.2 NVMe enclosure, USB-C, up to 40GB/s, USB4\nfor 2280, 180 g`;
  const props = {
    reading: readSpecification(text, 'enclosure'),
    text,
    fields: formFields(MODEL_SCHEMAS.enclosure),
    answers: {},
    dropped: new Set(['massG']),
    onanswer: () => {},
    ondrop: () => {}
  };
  const { body } = render(ReadingView, { props });
  it('stands with its words, its unit and how sure it is', () => {
    expect(textOf(body)).toMatch(/Weight.*180 g.*“180 g”.*stated/);
    expect(textOf(body)).toMatch(/M\.2 lengths.*80 mm.*“2280”/);
  });
  it('is asked where it is open, and nothing is chosen beforehand', () => {
    expect(textOf(body)).toContain('40GB/s would be bytes');
    expect(textOf(body)).toContain('leave it open');
    expect(body).not.toContain('<img');
  });
});

describe('long tables and long work', () => {
  it.each([
    [95, 1, 40, /1 to 40 of 95/],
    [95, 3, 40, /81 to 95 of 95/]
  ])('%i rows, page %i of %i', (total, page, size, words) => {
    expect(textOf(render(Pages, { props: { total, page, size, href: (n) => `?page=${n}` } }).body)).toMatch(words);
  });
  it('work that runs can be stopped, work that has ended cannot', () => {
    const task = { title: 'Import', state: 'running', done: 250, total: 1000, step: 'Writing 250 of 1000' };
    const show = (state: string) =>
      render(TaskProgress, { props: { task: { ...task, state }, oncancel: () => {} } }).body;
    expect(textOf(show('running'))).toContain('Writing 250 of 1000');
    expect(textOf(show('running'))).toContain('Cancel');
    expect(textOf(show('done'))).not.toContain('Cancel');
  });
  it('the history offers to take back what can be, and says what was', () => {
    const event = { seq: 1, at: '2026-11-24T08:05:00.000Z', by: 'ada', kind: 'edited', undone: false };
    const list = [
      { ...event, message: 'Edited Chert.', group: 'g' },
      { ...event, seq: 2, message: 'Lent D-1.', undone: true }
    ];
    const { body } = render(HistoryTable, { props: { list, onundo: () => {} } });
    expect(body).toContain('aria-label="Undo: Edited Chert."');
    expect(body).not.toContain('aria-label="Undo: Lent D-1."');
    expect(textOf(body)).toContain('24 Nov 2026 08:05');
    expect(textOf(body)).toContain('Lent D-1. undone');
    expect(textOf(render(HistoryTable, { props: { list: [] } }).body)).toBe('Nothing has happened yet.');
  });
});

describe('small parts of many pages', () => {
  it('a moment is UTC and says so where the clock of the reader is not known', () => {
    const { body } = render(When, { props: { at: '2026-11-24T23:05:30.000Z' } });
    expect(textOf(body)).toBe('24 Nov 2026 23:05 UTC');
    expect(body).toContain('datetime="2026-11-24T23:05:30.000Z"');
  });
  it('a file is picked by a button, and its input has the same name', () => {
    const { body } = render(FilePicker, { props: { label: HOSTILE, accept: ['.csv', '.json'], onpick: nothing } });
    expect(textOf(body)).toContain(HOSTILE);
    expect(body).not.toContain('<img');
    expect(body).toContain('accept=".csv,.json"');
    expect(body).toContain('aria-label="&lt;img src=x onerror=alert(1)>"');
    expect(render(FilePicker, { props: { label: 'x', disabled: true, onpick: nothing } }).body).toMatch(
      /<input[^>]*\bdisabled/
    );
  });
});
