import { invalidateAll } from '$app/navigation';
import { notices } from '$lib/ui/frame/notices.svelte';
import { send } from './api';
import { SERIES_COLUMN_IDS, type Series, type SeriesColumn } from '#core/series/series';
import { reduceSeries } from '#core/series/reduce';

/** How a run on the rig stands, as the server tells it. */
export type LiveState = {
  state: 'running' | 'paused' | 'done' | 'ended';
  sampled: number;
  atS: number;
  wantedS: number;
  speed: number;
  why: string | null;
};

/** So many points a chart is drawn with. */
const DRAWN = 1600;
/** A chart that is drawn more often only takes the processor away from what is measured, ms. */
const DRAW_MS = 500;
/** How soon a server that answered with an error is asked again, ms. */
const RETRY_MS = 2000;

/**
 * A run that goes on, as its samples come. The browser reconnects by itself and says which sample it has last, so a page that was closed, or a
 * server that was away, leaves no hole.
 */
export class LiveRun {
  state = $state.raw<LiveState | null>(null);
  drawn = $state.raw<Series>({ t: [], MBps: [] });
  away = $state(false);
  #whole: Partial<Record<SeriesColumn | 't', number[]>> = { t: [], MBps: [] };
  #drawnAt = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #retry: ReturnType<typeof setTimeout> | undefined;
  #source: EventSource | undefined;
  #stopped = false;
  readonly #ended: () => void;

  /** @param ended told once, when the run no longer goes on */
  constructor(ended: () => void) {
    this.#ended = ended;
  }

  /** Begins to listen. @returns stops it */
  listen(path: string): () => void {
    this.#whole = { t: [], MBps: [] };
    this.state = null;
    this.#stopped = false;
    this.#connect(path);
    return () => {
      this.#stopped = true;
      clearTimeout(this.#timer);
      this.#timer = undefined;
      clearTimeout(this.#retry);
      this.#source?.close();
    };
  }

  /** Asks for what comes after the last sample that is here. */
  #connect(path: string): void {
    const have = this.#whole.t?.length ?? 0;
    const source = new EventSource(have > 0 ? `${path}?after=${have}` : path);
    this.#source = source;
    source.onopen = () => (this.away = false);
    source.onerror = () => {
      this.away = true;
      // A server that answers with an error ends the source for good; one that is only gone, the browser asks again itself.
      if (source.readyState === EventSource.CLOSED && !this.#stopped)
        this.#retry = setTimeout(() => this.#connect(path), RETRY_MS);
    };
    source.addEventListener('samples', (event: MessageEvent<string>) => {
      this.#take(JSON.parse(event.data) as { first: number; samples: Series });
    });
    source.addEventListener('state', (event: MessageEvent<string>) => {
      this.away = false;
      this.state = JSON.parse(event.data) as LiveState;
      if (this.state.state === 'running') return;
      this.#stopped = true;
      source.close();
      this.#draw();
      this.#ended();
    });
  }

  #take({ first, samples }: { first: number; samples: Series }): void {
    const whole = this.#whole;
    const have = whole.t?.length ?? 0;
    for (const id of ['t', ...SERIES_COLUMN_IDS] as const) {
      const values = samples[id];
      if (!values) continue;
      whole[id] ??= [];
      // What was told twice is taken once.
      for (const value of values.slice(Math.max(0, have - first))) whole[id].push(value);
    }
    const wait = this.#drawnAt + DRAW_MS - Date.now();
    if (wait <= 0) this.#draw();
    else this.#timer ??= setTimeout(() => this.#draw(), wait);
  }

  #draw(): void {
    clearTimeout(this.#timer);
    this.#timer = undefined;
    this.#drawnAt = Date.now();
    const { t = [] } = this.#whole;
    if (t.length > 0) this.drawn = reduceSeries({ ...this.#whole } as Series, DRAWN);
    // A new object each time: the columns themselves go on growing.
    if (this.drawn.t === t) this.drawn = { ...this.drawn, t: [...t], MBps: [...this.drawn.MBps] };
  }
}

/** Holds a run of the rig where it is, or goes on with one; what stands in the way is said. */
export async function askRig(path: string, what: 'cancel' | 'resume', body: object): Promise<void> {
  const answer = await send('POST', `${path}/${what}`, body);
  if (!answer.ok) notices.add('error', answer.failure.message);
  await invalidateAll();
}

/** A short sound at the end of a long run; a browser that forbids it stays silent. */
export function chime(): void {
  try {
    const audio = new AudioContext();
    const tone = audio.createOscillator();
    const loud = audio.createGain();
    loud.gain.setValueAtTime(0.15, audio.currentTime);
    loud.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + 0.8);
    tone.frequency.value = 660;
    tone.connect(loud).connect(audio.destination);
    tone.start();
    tone.stop(audio.currentTime + 0.8);
    tone.onended = () => void audio.close();
  } catch {
    // no sound here
  }
}
