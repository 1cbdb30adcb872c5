import type { Model } from '#core/parts/model';
import { notices } from '$lib/ui/frame/notices.svelte';
import { deletedWords } from '$lib/ui/parts/deleted';
import { refusedFields } from '$lib/ui/parts/refused';
import { changesOf } from './change';

const CHANGED_ELSEWHERE =
  'This part was changed elsewhere in the meantime; nothing was overwritten. Reload to see it; what you typed is kept until then.';

type Source = {
  crateId: string;
  model: { id: string; version: number; spec: Model };
  prices: number;
  usedBy: readonly string[];
  /** Address of the list that the part stands in. */
  list: string;
};

/** What is done with one part: saved, copied, deleted, and items of it added. */
export class OnePart {
  readonly #of: () => Source;
  busy = $state(false);
  /** What the server refused, by the fields of the form. */
  refused = $state<Record<string, string>>({});

  constructor(of: () => Source) {
    this.#of = of;
  }

  get #api(): string {
    return `/api/crates/${this.#of().crateId}`;
  }
  /** Where what is typed and not saved is kept: with the version that it belongs to. */
  get draftKey(): string {
    const { id, version } = this.#of().model;
    return `draft:${id}:${version}`;
  }
  async save(spec: Record<string, unknown>): Promise<void> {
    const { crateId, model, list } = this.#of();
    const key = this.draftKey;
    this.busy = true;
    const body = { version: model.version, spec };
    const refusal = await changesOf(crateId)('PUT', `${this.#api}/models/${model.id}`, body, {
      words: `Saved ${String(spec.name)}.`,
      then: () => localStorage.removeItem(key),
      to: () => list,
      refused: ({ code, message }) => (code === 'conflict' ? CHANGED_ELSEWHERE : message)
    });
    this.busy = false;
    if (refusal) this.refused = refusedFields(refusal.fields, 'spec.');
  }
  async remove(): Promise<void> {
    const { crateId, model, list, prices, usedBy } = this.#of();
    const outcome = { words: deletedWords(model.spec.name, prices, usedBy), to: () => list };
    await changesOf(crateId)('DELETE', `${this.#api}/models/${model.id}`, { version: model.version }, outcome);
  }
  async duplicate(): Promise<void> {
    const { crateId, model, list } = this.#of();
    const { id: _id, ...spec } = model.spec;
    const copy = { ...spec, name: `${spec.name} (copy)`.slice(0, 120) };
    const to = ({ id }: { id: string }) => `${list}/${id}`;
    await changesOf(crateId)('POST', `${this.#api}/models`, { spec: copy }, { words: `Added ${copy.name}.`, to });
  }
  async addItems(count: number, state: string, location: string | undefined): Promise<void> {
    const { crateId, model } = this.#of();
    this.busy = true;
    const unit = { modelId: model.id, state, ...(location ? { location } : {}) };
    const words = count === 1 ? 'Added an item.' : `Added ${count} items.`;
    const failure = await changesOf(crateId)('POST', `${this.#api}/units/many`, { count, unit }, words);
    if (failure && failure.fields.length > 0) notices.add('error', failure.message);
    this.busy = false;
  }
}
