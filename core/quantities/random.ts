/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices below the length of the list */
/**
 * Gives a small seeded source of noise, so that a simulated result can be made again from its seed (mulberry32).
 * @returns a function giving numbers in 0..1
 * @example seeded(1)() === seeded(1)() // true
 */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * Shuffles a list fairly: every order is as likely as any other (Fisher and Yates).
 * @param random numbers from 0 to 1, 1 excluded
 */
export function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const out = [...list];
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [out[i], out[j]] = [out[j]!, out[i]!];
  }
  return out;
}
