import { invalidateAll, replaceState } from '$app/navigation';
import type { Choice } from '#core/build/choice';
import { STAGE_LABEL, type BuildStage } from '#core/build/stages';
import { choiceToQuery } from '$lib/ui/pair/slots';
import type { Outcome } from '$lib/ui/parts/refused';
import { changesOf } from './change';

/** A build as it is stored. */
type StoredBuild = {
  id: string;
  crateId: string;
  tag: string;
  name: string;
  stage: BuildStage;
  version: number;
  choice: Choice;
};
/** What somebody else stored in between. */
export type TheirBuild = { name: string; stage: BuildStage; choice: Choice; version: number; updatedAt: string };

/**
 * Pads that were settled on are in no address; they stay as long as drive and enclosure do.
 * @param other what the address chooses
 */
export function settledPads(stored: Choice, other: Partial<Choice>): Partial<Choice> {
  const { stack, driveId, enclosureId } = stored;
  return stack && other.driveId === driveId && other.enclosureId === enclosureId ? { stack } : {};
}

const same = (a: Partial<Choice>, b: Partial<Choice>) => choiceToQuery(a) === choiceToQuery(b);

/** A stored build while it is looked at and changed: what is chosen, what of it is saved, and what somebody else saved. */
export class StoredPairing {
  readonly #of: () => { build: StoredBuild; path: string; builds: string };
  choice = $state.raw<Partial<Choice>>({});
  name = $state('');
  busy = $state(false);
  theirs = $state.raw<TheirBuild>();

  /** @param asked what the address chooses: a link to an unsaved change shows that change */
  constructor(of: () => { build: StoredBuild; path: string; builds: string }, asked: Partial<Choice>) {
    this.#of = of;
    const { build } = of();
    this.choice = Object.keys(asked).length === 0 ? build.choice : { ...asked, ...settledPads(build.choice, asked) };
    this.name = build.name;
  }

  get #build(): StoredBuild {
    return this.#of().build;
  }
  get #api(): string {
    return `/api/crates/${this.#build.crateId}/builds/${this.#build.id}`;
  }
  /** Whether what is chosen is what is stored. */
  readonly isStored = $derived.by(() => same(this.choice, this.#of().build.choice));
  readonly changed = $derived.by(() => !this.isStored || this.name.trim() !== this.#of().build.name);

  choose(next: Partial<Choice>): void {
    this.choice = next;
    const { build, path } = this.#of();
    replaceState(same(next, build.choice) ? path : `?${choiceToQuery(next)}`, {});
  }
  discard(): void {
    this.name = this.#build.name;
    this.choose(this.#build.choice);
  }
  /** Shows what is stored by now. */
  reset(): void {
    this.theirs = undefined;
    replaceState(this.#of().path, {});
    void invalidateAll().then(() => {
      this.choice = this.#build.choice;
      this.name = this.#build.name;
    });
  }
  /** Says that the build is stored; what somebody else stored in between is laid beside it. */
  #outcome(words: string): Outcome {
    return {
      words,
      then: () => replaceState(this.#of().path, {}),
      undone: () => this.reset(),
      refused: ({ code, details, message }) => {
        if (code !== 'conflict' || !details.current) return message;
        this.theirs = details.current as TheirBuild;
        return undefined;
      }
    };
  }
  async save(version = this.#build.version): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    this.theirs = undefined;
    const { crateId, tag, stage } = this.#build;
    const choice = { ...this.choice, writeCache: this.choice.writeCache ?? null };
    const body = { version, name: this.name.trim(), stage, choice };
    await changesOf(crateId)('PUT', this.#api, body, this.#outcome(`Saved ${tag}.`));
    this.busy = false;
  }
  async mark(stage: BuildStage): Promise<void> {
    const { crateId, tag, version, stage: before } = this.#build;
    if (stage === before) return;
    const outcome = this.#outcome(`${tag} is now ${STAGE_LABEL[stage]}.`);
    await changesOf(crateId)('PUT', `${this.#api}/stage`, { version, stage }, outcome);
  }
  async remove(): Promise<void> {
    const { crateId, tag, version } = this.#build;
    const { builds } = this.#of();
    await changesOf(crateId)('DELETE', this.#api, { version }, { words: `Deleted ${tag}.`, to: () => builds });
  }
}
