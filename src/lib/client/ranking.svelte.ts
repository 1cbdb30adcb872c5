import { replaceState } from '$app/navigation';
import type { RankReport } from '#core/compare/ranking/request';
import type { RankParts } from '$lib/ui/rank/names';
import { stateToQuery, type RankState } from '$lib/ui/rank/state';
import { send } from './api';
import { WatchedTask, type TaskView } from './task.svelte';

/** Rows that come over at once. */
const ROWS = 200;
/** A slider that is moved asks once it rests. */
const REST_MS = 150;

/** A ranking, with how many parts took part, and what those of its rows are called. */
export type RankedReport = RankReport & {
  scope: Record<'host' | 'cable' | 'enclosure' | 'drive', { taken: number; leftOut: number }>;
  parts: RankParts;
  /** How long combining took, ms. */
  computedMs: number;
};

/** A ranking as its page sees it: what is asked, the task that works it out, and what came of it. */
export class Ranking {
  chosen = $state.raw<RankState>({ weights: {}, filters: {}, takeApart: false });
  report = $state.raw<RankedReport>();
  problem = $state('');
  /** Whether it would be so much that it is asked first. */
  asks = $state(false);
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

  /** @param sure also where it makes very many combinations */
  async start(sure = false): Promise<void> {
    const { weights, filters, takeApart, everything, jobId, hostIds, cableIds, enclosureIds, driveIds } = this.chosen;
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
      ...(everything ? { everything } : {}),
      ...(sure ? { sure } : {}),
      limit: ROWS
    });
    this.asks = !answer.ok && answer.failure.fields.some(({ path }) => path === 'sure');
    this.problem = answer.ok ? '' : answer.failure.message;
    if (answer.ok) this.task.follow(answer.data);
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
      this.report = state.result as RankedReport;
      this.problem = '';
    } else if (state.state === 'failed') this.problem = state.error?.message ?? 'The ranking failed.';
  }
}
