/* eslint-disable @typescript-eslint/no-non-null-assertion -- a path has one key at least */
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import { PLUG_LABELS } from '../parts/link-mode.ts';
import type { BoxReading } from './claims.ts';

/** A pad piece for a 2280 drive: what lies in most boxes that give no size. Typical, and said so where it is used. */
const USUAL_PAD = { widthMm: 20, lengthMm: 70 };

type Spec = Record<string, unknown>;

function put(into: Spec, path: string, value: unknown): void {
  const keys = path.split('.');
  let at = into;
  for (const key of keys.slice(0, -1)) at = (at[key] ??= {}) as Spec;
  at[keys.at(-1)!] = value;
}

/** Parts in the box as the schema wants them: named, with what the text leaves out taken from the usual. */
function completed(path: string, value: unknown, spec: Spec): unknown {
  if (path === 'includedPads')
    return (value as Spec[]).map((pad) => ({
      kind: 'pad',
      name: `Included pad ${String(pad.thicknessMm)} mm`,
      ...USUAL_PAD,
      ...pad
    }));
  if (path === 'includedCables')
    return (value as { ends: (keyof typeof PLUG_LABELS)[]; lengthM?: number; modes?: LinkMode[] }[]).map((cable) => ({
      kind: 'cable',
      name: `Included ${cable.ends.map((end) => PLUG_LABELS[end]).join(' to ')}`,
      // A cable in the box of a case is made for the best mode of that case; a USB-A plug ends that at 10 Gb/s.
      modes: cable.ends.includes('usb-a')
        ? ((spec.modes as LinkMode[] | undefined) ?? ['usb-5g']).filter(
            (m) => LINK_MODES[m].rank <= LINK_MODES['usb-10g'].rank
          )
        : ((spec.modes as LinkMode[] | undefined) ?? ['usb-10g']),
      ...cable
    }));
  return value;
}

/**
 * Gives a reading as the beginning of a specification: what was found, and the answers that the person gave.
 * @param answers by path, the option chosen; a question without an answer leaves its field empty
 * @param dropped paths that the person has put aside
 * @example specFrom(readSpecification('2 TB M.2 drive, read 7000 MB/s', 'drive'), {}).readMBps // 7000
 */
export function specFrom(
  reading: BoxReading,
  answers: Readonly<Record<string, number>> = {},
  dropped: ReadonlySet<string> = new Set()
): Spec {
  const spec: Spec = { kind: reading.kind, name: reading.name };
  for (const { path, value } of reading.found) if (!dropped.has(path)) put(spec, path, value);
  for (const { path, options } of reading.questions) {
    const option = options[answers[path] ?? -1];
    if (option) put(spec, path, option.value);
  }
  for (const path of ['includedPads', 'includedCables']) if (spec[path]) spec[path] = completed(path, spec[path], spec);
  const cooling = spec.cooling as Spec | undefined;
  // The schema has a material only of a cooling: a case without a word about a fan has none.
  if (cooling && !('kind' in cooling)) cooling.kind = 'passive';
  return spec;
}
