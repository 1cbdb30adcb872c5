import type { AttachedReport } from '#core/format/attached';

/** The disks that are attached to a build's computer, as they come and go. */
export class Attached {
  readonly #of: () => { buildId: string; system: string };
  report = $state.raw<AttachedReport | undefined>(undefined);
  /** Counts what was plugged or pulled while one looked. */
  events = $state(0);
  failed = $state(false);
  #step = 0;

  constructor(of: () => { buildId: string; system: string }) {
    this.#of = of;
  }

  #query = () => new URLSearchParams({ ...this.#of(), step: String(this.#step) });

  #take(report: AttachedReport): void {
    const before = this.report;
    if (before && JSON.stringify(before.devices) !== JSON.stringify(report.devices)) this.events += 1;
    this.report = report;
  }

  async look(): Promise<void> {
    try {
      const response = await fetch(`/api/disks?${this.#query()}`);
      this.failed = !response.ok;
      if (response.ok) this.#take((await response.json()) as AttachedReport);
    } catch {
      this.failed = true;
    }
  }

  /** The next step of the stand-in's script. */
  async next(): Promise<void> {
    this.#step = (this.report?.step ?? this.#step) + 1;
    await this.look();
  }

  /** Looks now; real disks are watched as they come and go. */
  start(): () => void {
    let events: EventSource | undefined;
    void this.look().then(() => {
      if (this.report?.source !== 'system') return;
      events = new EventSource(`/api/disks/events?${this.#query()}`);
      events.onmessage = ({ data }: MessageEvent<string>) => this.#take(JSON.parse(data) as AttachedReport);
    });
    return () => events?.close();
  }
}
