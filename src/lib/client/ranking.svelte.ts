import { replaceState } from '$app/navigation';
import type { RankReport } from '#core/compare/ranking/request';
import { stateToQuery, type RankState } from '$lib/ui/rank/state';
import { send } from './api';
import { WatchedTask, type TaskView } from './task.svelte';

/** Rows that come over at once. */
const ROWS = 200;
/** A slider that is moved asks once it rests. */
const REST_MS = 150;

/** A ranking as its page sees it: what is asked, the task that works it out, and what came of it. */
export class Ranking {
  chosen = $state.raw<RankState>({ weights: {}, filters: {}, takeApart: false });
  report = $state.raw<RankReport>();
  problem = $state('');
  readonly task: WatchedTask;
  #resting: ReturnType<typeof setTimeout> | undefined;

  constructor(
    readonly crateId: string,
    chosen: RankState
  ) {
    this.chosen = chosen;
    this.task = new WatchedTask(`task:rank:${crateId}`, (state) => this.#ended(state));
  }

  /** Goes on with a ranking that was under way when the page was loaded again; else it begins one. */
  open(): () => void {
    void this.task.resume().then((found) => {
      if (!found) void this.start();
    });
    return () => {
      clearTimeout(this.#resting);
      this.task.stop();
    };
  }

  async start(): Promise<void> {
    const { weights, filters, takeApart, jobId, hostIds, cableIds, enclosureIds, driveIds } = this.chosen;
    if (!jobId) return;
    if (this.task.running) await this.task.cancel();
    const answer = await send<TaskView>('POST', `/api/crates/${this.crateId}/rank`, {
      jobId,
      hostIds,
      cableIds,
      enclosureIds,
      driveIds,
      ...(Object.keys(weights).length > 0 ? { weights } : {}),
      filters,
      takeApart,
      limit: ROWS
    });
    if (answer.ok) this.task.follow(answer.data);
    else this.problem = answer.failure.message;
  }

  /** Asks anew once the person rests; the address keeps what is asked. */
  change(next: RankState): void {
    this.chosen = next;
    replaceState(`?${stateToQuery(next)}`, {});
    clearTimeout(this.#resting);
    this.#resting = setTimeout(() => void this.start(), REST_MS);
  }

  #ended(state: TaskView): void {
    if (state.state === 'done') {
      this.report = state.result as RankReport;
      this.problem = '';
    } else if (state.state === 'failed') this.problem = state.error?.message ?? 'The ranking failed.';
  }
}
