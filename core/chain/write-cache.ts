import { chosenOption, type HouseRules } from '../house-rules/house-rules.ts';
import type { Os } from '../parts/host.ts';

export type WriteCache = 'performance' | 'quick-removal';

/** How a host treats an external drive, and where that is known from. */
export type WriteCachePolicy = { policy: WriteCache; from: 'build' | 'rule' | 'system' };

/**
 * Finds the write cache policy of a drive on its host. Windows formats with quick removal and keeps that until somebody switches it:
 * unless the build or the crate's own rule says otherwise, that is what a plan is for.
 * @returns null on other systems, which cache writes and ask for ejecting
 */
export function writeCachePolicy(
  os: Os,
  rules: HouseRules | undefined,
  build: WriteCache | undefined
): WriteCachePolicy | null {
  if (os.family !== 'windows') return null;
  if (build !== undefined) return { policy: build, from: 'build' };
  if (rules?.['write-cache'] !== undefined)
    return { policy: chosenOption('write-cache', rules) as WriteCache, from: 'rule' };
  return { policy: 'quick-removal', from: 'system' };
}
