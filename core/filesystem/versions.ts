/** Compares dotted versions number by number: 10.6.5 < 10.13 < 14. Missing places count as 0. */
export function compareVersions(a: string, b: string): number {
  const left = numbersOf(a);
  const right = numbersOf(b);
  for (let i = 0; i < Math.max(left.length, right.length); i++) {
    const difference = (left[i] ?? 0) - (right[i] ?? 0);
    if (difference !== 0) return Math.sign(difference);
  }
  return 0;
}

// The same few versions are compared millions of times when every combination is ranked.
const parsed = new Map<string, readonly number[]>();

function numbersOf(version: string): readonly number[] {
  let numbers = parsed.get(version);
  if (!numbers) {
    if (parsed.size > 1000) parsed.clear();
    numbers = version.split('.').map(Number);
    parsed.set(version, numbers);
  }
  return numbers;
}
