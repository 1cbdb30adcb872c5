import type { FileKind } from '#core/tables/file-kind';
import type { Kind } from '#core/parts/kinds';
import { keepDraft, keptDraft } from '$lib/ui/common/drafts';
import { assigned, withKept, type KeptColumns } from '$lib/ui/tables/kept-columns';
import type { ImportPreview, MendedCell } from '$lib/ui/tables/preview';
import { send } from './api';
import { WatchedTask, type TaskView } from './task.svelte';

export type Imported = { group: string; counts: ImportPreview['counts'] };

/** A table file on its way into a crate: chosen, matched to columns, put right where it is wrong, and taken in. */
export class Importing {
  what = $state<string>('models:drive');
  file = $state.raw<{ name: string; text: string; format: 'csv' | 'json' }>();
  preview = $state.raw<ImportPreview>();
  mended = $state.raw<readonly MendedCell[]>([]);
  problem = $state('');
  skipWrong = $state(false);
  busy = $state(false);
  readonly task: WatchedTask;
  /** Columns that were assigned: kept from the moment they are chosen, before the server has answered. */
  #mapping: (string | null)[] | undefined;
  #turn = 0;

  constructor(
    readonly crateId: string,
    readonly ondone: (imported: Imported | undefined) => void
  ) {
    this.task = new WatchedTask(`task:import:${crateId}`, (state) => this.#ended(state));
  }

  get #kept(): string {
    return `columns:${this.crateId}:${this.what}`;
  }
  /** How many rows would be written. */
  get writes(): number {
    return this.preview ? this.preview.counts.new + this.preview.counts.changed : 0;
  }
  get ready(): boolean {
    return !this.busy && this.writes > 0 && (this.preview?.counts.wrong === 0 || this.skipWrong);
  }
  get #request() {
    const [what, kind] = this.what.split(':') as [FileKind, Kind | undefined];
    return {
      what,
      ...(kind ? { kind } : {}),
      format: this.file?.format,
      text: this.file?.text,
      ...(this.#mapping ? { mapping: this.#mapping } : {}),
      ...(this.mended.length > 0 ? { mended: this.mended } : {})
    };
  }

  async #look(): Promise<void> {
    if (!this.file) return;
    const mine = ++this.#turn;
    this.busy = true;
    this.problem = '';
    const answer = await send<ImportPreview>('POST', `/api/crates/${this.crateId}/import/preview`, this.#request);
    // A later question is on its way: its answer counts, whichever comes first.
    if (mine !== this.#turn) return;
    this.busy = false;
    this.preview = answer.ok ? answer.data : undefined;
    if (!answer.ok) this.problem = answer.failure.message;
  }
  /** Looks at what is chosen as if for the first time: columns matched by the program, then by what was assigned before. */
  async #lookAnew(): Promise<void> {
    this.#mapping = undefined;
    this.mended = [];
    this.skipWrong = false;
    await this.#look();
    if (!this.preview || this.preview.headings.length === 0) return;
    const mapping = withKept(this.preview.headings, this.preview.mapping, keptDraft<KeptColumns>(this.#kept) ?? {});
    if (String(mapping) === String(this.preview.mapping)) return;
    this.#mapping = mapping;
    await this.#look();
  }
  async choose(chosen: File): Promise<void> {
    const text = await chosen.text();
    this.file = { name: chosen.name, text, format: /\.json$/i.test(chosen.name) ? 'json' : 'csv' };
    await this.#lookAnew();
  }
  chooseWhat(): void {
    void this.#lookAnew();
  }
  /** Assigns a column of the file to a field, or to none. */
  assign(column: number, path: string | null): void {
    if (!this.preview) return;
    const { headings, mapping } = this.preview;
    const before = this.#mapping ?? mapping;
    this.#mapping = before.map((of, i) => (i === column ? path : of === path ? null : of));
    keepDraft(this.#kept, assigned(keptDraft<KeptColumns>(this.#kept) ?? {}, headings[column] ?? '', path));
    void this.#look();
  }
  /** Reads a cell otherwise than the file has it. */
  mend(row: number, path: string, cell: string): void {
    this.mended = [...this.mended.filter((m) => m.row !== row || m.path !== path), { row, path, cell }];
    void this.#look();
  }
  async start(): Promise<void> {
    this.busy = true;
    this.#mapping ??= this.preview?.headings.length ? this.preview.mapping : undefined;
    const answer = await send<TaskView>('POST', `/api/crates/${this.crateId}/import`, {
      ...this.#request,
      ...(this.skipWrong ? { skipWrong: true } : {})
    });
    this.busy = false;
    if (answer.ok) this.task.follow(answer.data);
    else this.problem = answer.failure.message;
  }
  #ended(state: TaskView): void {
    if (state.state === 'failed') this.problem = state.error?.message ?? state.step;
    else if (state.state === 'done') {
      this.file = undefined;
      this.preview = undefined;
      this.mended = [];
      this.ondone(state.result as Imported);
    } else this.ondone(undefined);
  }
}
