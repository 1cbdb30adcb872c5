import type { ListedDevice } from './device.ts';
import { sizeOf } from './text.ts';

/** What is put together of a device from several listings. */
export type MacDraft = ListedDevice & { systemHint?: boolean };
export type MacDrafts = Map<string, MacDraft>;

/**
 * Gives the whole device that a name of macOS lies on.
 * @example wholeDisk('disk4s2') // 'disk4'
 */
export const wholeDisk = (name: string): string | null =>
  /^(?:\/dev\/)?r?(disk\d+)(?:s\d+)*$/.exec(name.trim())?.[1] ?? null;

/**
 * Gives what is put together of a device, new where it was not named before.
 * @example draftOf(new Map(), 'disk4').device // '/dev/disk4'
 */
export function draftOf(drafts: MacDrafts, disk: string): MacDraft {
  const device = `/dev/${disk}`;
  let draft = drafts.get(device);
  if (!draft) {
    draft = { device, bytes: null, approxGB: null, mounts: [], systemDisk: false };
    drafts.set(device, draft);
  }
  return draft;
}

/**
 * Notes a size as macOS writes it, the exact one where it stands in brackets.
 * @example setSize(draftOf(new Map(), 'disk4'), '2.0 TB (2000398934016 Bytes)')
 */
export function setSize(draft: MacDraft, text: string): void {
  const [rough = '', inside = ''] = text.split('(', 2);
  const sizes = [inside.split(')')[0] ?? '', rough.replace(/[*+]/, '')].map((part) => sizeOf(part, false));
  const bytes = sizes.map((size) => size?.bytes).find((exact) => typeof exact === 'number');
  const gb = sizes.map((size) => size?.gb).find((said) => said !== undefined);
  if (bytes !== undefined) draft.bytes = bytes;
  if (gb !== undefined && (draft.approxGB === null || bytes !== undefined)) draft.approxGB = gb;
}

/**
 * Notes where something of a device is mounted.
 * @example addMount(draftOf(new Map(), 'disk4'), '/Volumes/Scans')
 */
export function addMount(draft: MacDraft, mount: string | undefined): void {
  if (mount === undefined || !mount.startsWith('/') || draft.mounts.includes(mount)) return;
  draft.mounts.push(mount);
}
