import { send } from './api';

export type TaskState = {
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
export class Task {
  state = $state.raw<TaskState>();
  #source: EventSource | undefined;
  constructor(
    readonly key: string,
    readonly onend: (state: TaskState) => void
  ) {}

  get running(): boolean {
    return this.state?.state === 'running';
  }
  /** Follows a task that was just started. */
  follow(state: TaskState): void {
    this.state = state;
    sessionStorage.setItem(this.key, state.id);
    this.#listen(state.id);
  }
  /** Finds the task again that ran before the page was loaded. */
  resume(): void {
    const id = sessionStorage.getItem(this.key);
    if (id) this.#listen(id);
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
      this.state = JSON.parse(String(event.data)) as TaskState;
      if (this.state.state === 'running') return;
      source.close();
      sessionStorage.removeItem(this.key);
      this.onend(this.state);
    };
    source.onerror = () => {
      // Gone after a restart of the server; while it only stutters the browser tries again by itself.
      if (source.readyState === EventSource.CLOSED) sessionStorage.removeItem(this.key);
    };
  }
}
