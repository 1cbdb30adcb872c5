/**
 * Where practice differs: both sides, and the default. A house rule picks a side for a crate, and every place where a
 * rule decided something names it.
 */
type School = { question: string; choices: Record<string, string>; standard: string };

export const SCHOOLS = {
  'windows-drive': {
    question: 'A drive that only Windows uses',
    choices: { ntfs: 'NTFS, for its journal', exfat: 'exFAT, for no trouble with permissions' },
    standard: 'ntfs'
  },
  'mac-disk': {
    question: 'A hard disk that only Macs use',
    choices: { 'hfs+': 'Mac OS Extended, laid out for turning disks', apfs: 'APFS, for snapshots and encryption' },
    standard: 'hfs+'
  },
  'mac-backup': {
    question: 'A backup target for macOS 11 or later',
    choices: { apfs: 'APFS', 'hfs+': 'Mac OS Extended, for older systems and bootable installers' },
    standard: 'apfs'
  },
  scheme: {
    question: 'Partition scheme',
    choices: { gpt: 'GPT', mbr: 'MBR, for old firmware and simple devices' },
    standard: 'gpt'
  },
  'drive-class': {
    question: 'How fast a drive to buy',
    choices: { 'just-above-link': 'just above the link', headroom: 'headroom for a later host' },
    standard: 'just-above-link'
  },
  'gap-not-closed': {
    question: 'A gap that no pad at hand closes',
    choices: { 'buy-right': 'buy the one right thickness', stack: 'stack two pads' },
    standard: 'buy-right'
  },
  'write-cache': {
    question: 'Write cache on Windows',
    choices: {
      performance: 'better performance, always eject',
      'quick-removal': 'quick removal, slow and safe to pull'
    },
    standard: 'performance'
  }
} as const satisfies Record<string, School>;

export type SchoolId = keyof typeof SCHOOLS;
export type HouseRules = { readonly [id in SchoolId]?: string };

/** The side that a crate is on: its own choice where that exists, else the default. */
export function schoolChoice(id: SchoolId, rules: HouseRules | undefined): string {
  const chosen = rules?.[id];
  const school: School = SCHOOLS[id];
  return chosen !== undefined && chosen in school.choices ? chosen : school.standard;
}
