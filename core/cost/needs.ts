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
 * Finds the cable that a plan runs on: the chosen one, else the one in the box with the best mode; where none in the box does it, one
 * has to be bought.
 */
function cableNeed({ host, portId, cable, enclosure }: NeedsOf): Need {
  const port = host.ports.find(({ id }) => id === portId);
  const { cableFrom, cable: used } = port
    ? negotiate(port, cable, enclosure)
    : { cableFrom: cable ? ('chosen' as const) : ('assumed' as const), cable: cable ?? null };
  if (cableFrom === 'captive') return { role: 'cable', name: 'Fixed cable', inBoxOf: enclosure.name };
  if (used && cableFrom === 'chosen') return { role: 'cable', name: used.name, modelId: used.id };
  if (used && cableFrom === 'box') return { role: 'cable', name: used.name, inBoxOf: enclosure.name };
  const name = enclosure.includedCables?.length
    ? 'A cable that fits this port: none is chosen, and none in the box does'
    : 'A cable that fits: none is chosen and none is in the box';
  return { role: 'cable', name };
}

/** Finds a pad for each thickness, mm: in the box, or of the crate, or to be bought. */
const padNeeds = ({ enclosure, padsMm }: NeedsOf, pads: readonly Pad[]): Need[] =>
  [...new Set(padsMm)].map((thicknessMm) => {
    const boxed = enclosure.includedPads?.find((pad) => pad.thicknessMm === thicknessMm);
    if (boxed) return { role: 'pad', name: boxed.name, inBoxOf: enclosure.name };
    const stock = pads.find((pad) => pad.thicknessMm === thicknessMm);
    return { role: 'pad', name: stock?.name ?? `Pad of ${thicknessMm} mm`, modelId: stock?.id };
  });

/** Lists what to have ready beside the parts. */
function checksFor({ enclosure, padMissing }: NeedsOf): string[] {
  const { retention, formFactor, externalSupply } = enclosure;
  const checks: string[] = [];
  if (padMissing)
    checks.push('No pad at hand closes the gap: see the pad finding of the plan for the thickness to buy.');
  if (formFactor === 'm2' && (retention === 'screw' || retention === 'screw-from-below'))
    checks.push(
      'A small screwdriver; the screw for the drive is usually in the box of the enclosure. Look before you start.'
    );
  if (retention === undefined && formFactor === 'm2')
    checks.push('Whether the drive is held by a screw is not noted: have a small screwdriver ready.');
  if (formFactor === '2.5in' && retention !== 'tool-less' && retention !== 'tray')
    checks.push('Four screws for a 2.5-inch drive, and their driver.');
  if (externalSupply)
    checks.push('The power supply of the enclosure, and a free socket near the desk. Never open a supply.');
  checks.push('Bare metal to touch before the drive: static harms it.');
  return checks;
}

/**
 * Lists what a build needs, from its chosen parts, the boxes they come in and the pads its plan asks for.
 * @param pads of the crate
 * @example needsOf({ ...anInput(), padsMm: [], padMissing: false }, []).needs.map(({ role }) => role) // ['host', 'drive', 'enclosure', 'cable']
 */
export function needsOf(build: NeedsOf, pads: readonly Pad[]): { needs: Need[]; checks: string[] } {
  const { host, drive, enclosure } = build;
  return {
    needs: [
      { role: 'host', name: host.name, modelId: host.id },
      { role: 'drive', name: drive.name, modelId: drive.id },
      { role: 'enclosure', name: enclosure.name, modelId: enclosure.id },
      cableNeed(build),
      ...padNeeds(build, pads)
    ],
    checks: checksFor(build)
  };
}
