import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { scriptsAfterPaint } from './boot';

/** The page as it is written: with the scripts of its head, and with the framework's own line at its end. */
const line = `{
				const element = document.currentScript.parentElement;

				Promise.all([
					import("../_app/immutable/entry/start.a.js"),
					import("../_app/immutable/entry/app.b.js")
				]).then(([kit, app]) => {
					kit.start(app, element, { node_ids: [0, 5, 44] });
				});
			}`;
const page = readFileSync('src/app.html', 'utf8').replace(
  '%sveltekit.body%',
  `<p>…</p><script nonce="x">${line}</script>`
);

type Timer = { after: number; call: () => void };
/** Runs the scripts of a page in a browser made of nothing, and tells what they do. */
function opened(html: string, { hidden = false, hash = '' } = {}) {
  const links = [...html.matchAll(/<link rel="(later)" href="[^"]*">/g)].map(([, rel]) => ({ rel }));
  const log: string[] = [];
  const classes = new Set<string>();
  let frames: (() => void)[] = [];
  let timers: Timer[] = [];
  const body = {};
  const field = { focus: () => log.push('the field has the focus') };
  const window: Record<string, unknown> = {};
  const given: Record<string, unknown> = {
    window,
    location: { hash },
    localStorage: { getItem: () => null },
    matchMedia: () => ({ matches: false }),
    document: {
      hidden,
      body,
      activeElement: body,
      currentScript: {},
      querySelector: (at: string) => (at === '[autofocus]' ? field : null),
      querySelectorAll: () => links.filter(({ rel }) => rel === 'later'),
      documentElement: {
        setAttribute: () => {},
        classList: {
          add: (name: string) => classes.add(name),
          remove: (name: string) => classes.delete(name),
          contains: (name: string) => classes.has(name)
        }
      }
    },
    requestAnimationFrame: (call: () => void) => frames.push(call),
    setTimeout: (call: () => void, after = 0) => timers.push({ after, call }),
    load: (path: string) => {
      log.push(`${links.filter(({ rel }) => rel === 'modulepreload').length} known, ${path.split('/').at(-1)}`);
      return { start: () => log.push('started') };
    }
  };
  for (const [, script = ''] of html.matchAll(/<script[^>]*>([\s\S]*?)<\/script>/g))
    (new Function(...Object.keys(given), script.replaceAll('import(', 'load(')) as (...all: unknown[]) => void)(
      ...Object.values(given)
    );
  const settle = () => new Promise((done) => setTimeout(done));
  const run = async (due: (timer: Timer) => boolean) => {
    const now = timers.filter(due);
    timers = timers.filter((timer) => !due(timer));
    for (const { call } of now) call();
    await settle();
  };
  return {
    log,
    frameFirst: () => classes.has('frame-first'),
    settle,
    /** A frame is painted, and the tasks after it are done. */
    async frame() {
      const now = frames;
      frames = [];
      for (const call of now) call();
      await run(({ after }) => after === 0);
    },
    /** So much time goes by that whoever waits for a moment gives up. */
    later: () => run(() => true)
  };
}
const begun = ['2 known, start.a.js', '2 known, app.b.js', 'started'];

describe('a page is painted in two frames, and asks for its scripts then', () => {
  const html = scriptsAfterPaint(page, ['a.js', 'b.js']);

  it('shows its frame, then what stands in it with the focus in its field, then it begins', async () => {
    const seen = opened(html);
    await seen.settle();
    expect([seen.frameFirst(), seen.log]).toEqual([true, []]);
    await seen.frame();
    expect([seen.frameFirst(), seen.log]).toEqual([false, ['the field has the focus']]);
    await seen.frame();
    expect(seen.log).toEqual(['the field has the focus', ...begun]);
  });
  it('shows all at once where a place in it is asked for', async () => {
    const seen = opened(html, { hash: '#cooling' });
    await seen.settle();
    expect([seen.frameFirst(), seen.log]).toEqual([false, []]);
    await seen.frame();
    expect(seen.log).toEqual(begun);
  });
  it('begins at once in a tab that nobody looks at', async () => {
    const seen = opened(html, { hidden: true });
    await seen.settle();
    expect([seen.frameFirst(), seen.log]).toEqual([false, begun]);
  });
  it('does not wait for a painting for ever, and begins once', async () => {
    const seen = opened(html);
    await seen.later();
    expect([seen.frameFirst(), seen.log]).toEqual([false, ['the field has the focus', ...begun]]);
    await seen.frame();
    await seen.frame();
    expect(seen.log).toEqual(['the field has the focus', ...begun]);
  });
  it('leaves a part of a page without head and first line as it is, and takes signs of a path as they are', () => {
    expect(scriptsAfterPaint('<p>Promise.all</p>', ['a.js'])).toBe('<p>Promise.all</p>');
    expect(scriptsAfterPaint('<head></head>', ["$&$'.js"])).toBe(`<head><link rel="later" href="$&$'.js"></head>`);
  });
});
