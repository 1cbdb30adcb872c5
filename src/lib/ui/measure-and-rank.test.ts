import { untyped } from '../../../tests/untyped';
import { render } from 'svelte/server';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { formFields } from '#core/parts/form/form-fields';
import { MODEL_SCHEMAS } from '#core/parts/model';
import { USUAL_WEIGHTS } from '#core/compare/ranking/request';
import Stopwatch from './measure/Stopwatch.svelte';
import RecordForm from './common/RecordForm.svelte';
import SortHead from './common/SortHead.svelte';
import TaskProgress from './common/TaskProgress.svelte';
import { plotText } from './common/plot-text';
import { keys, onkeydown } from './frame/keys.svelte';
import KeysHelp from './frame/KeysHelp.svelte';
import PartForm from './parts/PartForm.svelte';
import { jobFields } from './parts/record-fields';
import Against from './rank/Against.svelte';
import Controls from './rank/Controls.svelte';
import { CRITERION_WORD, WEIGHED } from './rank/state';

const HOSTILE = '<img src=x onerror=alert(1)>';
const nothing = () => {};
const textOf = (body: string) =>
  body
    .replace(/<[^>]*>/g, ' ')
    .replace(/&#8239;/g, ' ')
    .replace(/[\s\u202f]+/g, ' ');

describe('what a combination is held against', () => {
  const row = { key: 'a', name: HOSTILE, cost: 300, seconds: 100 };
  const other = { key: 'b', name: 'Portable', cost: 240, seconds: 460 };
  const props = {
    row,
    ways: [other],
    against: 'b',
    perDay: 2,
    currency: 'EUR',
    today: '2026-11-26',
    onagainst: nothing
  };
  const say = (change: Partial<typeof props> = {}) => textOf(render(Against, { props: { ...props, ...change } }).body);

  it('60 EUR more, 6 minutes less twice a day: 73 hours a year, 0.82 EUR each', () => {
    const text = say();
    expect(text).toContain('Costs 60.00 EUR more, and the job takes 6:00 min less each time');
    expect(text).toContain('73 hours a year');
    expect(text).toContain('0.82 EUR for each of them');
  });
  it('the other way round: less money, more time', () => {
    const text = say({ row: { ...other, key: 'a' }, ways: [{ ...row, key: 'b' }] });
    expect(text).toContain('Costs 60.00 EUR less, and the job takes 6:00 min longer each time');
    expect(text).toContain('costs 73 hours a year');
  });
  it('cheaper and faster needs no sum', () => {
    expect(say({ row: { ...row, cost: 200 } })).toContain('the better one from the first day');
  });
  it('a number of times that nobody stated is said to be assumed', () => {
    expect(say({ perDay: undefined })).toContain('1 a day (assumed)');
  });
  it('what is not known is said, and so is that there is nothing to hold it against', () => {
    expect(say({ ways: [{ ...other, cost: untyped<number>(null) }] })).toContain('is not known');
    expect(say({ ways: [] })).toContain('nothing to compare it with');
  });
  it('names are text', () => expect(render(Against, { props }).body).not.toContain(HOSTILE));
});

describe('the questions of a ranking', () => {
  const one = [{ id: '0'.repeat(26), name: HOSTILE }];
  const props = {
    state: { jobId: one[0]!.id, weights: { cost: 3 }, filters: { maxSpend: 99.5 }, takeApart: true },
    jobs: one,
    parts: { host: one, cable: [], enclosure: one, drive: one },
    usual: { host: 'all 1', cable: 'all 0', enclosure: '80 of 3000', drive: 'all 1' },
    begin: USUAL_WEIGHTS,
    currency: 'CHF',
    onchange: nothing
  };
  const { body } = render(Controls, { props });
  it('every criterion has a slider that says in words when it does not count', () => {
    for (const criterion of WEIGHED) expect(body).toContain(CRITERION_WORD[criterion]);
    expect(body.match(/type="range"/g)).toHaveLength(WEIGHED.length);
    expect(body).toContain('aria-valuetext="does not count"');
    expect(body).toContain('aria-valuetext="3"');
  });
  it('moved weights can be put back, unmoved ones offer nothing', () => {
    expect(textOf(body)).toContain('Back to the house rule');
    const still = render(Controls, { props: { ...props, state: { ...props.state, weights: {} } } });
    expect(textOf(still.body)).not.toContain('Back to the house rule');
  });
  it('limits carry their unit and stand as the address has them', () => {
    expect(textOf(body)).toContain('To pay at most, CHF');
    expect(textOf(body)).toContain('Write after the cache at least, MB/s');
    expect(body).toContain('value="99.5"');
  });
  it('names are text', () => expect(body).not.toContain(HOSTILE));
});

describe('the stopwatch', () => {
  const { body } = render(Stopwatch, {
    props: { until: 'when the drive has the last byte', rule: 'house rule “X”: y', keptUnder: 'k', onkeep: () => {} }
  });
  it('stands at nothing, says when to stop and which rule says so', () => {
    expect(textOf(body)).toContain('0:00.0');
    expect(textOf(body)).toContain('Stop when the drive has the last byte (house rule “X”: y).');
    expect(body).toContain('role="timer"');
  });
});

describe('progress of long work', () => {
  const task = { title: 'Ranking', state: 'running', done: 30, total: 100, step: 'Combining' };
  it('shows the step and a cancel while it runs, and no cancel afterwards', () => {
    expect(textOf(render(TaskProgress, { props: { task, oncancel: nothing } }).body)).toMatch(
      /Ranking .*Combining .*Cancel/
    );
    const done = render(TaskProgress, { props: { task: { ...task, state: 'done' }, oncancel: nothing } });
    expect(textOf(done.body)).not.toContain('Cancel');
  });
  it('claims no time left before it has seen any of it', () => {
    expect(textOf(render(TaskProgress, { props: { task, oncancel: nothing } }).body)).not.toContain('left');
  });
});

describe('a column that sorts', () => {
  const head = (sorted: 'up' | 'down' | undefined) =>
    render(SortHead, { props: { label: 'Write', sorted, onsort: nothing } }).body;
  it.each([
    ['up', 'ascending', '↑'],
    ['down', 'descending', '↓']
  ] as const)('%s is said in words and drawn', (sorted, word, arrow) => {
    expect(head(sorted)).toContain(`aria-sort="${word}"`);
    expect(head(sorted)).toContain(arrow);
  });
  it('unsorted says nothing', () => expect(head(undefined)).not.toContain('aria-sort'));
});

describe('texts in charts', () => {
  it.each([
    ['Plain · name', 'Plain · name'],
    ['<b>bold</b>', '&lt;b>bold&lt;/b>'],
    ['A & B', 'A &amp; B'],
    ['&lt;', '&amp;lt;']
  ])('%s', (text, shown) => expect(plotText(text)).toBe(shown));
});

describe('keys', () => {
  /** An event as the window gets it; nothing is focused. */
  const press = (key: string, at: number, more: object = {}) => {
    let stopped = false;
    onkeydown(
      untyped<KeyboardEvent>({
        key,
        timeStamp: at,
        target: null,
        ctrlKey: false,
        metaKey: false,
        altKey: false,
        preventDefault: () => (stopped = true),
        ...more
      })
    );
    return stopped;
  };
  // there is no document here; a dialog is open where one is found
  const stub = (dialog: boolean) => {
    vi.stubGlobal('document', { querySelector: () => (dialog ? {} : null) });
    vi.stubGlobal('Element', class {});
  };
  afterEach(() => vi.unstubAllGlobals());

  it('one key, two in a row, a pause between them, and none while a dialog is open', () => {
    stub(false);
    const heard: string[] = [];
    const take = keys.add([
      { keys: 'j', label: 'next', run: () => heard.push('j') },
      { keys: 'g j', label: 'jobs', run: () => heard.push('g j') },
      { keys: ' ', label: 'watch', run: () => heard.push('space') }
    ]);
    expect(press('j', 1000)).toBe(true);
    press('g', 5000);
    press('j', 5500);
    press('g', 10_000);
    // too late: by itself again
    press('j', 12_000);
    press(' ', 20_000);
    expect(heard).toEqual(['j', 'g j', 'j', 'space']);
    press('j', 30_000, { ctrlKey: true });
    stub(true);
    press('j', 40_000);
    stub(false);
    take();
    press('j', 50_000);
    expect(heard).toHaveLength(4);
  });
  it('the list names Space and leads to the page of all keys', () => {
    const take = keys.add([{ keys: ' ', label: 'The watch', run: nothing }]);
    const { body } = render(KeysHelp, { props: { href: '/c/x/keys' } });
    expect(textOf(body)).toMatch(/Space .*The watch/);
    expect(body).toContain('href="/c/x/keys"');
    expect(render(KeysHelp, { props: {} }).body).not.toContain('All keys');
    take();
  });
});

describe('forms', () => {
  it('the form of a job asks for what is needed first, in its units', () => {
    const { body } = render(RecordForm, {
      props: {
        draftKey: 'draft:test',
        fields: jobFields(),
        value: { name: HOSTILE },
        busy: false,
        saveLabel: 'Add',
        onsave: () => Promise.resolve(undefined)
      }
    });
    expect(body).not.toContain(HOSTILE);
    for (const label of [
      'Copied in one go, GB',
      'Largest file, GB (optional)',
      'Write needed after the cache, MB/s (optional)'
    ])
      expect(textOf(body)).toContain(label);
  });
  it('a folded group says how much of it is stated', () => {
    const spec = { kind: 'enclosure', name: 'C', formFactor: 'm2', bridge: 'B', uas: true, includedCables: [] };
    const props = {
      fields: formFields(MODEL_SCHEMAS.enclosure),
      fixed: { kind: 'enclosure' },
      spec,
      draftKey: 'x',
      refused: {},
      busy: false,
      saveLabel: 'Save',
      onsave: nothing,
      oncancel: nothing
    };
    const text = textOf(render(PartForm, { props }).body);
    expect(text).toMatch(/Bridge , 2 of \d+ stated/);
    // an empty list states nothing
    expect(text).toMatch(/In the box , optional/);
  });
});
