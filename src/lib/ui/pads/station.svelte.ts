import { assemble, type Library } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import type { M2HeightCode } from '#core/facts/m2';
import type { HouseRules } from '#core/house-rules/house-rules';
import { boardOf, boardProblems, usualChips, type Component, type Side } from '#core/pads/board';
import type { StackChoice } from '#core/pads/choice';
import { padKinds } from '#core/pads/gap';
import { planPads } from '#core/pads/plan-pads';
import { gapsAfterImprint, proposePads, type Proposal } from '#core/pads/propose';
import { isDoubleSided } from '#core/parts/fill/drive';
import { plan } from '#core/plan/plan';
import type { PlanInput } from '#core/plan/report';
import { untouchedBy, type Imprint, type ImprintCheck } from '#core/temperature-logs/observation';

/** What the page gives; read anew whenever something in it changes. */
export type PadSource = {
  library: Library;
  choice: Choice;
  /** What the build was planned from, where a part of it is gone. */
  snapshot: PlanInput;
  rules: HouseRules | undefined;
};

/** Findings that have to do with pads, the board and their heat, by how their codes begin. */
const ABOUT_PADS = ['pad', 'board', 'chip', 'throttles', 'case', 'double', 'disk'];

/** The state of the station for pads: chips as they lie, pads as they are tried, and what comes of both. */
export class PadStation {
  readonly #of: () => PadSource;
  /** Chips that were moved and are not kept yet. */
  edited = $state.raw<readonly Component[] | null>(null);
  /** Pads that are tried and not kept yet. */
  tried = $state.raw<StackChoice | null>(null);
  side = $state<Side>('top');
  selected = $state<number | null>(null);

  constructor(of: () => PadSource) {
    this.#of = of;
  }

  readonly input = $derived.by((): PlanInput => {
    const { library, choice, snapshot } = this.#of();
    const assembled = assemble(library, choice);
    return assembled.ok ? assembled.input : snapshot;
  });
  readonly isM2 = $derived.by(() => this.input.drive.formFactor === 'm2' && this.input.enclosure.formFactor === 'm2');
  readonly #doubleSided = $derived.by(() => isDoubleSided(this.input.drive));
  readonly stored = $derived.by(() => boardOf(this.input.drive, this.#doubleSided));
  readonly chips = $derived.by((): readonly Component[] => this.edited ?? this.stored?.chips ?? []);
  readonly board = $derived.by(() => (this.stored ? { ...this.stored, chips: this.chips } : null));
  readonly drive = $derived.by(() =>
    this.edited ? { ...this.input.drive, components: [...this.edited] } : this.input.drive
  );
  readonly room = $derived.by(() => ({
    top: this.input.enclosure.clearanceTopMm,
    bottom: this.input.enclosure.clearanceBottomMm
  }));
  readonly problems = $derived.by(() =>
    this.board ? boardProblems(this.chips, this.board.lengthMm, this.board.widthMm, this.room) : []
  );
  /** The pads that stand: those that are tried, those that are kept, or nothing, so that the program chooses. */
  readonly chosen = $derived.by(() => this.tried ?? this.#of().choice.stack);
  readonly gaps = $derived.by(() => this.chosen?.gaps ?? []);
  readonly #stackInput = $derived.by(() => ({
    drive: this.drive,
    doubleSided: this.#doubleSided,
    enclosure: this.input.enclosure,
    pads: this.input.pads,
    chosen: this.chosen,
    rules: this.#of().rules
  }));
  readonly laid = $derived.by(() => planPads(this.#stackInput));
  readonly proposals = $derived.by(() => (this.problems.length === 0 ? proposePads(this.#stackInput) : null));
  readonly kinds = $derived.by(() => padKinds(this.input.enclosure.includedPads, this.input.pads));
  readonly report = $derived.by(() =>
    plan({ ...this.input, drive: this.drive, ...(this.tried ? { stack: this.tried } : {}) }, { workings: false })
  );
  readonly findings = $derived.by(() =>
    this.report.findings.filter(({ code }) => ABOUT_PADS.some((word) => code.startsWith(word)))
  );

  /** Forgets what is not kept: the build or the drive was stored anew. */
  forget(): void {
    this.edited = null;
    this.tried = null;
  }
  show(side: Side): void {
    this.side = side;
    this.selected = null;
  }
  setChip(index: number, chip: Component): void {
    this.edited = this.chips.map((c, i) => (i === index ? chip : c));
  }
  removeChip(index: number): void {
    this.edited = this.chips.filter((_, i) => i !== index);
    this.selected = null;
  }
  addChip(): void {
    const chip: Component = {
      role: 'nand',
      side: this.side,
      xMm: 30,
      yMm: 4,
      lengthMm: 14,
      widthMm: 14,
      heightMm: 1.2
    };
    this.edited = [...this.chips, chip];
    this.selected = this.chips.length - 1;
  }
  /** Lays the chips out as modules of a height code usually have them. */
  useLayout(code: string): void {
    if (!this.board || code === '') return;
    const dram = this.input.drive.flash?.dram !== false;
    this.edited = usualChips(this.board.lengthMm as 80, code as M2HeightCode, dram).map((chip) => ({ ...chip }));
    this.selected = null;
  }
  /** The pads over a chip, as a menu names them. */
  layersAt(component: number): string {
    const choice = this.laid.filled.find(({ at }) => at === component)?.choice;
    return choice?.layers.map((pad) => pad.key).join(' + ') ?? '';
  }
  choosePad(component: number, keys: string): void {
    const pieces = this.laid.filled.map(({ at, choice }) => ({
      component: at,
      layers: at === component ? keys.split(' + ').filter(Boolean) : (choice?.layers.map((pad) => pad.key) ?? [])
    }));
    this.tried = { pieces, ...(this.gaps.length > 0 ? { gaps: [...this.gaps] } : {}) };
  }
  pick(proposal: Proposal): void {
    this.tried = proposal.choice;
  }
  /** A gap that was measured: the best pads for it are tried at once. */
  measureGap(component: number, mm: number | null): void {
    const now = this.chosen ?? { pieces: [] };
    const others = (now.gaps ?? []).filter((gap) => gap.component !== component);
    const gaps = mm === null ? others : [...others, { component, atLeastMm: mm, measured: true }];
    this.#tryBest({ ...now, gaps });
  }
  /** What no pad touched has a gap at least as wide as that pad: the next proposal follows from it. */
  nextAfter(untouched: readonly number[]): void {
    this.#tryBest(gapsAfterImprint(this.chosen ?? { pieces: [] }, this.laid.rows, untouched));
  }
  #tryBest(choice: StackChoice): void {
    this.tried = proposePads({ ...this.#stackInput, chosen: choice })?.sets[0]?.choice ?? choice;
  }
  /** What an imprint showed, as it is kept; a chip of which nothing was said has an even one. */
  imprintOf(seen: Record<number, { onChip: Imprint; onCase: Imprint }>, note: string): ImprintCheck {
    return {
      chips: this.laid.rows.map((row) => ({
        component: row.component,
        role: row.role,
        side: row.side,
        padsMm: row.pads,
        ...(seen[row.component] ?? { onChip: 'even' as const, onCase: 'even' as const })
      })),
      ...(note.trim() ? { note: note.trim() } : {})
    };
  }
  /** Tries the next pads where an imprint shows that some touched nothing. */
  afterImprint(check: ImprintCheck): void {
    const untouched = untouchedBy(check);
    if (untouched.length > 0) this.nextAfter(untouched);
  }
}
