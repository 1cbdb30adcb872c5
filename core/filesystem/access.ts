import { FILESYSTEMS, type FilesystemId } from '../facts/filesystems.ts';
import type { Os } from '../parts/host.ts';
import { compareVersions } from './versions.ts';

/** What a system can do with a filesystem; `old` where its version is too old for that, and whether software helps. */
export type Access = {
  can: 'writes' | 'reads' | 'no';
  old?: { since: string; software: boolean };
  unsureBefore?: string;
};

export const WRITES: Access = { can: 'writes' };
const READS: Access = { can: 'reads' };
const KNOWS_NOT: Access = { can: 'no' };

/**
 * Says what a system of this version can do with a filesystem.
 * @example accessOf('ntfs', { family: 'macos' }).can // 'reads'
 */
export function accessOf(id: FilesystemId, os: Os): Access {
  const facts = FILESYSTEMS[id];
  const support = facts.writes[os.family];
  if (!support) return facts.reads[os.family] ? READS : KNOWS_NOT;
  const { since, sure, software } = support;
  if (since && os.version && compareVersions(os.version, since) < 0)
    return { can: 'writes', old: { since, software: software === true } };
  if (sure && os.version && compareVersions(os.version, sure) < 0) return { can: 'writes', unsureBefore: sure };
  return WRITES;
}
