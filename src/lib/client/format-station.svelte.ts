import { choiceProblems, choicesMade, settle } from '#core/format/settled';
import { ladderOf } from '#core/format/sheet';
import type { PlanInput, PlanReport } from '#core/plan/report';
import type { FormatChoices } from '#core/sheets/format-choices';
import { changesOf } from './change';
import { OpenSheet, type SheetOf } from './open-sheet.svelte';

type Source = {
  crateId: string;
  build: { id: string; tag: string; name: string; snapshot: PlanInput; report: PlanReport };
  whole: SheetOf | null;
};
const NO_SHEET: SheetOf = {
  stored: { id: '', version: 0, kind: 'format', unitIds: [], seen: {} },
  entries: [],
  photos: []
};

/** Formatting one build, as its pages share it: the sheet, what is settled, and what cannot be. */
export class FormatStation {
  readonly #of: () => Source;
  readonly open: OpenSheet;
  /** What was chosen last and cannot be: it stands in its field, with the reason. */
  refused = $state.raw<FormatChoices>({});
  busy = $state(false);

  constructor(of: () => Source) {
    this.#of = of;
    this.open = new OpenSheet(() => {
      const { crateId, build, whole } = of();
      return { crateId, tag: build.tag, title: build.name, parts: build.snapshot, whole: whole ?? NO_SHEET };
    });
  }

  readonly begun = $derived.by(() => this.#of().whole !== null);
  readonly made = $derived.by(() => choicesMade(this.open.entries));
  readonly settled = $derived.by(() => this.#settle({ ...this.made, ...this.refused }));
  readonly problems = $derived.by(() => choiceProblems({ ...this.made, ...this.refused }, this.settled));
  readonly ladder = $derived.by(() => ladderOf(this.#of().build.snapshot, this.settled));

  #settle(choices: FormatChoices) {
    const { snapshot, report, name } = this.#of().build;
    return settle(snapshot, report, choices, name);
  }

  #beginning: Promise<boolean> | undefined;

  /** Begins the sheet, where there is none; two who ask at once wait for the same one. */
  begin(unitIds: readonly string[] = []): Promise<boolean> {
    this.#beginning ??= this.#begin(unitIds).finally(() => (this.#beginning = undefined));
    return this.#beginning;
  }

  async #begin(unitIds: readonly string[]): Promise<boolean> {
    const { crateId, build } = this.#of();
    this.busy = true;
    const refused = await changesOf(crateId)(
      'POST',
      `/api/crates/${crateId}/builds/${build.id}/sheets`,
      { kind: 'format', unitIds },
      `Began the format sheet of ${build.tag}.`
    );
    this.busy = false;
    return refused === undefined;
  }

  /** Settles something: what cannot be stays in its field, all else is kept on the sheet. */
  async choose(choices: FormatChoices): Promise<void> {
    const wanted: FormatChoices = { ...this.refused, ...choices };
    const problems = choiceProblems({ ...this.made, ...wanted }, this.#settle({ ...this.made, ...wanted }));
    const wrong = new Set(problems.map(({ path }) => path.split('.')[0]));
    const part = (isWrong: boolean): FormatChoices =>
      Object.fromEntries(Object.entries(wanted).filter(([field]) => wrong.has(field) === isWrong));
    // What cannot be waits in its field; all else is kept.
    this.refused = part(true);
    const value = part(false);
    if (Object.keys(value).length === 0) return;
    if (!this.begun && !(await this.begin())) return;
    await this.open.answer({ question: 'format', value });
  }
}
