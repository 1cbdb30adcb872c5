import type { Browser, Page } from '@playwright/test';

/** So long nothing has happened any more, ms. */
const QUIET_MS = 400;

/** Which file the chart library is in. @param from a page with a chart */
export async function chartLibrary(browser: Browser, from: string): Promise<string> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const files: { url: string; size: number }[] = [];
  page.on('response', (response) => {
    if (response.url().endsWith('.js'))
      void response.body().then(
        (body) => files.push({ url: response.url(), size: body.length }),
        () => {}
      );
  });
  await page.goto(from);
  await page.waitForSelector('.js-plotly-plot');
  await page.close();
  return files.sort((a, b) => b.size - a.size)[0]!.url;
}

/** A task: how long it took, ms, and how long of it the processor worked for it: on a busy machine it waits as well. */
export type Task = { ms: number; processorMs: number };

/**
 * The longest task of a page that is opened with nothing cached, without the chart library: that is measured by itself. The browser
 * has opened something of this server before, so that the process for it runs: starting one takes both processors for a while. How
 * long it took is asked in one opening, and how long the processor worked in another one, for tracing takes a part of it.
 */
export async function longestTask(browser: Browser, address: string, library: string): Promise<Task> {
  const ready = async (page: Page) => {
    await page.goto(address);
    await page.waitForSelector('html[data-ready="yes"]');
  };
  const ms = await opened(browser, address, library, async (page) => {
    await page.addInitScript(watch);
    await ready(page);
    await page.waitForTimeout(QUIET_MS);
    return page.evaluate(() => {
      const { longest = NaN }: Window & { longest?: number } = window;
      return longest;
    });
  });
  const tasks = await opened(browser, address, library, (page) => traced(browser, page, () => ready(page)));
  return { ms, processorMs: longestOf(tasks).processorMs };
}
/** Runs in the page. The browser tells of tasks from 50 ms up: where there is none, the longest was shorter. */
function watch(): void {
  const seen = { longest: 50 };
  new PerformanceObserver((list) => {
    for (const { duration } of list.getEntries()) seen.longest = Math.max(seen.longest, duration);
    Object.assign(window, seen);
  }).observe({ type: 'longtask', buffered: true });
  Object.assign(window, seen);
}
/** A page of a browser that somebody begins with: nothing is cached, and the process for it runs. */
async function opened<T>(
  browser: Browser,
  address: string,
  library: string,
  work: (page: Page) => Promise<T>
): Promise<T> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  // Not by a route: then every request would go by way of this program.
  const session = await context.newCDPSession(page);
  await session.send('Network.enable');
  await session.send('Network.setBlockedURLs', { urls: [library] });
  await page.goto(new URL('/api/health', address).href);
  await page.waitForTimeout(QUIET_MS);
  const result = await work(page);
  await context.close();
  return result;
}

/**
 * What the chart library alone costs: the longest task while it is evaluated, and while it draws one chart, on a page with next to
 * nothing on it.
 */
export async function chartAlone(
  browser: Browser,
  empty: string,
  library: string
): Promise<{ read: Task; drawn: Task }> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(empty);
  await page.waitForSelector('html[data-ready="yes"]');
  const read = await traced(browser, page, () =>
    page.evaluate(async (url) => Object.assign(window, { charts: (await import(url)) as unknown }), library)
  );
  const drawn = await traced(browser, page, () =>
    page.evaluate(async () => {
      type Library = { newPlot?: (...args: unknown[]) => Promise<unknown>; default?: Library };
      const { charts = {} }: Window & { charts?: Record<string, Library> } = window;
      const chart = Object.values(charts)
        .flatMap((one) => [one, one.default])
        .find((one) => one?.newPlot);
      const at = document.body.appendChild(document.createElement('div'));
      await chart!.newPlot!(at, [{ x: [0, 1, 2], y: [3, 1, 2] }], { width: 800, height: 300 });
    })
  );
  await page.close();
  return { read: longestOf(read), drawn: longestOf(drawn) };
}

type TraceEvent = { name: string; ph: string; pid: number; tid: number; ts: number; dur?: number; tdur?: number };

/** The tasks of a page's own thread while something is done with it. */
async function traced(browser: Browser, page: Page, work: () => Promise<unknown>): Promise<Task[]> {
  await browser.startTracing(page, { categories: ['toplevel', 'blink.user_timing'] });
  await work();
  await page.evaluate(() => performance.mark('traced-here'));
  await page.waitForTimeout(QUIET_MS);
  const { traceEvents } = JSON.parse(String(await browser.stopTracing())) as { traceEvents: TraceEvent[] };
  const here = traceEvents.find(({ name }) => name === 'traced-here');
  return traceEvents
    .filter(({ name, pid, tid }) => pid === here?.pid && tid === here.tid && /RunTask$/.test(name))
    .map(({ dur = 0, tdur = 0 }) => ({ ms: dur / 1000, processorMs: tdur / 1000 }));
}
const longestOf = (tasks: readonly Task[]): Task => ({
  ms: Math.max(0, ...tasks.map(({ ms }) => ms)),
  processorMs: Math.max(0, ...tasks.map(({ processorMs }) => processorMs))
});
