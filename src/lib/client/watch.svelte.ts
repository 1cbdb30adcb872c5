/** Whether application and database answer: asked now and then, and often while they do not. */
export const server = $state<{ state: 'up' | 'database-away' | 'offline'; message: string }>({
  state: 'up',
  message: ''
});

const CALM_MS = 5000;
const WAITING_MS = 1000;

async function ask(): Promise<typeof server.state> {
  try {
    const response = await fetch('/api/health', { signal: AbortSignal.timeout(4000) });
    if (response.ok) return 'up';
    // It says why: it is being started again, or the disk is full.
    const said = (await response.json().catch(() => undefined)) as { error?: { message?: string } } | undefined;
    server.message = said?.error?.message ?? '';
    return 'database-away';
  } catch {
    return 'offline';
  }
}

/** Starts watching. @param onback called when an answer comes again after a silence  @returns stops watching */
export function watchServer(onback: () => void): () => void {
  let timer: ReturnType<typeof setTimeout>;
  let stopped = false;
  const look = async () => {
    if (document.visibilityState === 'visible') {
      const was = server.state;
      server.state = await ask();
      if (was !== 'up' && server.state === 'up') onback();
    }
    if (!stopped) timer = setTimeout(look, server.state === 'up' ? CALM_MS : WAITING_MS);
  };
  timer = setTimeout(look, CALM_MS);
  return () => {
    stopped = true;
    clearTimeout(timer);
  };
}
