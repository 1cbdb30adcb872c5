import { isPairOf } from '../../parts/known-pair.ts';
import type { PartsRule } from './rule.ts';

/** Tells what was noted of this drive model behind this bridge. A bad note outweighs a good one: it is to be looked at. */
export const knownPair: PartsRule = ({ drive: { drive }, enclosure: { enclosure }, knownPairs }) => {
  const noted = knownPairs.filter((pair) => isPairOf(pair, drive, enclosure.bridge));
  const pair = noted.find(({ verdict }) => verdict === 'bad') ?? noted[0];
  if (!pair) return undefined;
  const { bridge, reason, source } = pair;
  const facts = { about: 'enclosure', bridge, reason, ...(source ? { source } : {}) } as const;
  return pair.verdict === 'bad'
    ? { code: 'known-bad-pair', severity: 'check', ...facts }
    : { code: 'known-good-pair', severity: 'note', ...facts };
};
