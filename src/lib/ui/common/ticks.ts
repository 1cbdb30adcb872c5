/**
 * A list of ticks with one set or taken off. The same tick twice stays once: a box also tells of a tick that the page itself has set.
 * @returns the same list where nothing changes
 */
export function withTick<T>(ticked: readonly T[], value: T, on: boolean): readonly T[] {
  if (ticked.includes(value) === on) return ticked;
  return on ? [...ticked, value] : ticked.filter((other) => other !== value);
}
