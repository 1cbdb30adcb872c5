const DAY_MS = 86_400_000;

/**
 * Gives a calendar day some days later, without time zones.
 *  @param iso `2026-11-23`   @throws RangeError if it is no such date */
export function addDays(iso: string, days: number): string {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso);
  if (!match) throw new RangeError(`no date: ${iso}`);
  const at = Date.UTC(Number(match[1]), Number(match[2]) - 1, Number(match[3])) + days * DAY_MS;
  return new Date(at).toISOString().slice(0, 10);
}
