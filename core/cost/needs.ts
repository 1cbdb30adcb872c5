import { negotiate } from '../chain/negotiate.ts';
import type { Pad } from '../parts/pad.ts';
import type { Enclosure } from '../parts/enclosure.ts';
import type { Host } from '../parts/host.ts';
import type { Drive } from '../parts/drive.ts';
import type { Cable } from '../parts/cable.ts';
import type { Need } from './shopping.ts';

/** The parts of a build, and what its plan says of its pads. */
export type NeedsOf = {
  host: Host;
  portId: string;
  cable?: Cable | undefined;
  enclosure: Enclosure;
  drive: Drive;
  /** Thicknesses that the stack takes, mm. */
  padsMm: readonly number[];
  /** Whether no pad at hand closes some gap. */
  padMissing: boolean;
};

/**
 * Lists what a build needs, from its chosen parts, the boxes they come in and the pads its plan asks for. The cable is the one that the
 * plan runs on: the chosen one, else the one in the box with the best mode; where none in the box does it, one has to be bought.
 * @param pads of the crate
 */
export function needsOf(
  { host, portId, cable, enclosure, drive, padsMm, padMissing }: NeedsOf,
  pads: readonly Pad[]
): { needs: Need[]; checks: string[] } {
  const needs: Need[] = [
    { role: 'host', name: host.name, modelId: host.id },
    { role: 'drive', name: drive.name, modelId: drive.id },
    { role: 'enclosure', name: enclosure.name, modelId: enclosure.id }
  ];
  const checks: string[] = [];
  const port = host.ports.find(({ id }) => id === portId);
  const { cableFrom, cable: used } = port
    ? negotiate(port, cable, enclosure)
    : { cableFrom: cable ? ('chosen' as const) : ('assumed' as const), cable: cable ?? null };
  if (cableFrom === 'captive') needs.push({ role: 'cable', name: 'Fixed cable', inBoxOf: enclosure.name });
  else if (cableFrom === 'chosen') needs.push({ role: 'cable', name: used!.name, modelId: used!.id });
  else if (cableFrom === 'box') needs.push({ role: 'cable', name: used!.name, inBoxOf: enclosure.name });
  else
    needs.push({
      role: 'cable',
      name: enclosure.includedCables?.length
        ? 'A cable that fits this port: none is chosen, and none in the box does'
        : 'A cable that fits: none is chosen and none is in the box'
    });
  for (const thicknessMm of new Set(padsMm)) {
    const boxed = enclosure.includedPads?.find((pad) => pad.thicknessMm === thicknessMm);
    const stock = pads.find((pad) => pad.thicknessMm === thicknessMm);
    if (boxed) needs.push({ role: 'pad', name: boxed.name, inBoxOf: enclosure.name });
    else needs.push({ role: 'pad', name: stock?.name ?? `Pad of ${thicknessMm} mm`, modelId: stock?.id });
  }
  if (padMissing)
    checks.push('No pad at hand closes the gap: see the pad finding of the plan for the thickness to buy.');
  if (enclosure.retention === 'screw')
    checks.push(
      'A small screwdriver; the screw for the drive is usually in the box of the enclosure. Look before you start.'
    );
  if (enclosure.retention === undefined && enclosure.formFactor === 'm2')
    checks.push('Whether the drive is held by a screw is not noted: have a small screwdriver ready.');
  if (enclosure.formFactor === '2.5in' && enclosure.retention !== 'tool-less')
    checks.push('Four screws for a 2.5-inch drive, and their driver.');
  if (enclosure.externalSupply)
    checks.push('The power supply of the enclosure, and a free socket near the desk. Never open a supply.');
  checks.push('Bare metal to touch before the drive: static harms it.');
  return { needs, checks };
}
