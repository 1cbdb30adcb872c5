import { MBR_MAX_TB, type OsFamily } from '../facts/filesystems.ts';
import { chosenOption, ruleName, type HouseRules } from '../house-rules/house-rules.ts';
import type { Finding } from '../findings/finding.ts';

/** Devices whose firmware may know MBR only. */
export const SIMPLE: readonly OsFamily[] = ['camera', 'tv', 'console', 'car'];

/**
 * Picks the partition scheme. Simple devices may know MBR only: as far as that reaches they get it, unless the crate chose GPT; on a
 * larger drive that is something to look up.
 * @example schemeFor(['macos'], 2, undefined).scheme // 'gpt'
 */
export function schemeFor(
  families: readonly OsFamily[],
  capacityTB: number,
  rules: HouseRules | undefined
): { scheme: 'gpt' | 'mbr'; because: string; finding?: Finding } {
  const simple = families.filter((family) => SIMPLE.includes(family));
  const ruled = chosenOption('scheme', rules) as 'gpt' | 'mbr';
  const beyond = capacityTB > MBR_MAX_TB;
  const above = (severity: 'fail' | 'check', who: 'house rule' | 'device'): Finding => ({
    code: 'mbr-above-2tib',
    severity,
    about: 'drive',
    capacityTB,
    who,
    families: simple
  });
  if (rules?.scheme !== undefined) {
    const because = ruleName('scheme', rules);
    if (ruled === 'mbr') return { scheme: 'mbr', because, ...(beyond ? { finding: above('fail', 'house rule') } : {}) };
    return { scheme: 'gpt', because, ...(beyond && simple.length > 0 ? { finding: above('check', 'device') } : {}) };
  }
  if (simple.length > 0 && !beyond)
    return { scheme: 'mbr', because: 'MBR, because simple devices may know nothing else' };
  return {
    scheme: 'gpt',
    because: 'GPT, the default of every current system',
    ...(simple.length > 0 ? { finding: above('check', 'device') } : {})
  };
}
