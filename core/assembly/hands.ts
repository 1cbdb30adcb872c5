import { chosenOption } from '../house-rules/house-rules.ts';
import { BAY_25_MM, THIN_25_MM } from '../facts/mounting.ts';
import { cutPieces, partRejected, type CutPiece } from '../pads/cutting/cut.ts';
import { stockPadsFor } from '../pads/gap.ts';
import { planPads } from '../pads/plan-pads.ts';
import type { Board, Component } from '../pads/board.ts';
import { isDoubleSided } from '../parts/fill/drive.ts';
import type { Opening, Retention } from '../parts/enclosure.ts';
import type { Port } from '../parts/host.ts';
import { portOf } from '../plan/resolve-build.ts';
import type { PlanInput } from '../plan/report.ts';

/** Parts that a step is for: with another of them it is another step. */
export type For = 'drive' | 'enclosure' | 'pads' | 'cable' | 'port';

/** One piece of pad as the hands lay it: all its layers together. */
export type PadPiece = Omit<CutPiece, 'layer' | 'pad'> & { letter: string; layersMm: number[]; names: string[] };

/** Where the power of a build comes from, and in which order it is plugged. */
export type PowerWay = 'port' | 'supply' | 'esata-supply' | 'esata-usb';

/** What the hands have to know of a build. */
export type Hands = {
  input: PlanInput;
  port: Port | undefined;
  /** What kind of place the drive goes into. */
  bay: 'm2' | '2.5in' | '3.5in';
  retention: Retention | undefined;
  opening: Opening | undefined;
  /** Whether pads are laid: as planned, the one of the box (nobody states the room for another), or none. */
  pads: 'planned' | 'box' | 'none';
  board: Board | null;
  pieces: PadPiece[];
  /** Gaps that nothing at hand closes: over which chip, and the thicknesses to buy, mm. */
  missing: { chip: Component; buyMm: number[] }[];
  /** Whether something is laid under the drive, so that it has to come out again after the dry fit. */
  under: boolean;
  doubleSided: boolean;
  /** Whether the label comes off: a paper one, by house rule. */
  label: 'keep' | 'remove' | 'none';
  /** How far the drive is thinner than its bay, mm; 0 where it is not, or nobody said. */
  spareMm: number;
  power: PowerWay;
  units: number;
  readyMade: boolean;
};

/**
 * Gives a short digest of a text, by FNV-1a, 32 bits, in base 36.
 * @example digest('') // 'ztntfp'
 */
export function digest(text: string): string {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0;
  return hash.toString(36);
}

/** Puts the layers of a piece together. */
function piecesOf(cut: readonly CutPiece[]): PadPiece[] {
  const pieces: PadPiece[] = [];
  for (const { layer, pad, ...piece } of cut) {
    const under = layer > 0 ? pieces.at(-1) : undefined;
    if (under) {
      under.layersMm.push(pad.thicknessMm);
      under.names.push(pad.name);
    } else
      pieces.push({
        ...piece,
        letter: String.fromCharCode(65 + (pieces.length % 26)),
        layersMm: [pad.thicknessMm],
        names: [pad.name]
      });
  }
  return pieces;
}

type Padded = Pick<Hands, 'pads' | 'board' | 'pieces' | 'missing'>;

/** Lays the pads as the plan does, and parts what is cut from what nothing at hand closes. */
function padded({ drive, enclosure, pads, stack, houseRules }: PlanInput, bay: Hands['bay']): Padded {
  if (bay !== 'm2' || drive.formFactor !== 'm2') return { pads: 'none', board: null, pieces: [], missing: [] };
  const doubleSided = isDoubleSided(drive);
  const laid = planPads({ drive, doubleSided, enclosure, pads, chosen: stack, rules: houseRules });
  if (!laid.board || laid.rows.length === 0) return { pads: 'box', board: laid.board, pieces: [], missing: [] };
  const { cut, rejected } = partRejected(laid.filled);
  const pieces = piecesOf(cutPieces(laid.board, cut, chosenOption('pieces', houseRules) === 'sheet'));
  const missing = rejected.map(({ chip, gapMm }) => ({ chip, buyMm: stockPadsFor(gapMm) }));
  // Where nobody lays a pad, on purpose or for want of one, there is none to lay.
  return { pads: pieces.length > 0 ? 'planned' : 'none', board: laid.board, pieces, missing };
}

function powerWay({ enclosure }: PlanInput, port: Port | undefined): PowerWay {
  const supply = enclosure.externalSupply === true || enclosure.formFactor === '3.5in';
  if (port?.plug === 'esata') return supply ? 'esata-supply' : 'esata-usb';
  return supply ? 'supply' : 'port';
}

function labelOf({ drive, houseRules }: PlanInput): Hands['label'] {
  if (drive.formFactor !== 'm2' || drive.label === 'none') return 'none';
  return drive.label === 'paper' && chosenOption('label', houseRules) === 'remove' ? 'remove' : 'keep';
}

/** Gives how much thinner a 2.5-inch drive is than its bay, mm, from a millimetre on. */
function spareRoom({ drive, enclosure }: PlanInput, bay: Hands['bay']): number {
  if (bay !== '2.5in' || drive.formFactor !== '2.5in') return 0;
  const thickness = drive.thicknessMm ?? THIN_25_MM;
  const room = (enclosure.maxThicknessMm ?? BAY_25_MM) - thickness;
  return room >= 1 ? Math.round(room * 10) / 10 : 0;
}

/**
 * Gathers what the hands have to know, from the parts of a build.
 * @param input the parts, as a plan takes them
 * @param units how many alike are put together at once, 1 or more
 * @param readyMade whether the drive comes out of a ready-made external
 * @example handsOf(anInput(), 1, false).bay // 'm2'
 */
export function handsOf(input: PlanInput, units: number, readyMade: boolean): Hands {
  const { drive, enclosure } = input;
  const port = portOf(input.host, input.portId);
  // A disk of either size lies in the bay of the enclosure; a module only in a slot.
  const bay = drive.formFactor === 'm2' || enclosure.formFactor === 'm2' ? drive.formFactor : enclosure.formFactor;
  const pads = padded(input, bay);
  return {
    input,
    port,
    bay,
    retention: enclosure.retention,
    opening: enclosure.opening,
    ...pads,
    under: pads.pieces.some(({ side }) => side === 'bottom'),
    doubleSided: isDoubleSided(drive),
    label: labelOf(input),
    spareMm: spareRoom(input, bay),
    power: powerWay(input, port),
    units,
    readyMade
  };
}

/** Gives what tells one set of parts from another, for the steps that are done to them. */
export function partsKey({ input, pieces }: Hands, parts: readonly For[]): string {
  const { drive, enclosure, cable, host, portId } = input;
  const nameOf: Record<For, () => string> = {
    drive: () => drive.id ?? drive.name,
    enclosure: () => enclosure.id ?? enclosure.name,
    cable: () => cable?.id ?? cable?.name ?? '',
    port: () => `${host.id ?? host.name} ${portId}`,
    pads: () => pieces.map(({ side, label, layersMm }) => `${side} ${label} ${layersMm.join('+')}`).join('; ')
  };
  return parts.length === 0 ? '' : digest(parts.map((part) => nameOf[part]()).join('\n'));
}
