import type { ClientInit } from '@sveltejs/kit';

/** After so long the browser has a moment for what the reader does, ms. */
const MOMENT = 25;

/**
 * Before a page comes to life: its scripts are run one file after the other, with pauses between them. All at once, and the page's
 * life with them, would be one long task in which nobody is heard.
 */
export const init: ClientInit = async () => {
  let since = performance.now();
  const pause = async () => {
    await new Promise((resume) => setTimeout(resume));
    since = performance.now();
  };
  const files = [...document.querySelectorAll<HTMLLinkElement>('link[rel="modulepreload"]')].map(({ href }) => href);
  // A page's own file comes last: it runs all that it imports and that has not run yet.
  for (const href of files.sort((a, b) => Number(a.includes('/nodes/')) - Number(b.includes('/nodes/')))) {
    // One that cannot be had is asked for again, and told of, when the page itself needs it.
    await import(/* @vite-ignore */ href).catch(() => undefined);
    if (performance.now() - since > MOMENT) await pause();
  }
  await pause();
};
