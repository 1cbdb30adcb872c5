import type { Expected } from '#core/listing/device';
import { LEAST_IDENTITY, plainSerial, tellingSerial } from '#core/listing/identity';
import { readListing, LONGEST_LISTING } from '#core/listing/read';
import { LISTING_MINUTES, type EraseReport } from '#core/erase/unlock';
import { choiceProblems, type Settled } from '#core/format/settled';
import { send } from './api';

type Source = {
  build: { id: string; version: number; crateId: string };
  settled: Settled;
  expect: Expected;
  /** How often something was plugged or pulled, and whether that was on this very machine. */
  events: number;
  real: boolean;
};

const CHECK_MS = 10_000;

/** The guard against the wrong disk: a listing, the device that is meant, and the commands once that is proved. Nothing of it is kept. */
export class Guard {
  readonly #of: () => Source;
  text = $state('');
  /** When the listing was pasted, ms. */
  at = $state(0);
  /** Whether it was taken from what is attached: what is plugged there makes it old. */
  #fromAttached = false;
  /** Void for good: only another listing unlocks anything. */
  #void = false;
  device = $state<string | undefined>(undefined);
  identity = $state('');
  answer = $state.raw<EraseReport | undefined>(undefined);
  /** The same commands with the placeholder, for what is printed. */
  plain = $state.raw<readonly string[]>([]);
  problem = $state('');
  /** Why it is locked again after it was open. */
  relocked = $state('');
  busy = $state(false);
  now = $state(0);
  #eventsThen = 0;
  #asked = 0;
  #order = '';

  constructor(of: () => Source) {
    this.#of = of;
  }

  readonly tooLong = $derived.by(() => this.text.length > LONGEST_LISTING);
  readonly report = $derived.by(() =>
    this.text.trim() === '' || this.tooLong ? undefined : readListing(this.text, this.#of().expect)
  );
  /** What is chosen, else what is matched, else the only one that what is typed can be the end of. */
  readonly chosen = $derived.by(() => this.device ?? this.report?.match.device ?? this.#typedFor());
  /** Minutes that the listing still holds. */
  readonly minutesLeft = $derived.by(() =>
    this.at === 0 ? LISTING_MINUTES : Math.max(0, Math.ceil(LISTING_MINUTES - (this.now - this.at) / 60_000))
  );

  #typedFor(): string | undefined {
    const typed = plainSerial(this.identity);
    if (typed.length < LEAST_IDENTITY) return undefined;
    const ends = (this.report?.devices ?? []).filter(
      (device) => !device.systemDisk && tellingSerial(device)?.endsWith(typed)
    );
    return ends.length === 1 ? ends[0]?.device : undefined;
  }
  /** What is to be made: nothing that was proved holds for anything else. */
  ordered(order: string): void {
    if (this.#order !== '' && order !== this.#order) {
      this.lock('What is to be made was changed: type the identity once more.');
      this.identity = '';
      void this.ask();
    }
    this.#order = order;
  }

  /** Takes a listing: everything that was proved with another one is void. */
  take(text: string, fromAttached = false): void {
    this.text = text;
    this.at = Date.now();
    this.now = this.at;
    this.#fromAttached = fromAttached;
    this.#void = false;
    this.device = undefined;
    this.identity = '';
    this.#eventsThen = this.#of().events;
    this.lock('');
    void this.ask();
  }
  choose(device: string): void {
    this.device = device;
    this.identity = '';
    this.lock('');
    void this.ask();
  }
  /** Locks what was open, with the reason; an answer that is on its way no longer counts. */
  lock(why: string): void {
    this.#asked += 1;
    if (why === '' || this.answer?.unlocked) this.relocked = why;
    this.answer = undefined;
  }
  /** Locks until there is another listing. */
  #end(why: string): void {
    this.#void = true;
    this.lock(why);
    this.relocked = why;
  }

  /** What is asked for: the device, what was typed for it, and what is to be made. */
  #request(): object {
    const { build, settled } = this.#of();
    const { filesystem, scheme, name, allocationUnit, variant, full, system } = settled;
    return {
      text: this.text,
      at: new Date(this.at).toISOString(),
      buildId: build.id,
      buildVersion: build.version,
      device: this.chosen ?? 'DEVICE',
      identity: this.identity,
      filesystem,
      scheme,
      name,
      allocationUnit,
      variant,
      full,
      system: system.family
    };
  }

  /** Asks for the commands: with the placeholder until what is typed proves which device is meant. */
  async ask(): Promise<void> {
    const { settled } = this.#of();
    if (this.#void || this.text.trim() === '' || this.tooLong || settled.system.family === 'chromeos') return;
    const wrong = choiceProblems({}, settled);
    this.problem = wrong
      .map(({ path, message }) => `${path === 'name' ? 'The name of the volume' : 'What is to be made'} ${message}.`)
      .join(' ');
    if (wrong.length > 0) return;
    const asked = (this.#asked += 1);
    const order = this.#order;
    this.busy = true;
    const answer = await send<EraseReport>('POST', '/api/erase-commands', this.#request());
    this.busy = false;
    if (answer.ok) this.#keepPlain(answer.data, order);
    // Whatever was typed meanwhile has been asked for by itself.
    if (asked !== this.#asked) return;
    this.answer = answer.ok ? answer.data : undefined;
    if (!answer.ok) this.problem = answer.failure.message;
    else if (answer.data.unlocked) this.relocked = '';
  }

  /** The commands with the placeholder hold whatever was typed meanwhile, as long as the same is to be made. */
  #keepPlain({ unlocked, commands }: EraseReport, order: string): void {
    if (!unlocked && order === this.#order) this.plain = commands;
  }

  /** Looks whether something has made it void: the clock, a device that came or went, somebody who changed the build. */
  async check(): Promise<void> {
    this.now = Date.now();
    if (this.at === 0 || this.#void) return;
    const { build, events, real } = this.#of();
    if (this.minutesLeft === 0)
      return this.#end(`The list is older than ${LISTING_MINUTES} minutes: names move. Paste a new one.`);
    if ((this.#fromAttached || real) && events !== this.#eventsThen)
      return this.#end('A device was plugged or pulled since: names may have moved. Take the new list.');
    if (this.answer?.unlocked && (await isOlder(build)))
      this.#end('Somebody changed this build since: load the page again, and look whether it is still this drive.');
  }
  start(): () => void {
    const timer = setInterval(() => void this.check(), CHECK_MS);
    return () => clearInterval(timer);
  }
}

/** Whether a build has been changed since a page was loaded; no where nobody answers. */
async function isOlder({ id, version, crateId }: Source['build']): Promise<boolean> {
  const response = await fetch(`/api/crates/${crateId}/builds/${id}`).catch(() => undefined);
  if (!response?.ok) return false;
  const now = (await response.json()) as { version?: number };
  return now.version !== undefined && now.version !== version;
}
