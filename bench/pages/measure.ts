import { gzipSync } from 'node:zlib';
import { chromium, type Browser, type Page } from '@playwright/test';
import { chartAlone, chartLibrary, longestTask, type Task } from './tasks.ts';

type Crate = { slug: string; tag: string };

/** Every page of a crate and of a build. */
const CRATE_PAGES = [
  '',
  '/builds',
  '/crate/drive',
  '/crate/enclosure',
  '/crate/cable',
  '/crate/pad',
  '/crate/host',
  '/items',
  '/labels',
  '/jobs',
  '/prices',
  '/pair',
  '/rank',
  '/together',
  '/compare',
  '/runs',
  '/history',
  '/combinations',
  '/filesystems',
  '/house-rules',
  '/find?q=drive',
  '/tables',
  '/glossary',
  '/keys'
];
const BUILD_PAGES = ['pair', 'buy', 'pads', 'pads/cut', 'pads/heat', 'assemble', 'format', 'measure', 'log'];
/** A page of this application with next to nothing on it, to compare with. */
const emptyOf = ({ slug }: Crate): string => `/c/${slug}/keys`;

/** How often each page is looked at. */
const ROUNDS = { server: 9, browser: 3, tasks: 2 };
/** So long nothing has happened any more, ms. */
const QUIET_MS = 400;

const addressesOf = ({ slug, tag }: Crate): string[] => [
  ...CRATE_PAGES.map((page) => `/c/${slug}${page}`),
  ...BUILD_PAGES.map((page) => `/b/${tag}/${page}`)
];
const middle = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? NaN;

type Served = { ms: number; kB: number; gzipKB: number };
async function serve(address: string): Promise<Served> {
  const begin = performance.now();
  const response = await fetch(address, { headers: { 'accept-encoding': 'identity' } });
  const body = Buffer.from(await response.arrayBuffer());
  const ms = performance.now() - begin;
  if (!response.ok) throw new Error(`${address} answered ${response.status}`);
  return { ms, kB: body.length / 1000, gzipKB: gzipSync(body).length / 1000 };
}

type Opened = { readyMs: number; requests: number; scriptKB: number; shift: number };

/** Opens a page with nothing cached, as somebody who comes for the first time. */
async function open(browser: Browser, address: string): Promise<Opened> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  let requests = 0;
  page.on('request', () => (requests += 1));
  await page.addInitScript(observe);
  const begin = performance.now();
  await page.goto(address);
  await page.waitForSelector('html[data-ready="yes"]');
  const readyMs = performance.now() - begin;
  await page.waitForTimeout(QUIET_MS);
  const seen = await page.evaluate(seenSoFar);
  await context.close();
  return { readyMs, requests, ...seen };
}
/* Both run in the page. */
function observe(): void {
  const seen = { shift: 0 };
  Object.assign(window, { seen });
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) {
      const { value = 0, hadRecentInput = false }: PerformanceEntry & { value?: number; hadRecentInput?: boolean } =
        entry;
      if (!hadRecentInput) seen.shift += value;
    }
  }).observe({ type: 'layout-shift', buffered: true });
}
function seenSoFar(): { shift: number; scriptKB: number } {
  const { seen = { shift: 0 } }: Window & { seen?: { shift: number } } = window;
  const scripts = performance
    .getEntriesByType('resource')
    .filter((entry) => entry instanceof PerformanceResourceTiming)
    .filter(({ name }) => name.endsWith('.js'));
  return { ...seen, scriptKB: scripts.reduce((sum, { encodedBodySize }) => sum + encodedBodySize, 0) / 1000 };
}

/** How long it is from the click that asks for a ranking to its first rows, and how long of it the combining itself took, ms. */
async function rankingOf(browser: Browser, jobs: string): Promise<{ rowsMs: number; computedMs: number }> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(jobs);
  await page.waitForSelector('html[data-ready="yes"]');
  const answered = page.waitForResponse((response) => /\/api\/crates\/\w+\/rank$/.test(response.url()));
  // Timed in the page itself: by when the rows are painted.
  await page.evaluate(() => {
    addEventListener('click', () => Object.assign(window, { clickedAt: performance.now() }), { capture: true });
    const watcher = new MutationObserver(() => {
      if (!document.querySelector('main table tbody a[href*="/pair?"]')) return;
      watcher.disconnect();
      requestAnimationFrame(() => setTimeout(() => Object.assign(window, { rowsAt: performance.now() })));
    });
    watcher.observe(document.body, { childList: true, subtree: true });
  });
  await page.getByRole('link', { name: 'Rank for it' }).first().click();
  const task = (await (await answered).json()) as { id: string };
  await page.waitForFunction(() => 'rowsAt' in window);
  const rowsMs = await page.evaluate(() => {
    const { rowsAt = NaN, clickedAt = NaN }: Window & { rowsAt?: number; clickedAt?: number } = window;
    return rowsAt - clickedAt;
  });
  const { result } = await page.evaluate(
    async (id) => (await fetch(`/api/tasks/${id}`)).json() as Promise<{ result: { computedMs: number } }>,
    task.id
  );
  await page.close();
  return { rowsMs, computedMs: result.computedMs };
}

/** How long a page is busy after the first thing that can be clicked on it was clicked, ms. */
async function firstClick(page: Page, address: string): Promise<number> {
  await page.goto(address);
  await page.waitForSelector('html[data-ready="yes"]');
  return page.evaluate(
    () =>
      new Promise<number>((done) => {
        const begin = performance.now();
        document.querySelector<HTMLElement>('main button:not([disabled]), main input, header button')?.click();
        requestAnimationFrame(() => setTimeout(() => done(performance.now() - begin)));
      })
  );
}

const said = ({ ms, processorMs }: Task): string => `${one(ms)} ms (${one(processorMs)} on the processor)`;
const line = (cells: readonly (string | number)[]): string => `| ${cells.join(' | ')} |`;
const one = (value: number, digits = 0): string => value.toFixed(digits);

/** Waits until everything of a crate is judged: what is timed is not the judging. */
async function judged(address: string, { slug }: Crate): Promise<void> {
  for (;;) {
    const text = await fetch(`${address}/c/${slug}/builds`).then((response) => response.text());
    if (!/being judged/.test(text)) return;
    await new Promise((done) => setTimeout(done, 1000));
  }
}

/** Times every page of both crates, one after the other in turn, and prints the table. */
export async function measurePages(address: string, crates: { demo: Crate; large: Crate }): Promise<void> {
  await judged(address, crates.large);
  const empty = emptyOf(crates.demo);
  const pages = addressesOf(crates.demo).map((demo, i) => ({ demo, large: addressesOf(crates.large)[i] as string }));
  const served = new Map<string, Served[]>();
  for (let round = 0; round < ROUNDS.server; round++)
    for (const { demo, large } of pages)
      for (const page of [demo, large]) served.set(page, [...(served.get(page) ?? []), await serve(address + page)]);
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  const opened = new Map<string, Opened[]>();
  for (let round = 0; round < ROUNDS.browser; round++)
    for (const page of [...pages.flatMap(({ demo, large }) => [demo, large]), empty, '/'])
      opened.set(page, [...(opened.get(page) ?? []), await open(browser, address + page)]);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const warm = await context.newPage();
  const clicks = new Map<string, number[]>();
  for (let round = 0; round < ROUNDS.browser; round++)
    for (const page of [empty, ...pages.map(({ large }) => large)])
      clicks.set(page, [...(clicks.get(page) ?? []), await firstClick(warm, address + page)]);
  const library = await chartLibrary(browser, `${address}/b/${crates.demo.tag}/pads/heat`);
  const tasks = new Map<string, Task[]>();
  for (let round = 0; round < ROUNDS.tasks; round++)
    for (const page of [...pages.flatMap(({ demo, large }) => [demo, large]), empty, '/'])
      tasks.set(page, [...(tasks.get(page) ?? []), await longestTask(browser, address + page, library)]);
  const chart = await chartAlone(browser, address + empty, library);
  const rankings = [];
  for (const { slug } of [crates.demo, crates.large])
    rankings.push(await rankingOf(browser, `${address}/c/${slug}/jobs`));
  await browser.close();

  const ms = (page: string) => middle((served.get(page) ?? []).map((all) => all.ms));
  const last = (page: string) => served.get(page)?.at(-1) as Served;
  const worst = (page: string, of: (all: Opened) => number) => Math.max(...(opened.get(page) ?? []).map(of));
  const task = (page: string, of: keyof Task = 'processorMs') => middle((tasks.get(page) ?? []).map((all) => all[of]));
  const click = (page: string) => middle(clicks.get(page) ?? []);
  console.log(
    line([
      'page',
      'demo ms',
      'large ms',
      'ratio',
      'demo kB',
      'large kB',
      'gzip kB',
      'requests',
      'script kB',
      'shift',
      'task ms demo',
      'task ms large',
      'on processor demo',
      'on processor large',
      'ready ms',
      'first click'
    ])
  );
  console.log(line(Array.from({ length: 16 }, () => '---')));
  for (const { demo, large } of pages)
    console.log(
      line([
        demo.replace(/^\/(?:c|b)\/[^/]+/, '') || '/',
        one(ms(demo), 1),
        one(ms(large), 1),
        one(ms(large) / ms(demo), 1),
        one(last(demo).kB),
        one(last(large).kB),
        one(last(large).gzipKB),
        worst(large, (all) => all.requests),
        one(worst(large, (all) => all.scriptKB)),
        one(
          Math.max(
            worst(large, (all) => all.shift),
            worst(demo, (all) => all.shift)
          ),
          3
        ),
        one(task(demo, 'ms')),
        one(task(large, 'ms')),
        one(task(demo)),
        one(task(large)),
        one(middle((opened.get(large) ?? []).map((all) => all.readyMs))),
        one(click(large) / click(empty), 1)
      ])
    );
  console.log(
    `First page: ${worst('/', (all) => all.requests)} requests, ${one(worst('/', (all) => all.scriptKB))} kB of scripts, shift ${one(
      worst('/', (all) => all.shift),
      3
    )}, longest task ${one(task('/', 'ms'))} ms, ${one(task('/'))} ms of it on the processor.`
  );
  const demoMs = pages.map(({ demo }) => ms(demo));
  console.log(
    `Demo in the median of all pages: ${one(middle(demoMs), 1)} ms. The chart library alone: ${said(chart.read)} to evaluate, ${said(chart.drawn)} for one chart. A page with next to nothing (${empty}): longest task ${one(task(empty, 'ms'))} ms, ${one(task(empty))} ms of it on the processor; first click ${one(click(empty))} ms.`
  );
  for (const [i, name] of ['demo', 'large'].entries()) {
    const { rowsMs, computedMs } = rankings[i]!;
    console.log(
      `Rank of the ${name} crate: ${one(rowsMs)} ms from the click to the first rows, ${one(computedMs)} ms of it combining: ${one(rowsMs - computedMs)} ms beside it.`
    );
  }
}
