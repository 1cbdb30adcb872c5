import type { AttachedReport } from '#core/format/attached';

/** Where attached disks are read from: this machine, or the stand-in. */
export type DiskSource = {
  /** What is attached now. */
  list(at: string): Promise<AttachedReport>;
  /** Calls back whenever something was plugged or pulled, until the signal ends. */
  watch(changed: (report: AttachedReport) => void, signal: AbortSignal): Promise<void>;
};

/**
 * Watches a source by listing again and again, and tells of what is other than before.
 * @param everyMs how long between two looks
 */
export async function watchByLooking(
  look: () => Promise<AttachedReport>,
  changed: (report: AttachedReport) => void,
  { signal, everyMs }: { signal: AbortSignal; everyMs: number }
): Promise<void> {
  let before = '';
  while (!signal.aborted) {
    const report = await look();
    const now = JSON.stringify(report.devices);
    if (now !== before && !signal.aborted) changed(report);
    before = now;
    await new Promise<void>((resolve) => {
      const done = () => {
        clearTimeout(timer);
        signal.removeEventListener('abort', done);
        resolve();
      };
      const timer = setTimeout(done, everyMs);
      signal.addEventListener('abort', done);
    });
  }
}
