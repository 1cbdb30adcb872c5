import type { Model } from '#core/parts/model';
import { changesOf } from './change';

type Row = { id: string; version: number; spec: Model };

/** Parts of a list that are chosen, and what is done with all of them at once. */
export class TickedParts {
  readonly #crate: () => string;
  picked = $state.raw<ReadonlyMap<string, number>>(new Map());
  busy = $state(false);

  /** @param crate id of the crate, read anew for every change */
  constructor(crate: () => string) {
    this.#crate = crate;
  }

  choose(rows: readonly Row[], on: boolean): void {
    const others = [...this.picked].filter(([id]) => !rows.some((row) => row.id === id));
    this.picked = new Map(on ? [...others, ...rows.map(({ id, version }) => [id, version] as const)] : others);
  }
  none(): void {
    this.picked = new Map();
  }
  /** Sends one change of all of them. @returns whether it was made */
  async #many(method: 'PUT' | 'DELETE', body: object, words: string): Promise<boolean> {
    this.busy = true;
    const items = [...this.picked].map(([id, version]) => ({ id, version }));
    const path = `/api/crates/${this.#crate()}/models/many`;
    const refusal = await changesOf(this.#crate())(
      method,
      path,
      { items, ...body },
      // the dialog has one field: what is wrong with it is said, not shown beside each part
      { words, refused: ({ message }) => message }
    );
    this.busy = false;
    if (!refusal) this.none();
    return refusal === undefined;
  }
  set(path: string, value: unknown, words: string): Promise<boolean> {
    return this.#many('PUT', { set: { [path]: value } }, words);
  }
  remove(words: string): Promise<boolean> {
    return this.#many('DELETE', {}, words);
  }
  /** Adds a copy of each of these rows that is chosen. */
  async duplicate(rows: readonly Row[]): Promise<void> {
    for (const { spec } of rows.filter(({ id }) => this.picked.has(id))) {
      const { id: _id, ...rest } = spec;
      const copy = { ...rest, name: `${spec.name} (copy)`.slice(0, 120) };
      const path = `/api/crates/${this.#crate()}/models`;
      if (await changesOf(this.#crate())('POST', path, { spec: copy }, `Added ${copy.name}.`)) return;
    }
    this.none();
  }
}
