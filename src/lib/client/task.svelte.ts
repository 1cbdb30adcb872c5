import { send } from './api';

export type TaskView = {
  id: string;
  title: string;
  state: 'running' | 'done' | 'failed' | 'cancelled';
  done: number;
  total: number;
  step: string;
  result?: unknown;
  error?: { message: string; fields: { path: string; message: string }[] };
};

/**
 * A long piece of work as the page sees it. Its id is kept under `key` while it runs, so that a reload finds it again.
 */
export class WatchedTask {
  state = $state.raw<TaskView>();
  #source: EventSource | undefined;
  constructor(
    readonly key: string,
    readonly onend: (state: TaskView) => void
  ) {}

  get running(): boolean {
    return this.state?.state === 'running';
  }
  /** Follows a task that was just started. */
  follow(state: TaskView): void {
    this.state = state;
    sessionStorage.setItem(this.key, state.id);
    this.#listen(state.id);
  }
  /**
   * Finds the task again that ran before the page was loaded.
   * @returns whether there is one
   */
  async resume(): Promise<boolean> {
    const id = sessionStorage.getItem(this.key);
    if (!id) return false;
    if (await this.#isGone(id)) return false;
    this.#listen(id);
    return true;
  }
  async cancel(): Promise<void> {
    if (this.state) await send('POST', `/api/tasks/${this.state.id}/cancel`, {});
  }
  stop(): void {
    this.#source?.close();
  }
  #listen(id: string): void {
    this.#source?.close();
    const source = new EventSource(`/api/tasks/${id}/events`);
    this.#source = source;
    source.onmessage = (event) => {
      this.state = JSON.parse(String(event.data)) as TaskView;
      if (this.state.state === 'running') return;
      source.close();
      sessionStorage.removeItem(this.key);
      this.onend(this.state);
    };
    source.onerror = () => {
      // While the connection only stutters the browser tries again by itself. Closed may mean that the task is gone with a server
      // that was started again, or that this page is being left: then it must be found again.
      if (source.readyState === EventSource.CLOSED) void this.#isGone(id);
    };
  }
  /** Asks whether the server still knows it, and forgets it if not. A page that is left gets no answer, and keeps it. */
  async #isGone(id: string): Promise<boolean> {
    try {
      const { status } = await fetch(`/api/tasks/${id}`);
      if (status !== 404) return false;
    } catch {
      return false;
    }
    sessionStorage.removeItem(this.key);
    if (this.state?.id === id) this.state = undefined;
    return true;
  }
}
