import type { FoundLater } from '#core/diagnosis/found';
import type { Diagnosis } from '#core/diagnosis/diagnose';
import { day } from '#core/quantities/format';
import { invalidateAll } from '$app/navigation';
import type { Refusal } from '$lib/ui/parts/refused';
import { changesOf } from './change';

/** A run as far as what was found out about it is kept with it. */
type FoundRun = { id: string; version: number; date: string; found: FoundLater | null };
type NotedItem = {
  id: string;
  version: number;
  unit: { id: string; tag: string; notes?: string | undefined } & object;
};

/** What is done with a diagnosis: tests are answered one after the other, and what is proven is noted where it belongs. */
export class FoundOut {
  busy = $state(false);
  readonly #of: () => { crateId: string; run: FoundRun; tag: string };

  constructor(of: () => { crateId: string; run: FoundRun; tag: string }) {
    this.#of = of;
  }

  get found(): FoundLater {
    return this.#of().run.found ?? { tried: [] };
  }

  /** Does one thing at a time. @returns whether it was done */
  async #during(work: () => Promise<Refusal | undefined>): Promise<boolean> {
    if (this.busy) return false;
    this.busy = true;
    try {
      return (await work()) === undefined;
    } finally {
      this.busy = false;
    }
  }

  /** Keeps what was found out. Where somebody else was first nothing is overwritten, and what they found is shown. */
  keep(found: FoundLater): Promise<boolean> {
    const { crateId, run } = this.#of();
    return this.#during(async () => {
      const body = { version: run.version, found };
      const refused = await changesOf(crateId)(
        'PUT',
        `/api/crates/${crateId}/runs/${run.id}`,
        body,
        'Taken into account.'
      );
      if (refused) await invalidateAll();
      return refused;
    });
  }

  answer(test: string, outcome: string): Promise<boolean> {
    const tried = [...this.found.tried.filter((one) => one.test !== test), { test, outcome }];
    return this.keep({ ...this.found, tried });
  }

  /** Notes drive and bridge as a combination, with this run as its source. */
  notePair(
    verdict: 'good' | 'bad',
    pair: { driveId: string; drive: string; bridge: string },
    said: string
  ): Promise<boolean> {
    const { crateId, run, tag } = this.#of();
    const body = {
      driveId: pair.driveId,
      bridge: pair.bridge,
      verdict,
      reason: said.slice(0, 300),
      source: `${tag}, measured on ${day(run.date)}`,
      date: run.date
    };
    const words = `Noted ${pair.drive} with ${pair.bridge} as a ${verdict === 'good' ? 'combination that works' : 'bad combination'}.`;
    return this.#during(() => changesOf(crateId)('POST', `/api/crates/${crateId}/pairs`, body, words));
  }

  /** Notes on an item what was proven, with the day of the run. */
  noteItem(item: NotedItem, diagnosis: Diagnosis): Promise<boolean> {
    const { crateId, run } = this.#of();
    const { id: _id, ...unit } = item.unit;
    const notes = [unit.notes, `${run.date}: ${diagnosis.causes[0]?.says ?? ''}`]
      .filter(Boolean)
      .join('\n')
      .slice(0, 2000);
    return this.#during(() =>
      changesOf(crateId)(
        'PUT',
        `/api/crates/${crateId}/units/${item.id}`,
        { version: item.version, unit: { ...unit, notes } },
        `Noted on ${unit.tag}.`
      )
    );
  }
}
