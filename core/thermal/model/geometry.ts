import {
  AIR_CONDUCTIVITY,
  CAPACITY,
  CASE_BOX,
  CASE_CLASS,
  CONTACT,
  CONVECTION,
  SPECIFIC_HEAT,
  UNKNOWN_CONTACT,
  USUAL_CONDUCTIVITY
} from '../../facts/thermal.ts';
import { isTunnelled } from '../../chain/modes.ts';
import type { FilledDrive } from '../../parts/fill/drive.ts';
import type { FilledEnclosure } from '../../parts/fill/enclosure.ts';
import type { FilledGap, StackPlan } from '../../pads/plan-pads.ts';
import { thicknessOf } from '../../pads/gap.ts';
import type { ThermalParameters } from './parameters.ts';

/** One way from a chip to the case: a pad that touches, or the air where none does. */
export type HeatPath = {
  areaMm2: number;
  gapMm: number;
  /** Sum over the layers of their share of the gap over their printed conductivity, mm K m/W; 0 for air. */
  printed: number;
  /** Contact of the faces, m² K/W. */
  contact: number;
};

/** What of a build does not depend on anything uncertain. */
export type ThermalGeometry = {
  kind: 'm2' | 'shell' | 'disk';
  controller: readonly HeatPath[];
  nand: readonly HeatPath[];
  /** J/K. */
  controllerJK: number;
  nandJK: number;
  caseJK: number;
  /** m² that air reaches, without fins, and the fins. */
  areaM2: number;
  finsM2: number;
  /** Still air over its faces as it stands: h = convection x rise^0.25, W/(m² K^1.25). */
  convection: number;
  /** m² that lie on the desk; none on cloth. */
  deskM2: number;
  fan: boolean;
  plastic: boolean;
  /** Measured over computed, 1 where nothing was measured. */
  caseFactor: number;
  chipFactor: number;
};

/** Gives the way through what fills a gap. Marginal contact counts twice its contact resistance. */
export function heatPathOf({ chip, gapMm, choice }: FilledGap): HeatPath {
  const areaMm2 = chip.widthMm * chip.lengthMm;
  if (!choice || choice.verdict === 'no-contact') return { areaMm2, gapMm, printed: 0, contact: 0 };
  const total = thicknessOf(choice.layers);
  let printed = 0;
  for (const pad of choice.layers) printed += ((pad.thicknessMm / total) * gapMm) / pad.conductivityWmK;
  const contact =
    choice.verdict === 'marginal' ? CONTACT.marginal : choice.layers.length > 1 ? CONTACT.two : CONTACT.one;
  return { areaMm2, gapMm, printed, contact };
}

const unknownPath = (areaMm2: number): HeatPath => ({
  areaMm2,
  gapMm: UNKNOWN_CONTACT.gapMm,
  printed: UNKNOWN_CONTACT.gapMm / USUAL_CONDUCTIVITY,
  contact: CONTACT.one
});

/** Gives conductance of a way, W/K: A / (gap / (k x truth) + contact + label). Air has neither faces nor a label that counts. */
export function conductanceOf(
  way: HeatPath,
  parameters: Pick<ThermalParameters, 'padConductivityShare' | 'label'>
): number {
  const area = way.areaMm2 * 1e-6;
  if (way.printed === 0) return (AIR_CONDUCTIVITY * area) / (way.gapMm * 1e-3);
  return area / ((way.printed * 1e-3) / parameters.padConductivityShare + way.contact + parameters.label);
}

/** Gives the class of case that stands in for what an enclosure does not state. */
export function caseClassOf({ enclosure: { formFactor, modes } }: FilledEnclosure): keyof typeof CASE_CLASS {
  return formFactor === 'm2' && modes.some((mode) => isTunnelled(mode)) ? 'm2-tunnel' : formFactor;
}

export type Stands = 'flat' | 'edge' | 'cloth';

/** A box of unit proportions as it stands: what air reaches of it, how still air takes heat off that, and what lies on the desk. */
type Standing = { areaCm2: number; convection: number; deskCm2: number };

/** Works out the faces of a box of l x w x h cm: c (dT / L)^0.25 over standing faces and over the one that looks up. */
function standingBox({ l, w, h }: { l: number; w: number; h: number }, stands: Stands): Standing {
  // [area, whether it looks up, height, or area over perimeter, in cm]
  const faces: [number, boolean, number][] =
    stands === 'edge'
      ? [
          [2 * l * w, false, w],
          [2 * w * h, false, w],
          [l * h, true, (l * h) / (2 * (l + h))]
        ]
      : [
          [2 * (l + w) * h, false, h],
          [l * w, true, (l * w) / (2 * (l + w))]
        ];
  let [area, sum] = [0, 0];
  for (const [face, up, lengthCm] of faces) {
    area += face;
    sum += (face * (up ? CONVECTION.up : CONVECTION.standing)) / (lengthCm / 100) ** CONVECTION.exponent;
  }
  const deskCm2 = stands === 'flat' ? l * w : stands === 'edge' ? l * h : 0;
  return { areaCm2: area, convection: sum / area, deskCm2 };
}

const STANDING = Object.fromEntries(
  Object.entries(CASE_BOX).map(([form, box]) => [
    form,
    Object.fromEntries((['flat', 'edge', 'cloth'] as const).map((stands) => [stands, standingBox(box, stands)]))
  ])
) as Record<keyof typeof CASE_BOX, Record<Stands, Standing>>;

/**
 * Gives the outside of a case: a box of the usual proportions of its form, as large as its surface says. A surface is that of the case lying
 * flat, without the face it lies on; stood on edge it has that face too.
 * @param areaM2 that air reaches while it lies flat, m²
 */
export function outsideOf(
  formFactor: keyof typeof CASE_BOX,
  areaM2: number,
  stands: Stands
): { areaM2: number; convection: number; deskM2: number } {
  const flat = STANDING[formFactor].flat;
  const here = STANDING[formFactor][stands];
  // The proportions stay: areas go with the square of the scale, and the film with the fourth root of its inverse.
  const square = areaM2 / (flat.areaCm2 * 1e-4);
  return {
    areaM2: here.areaCm2 * 1e-4 * square,
    convection: here.convection / Math.sqrt(Math.sqrt(Math.sqrt(square))),
    deskM2: here.deskCm2 * 1e-4 * square
  };
}

/** How a build is taken where it differs from its parts: with a fan, without pads, standing otherwise. */
export type Placing = { fan: boolean; bare: boolean; stands: Stands };

/** Drive, enclosure and the gaps between them, with what fills each. */
export type BuildParts = { drive: FilledDrive; enclosure: FilledEnclosure; stack: Pick<StackPlan, 'filled'> };

/**
 * Works out the bodies of a build, J/K, and the paths between them, mm and mm². Where no gap is known the pads are taken to fit, as
 * they do in most boxes.
 */
// eslint-disable-next-line complexity -- one field each, with its usual value
export function thermalGeometry({ drive, enclosure, stack }: BuildParts, placing: Placing): ThermalGeometry {
  const { fan, bare, stands } = placing;
  const { cooling, formFactor } = enclosure.enclosure;
  const outside = outsideOf(formFactor, (cooling?.areaCm2 ?? usualCase(enclosure).areaCm2) * 1e-4, stands);
  const plastic = cooling?.material === 'plastic';
  const geometry: ThermalGeometry = {
    kind: 'm2',
    controller: NO_PATHS,
    nand: NO_PATHS,
    controllerJK: CAPACITY.controller,
    nandJK: CAPACITY.nand,
    caseJK: (caseMassG(enclosure) / 1000) * SPECIFIC_HEAT[plastic ? 'plastic' : 'aluminium'],
    areaM2: outside.areaM2,
    convection: outside.convection,
    deskM2: outside.deskM2,
    finsM2: (cooling?.finsCm2 ?? 0) * 1e-4,
    fan,
    plastic,
    caseFactor: cooling?.measured?.caseFactor ?? 1,
    chipFactor: cooling?.measured?.chipFactor ?? 1
  };
  if (drive.drive.media === 'hdd') {
    geometry.kind = 'disk';
    geometry.controllerJK = drive.drive.formFactor === '3.5in' ? CAPACITY.disk35 : CAPACITY.disk25;
    geometry.nandJK = CAPACITY.diskBoard;
  } else if (drive.drive.formFactor !== 'm2') geometry.kind = 'shell';
  else {
    geometry.controller = pathsToCase(stack, 'controller', bare);
    geometry.nand = pathsToCase(stack, 'nand', bare);
  }
  return geometry;
}

const usualCase = (enclosure: FilledEnclosure) => CASE_CLASS[caseClassOf(enclosure)];

/** Gives the mass that takes up heat, g: what is stated of the case, or four fifths of the weight, or that of its class. */
export function caseMassG(filled: FilledEnclosure): number {
  const { cooling, weightG } = filled.enclosure;
  return cooling?.massG ?? (weightG === undefined ? usualCase(filled).massG : weightG * CASE_SHARE_OF_WEIGHT);
}

const CASE_SHARE_OF_WEIGHT = 0.8;
const UNKNOWN_MM2 = { controller: UNKNOWN_CONTACT.controllerMm2, nand: UNKNOWN_CONTACT.nandMm2 } as const;
const NO_PATHS: readonly HeatPath[] = [];

function pathsToCase(
  stack: Pick<StackPlan, 'filled'>,
  role: 'controller' | 'nand',
  bare: boolean
): readonly HeatPath[] {
  const paths: HeatPath[] = [];
  for (const place of stack.filled)
    if (place.chip.role === role) paths.push(heatPathOf(bare ? { ...place, choice: null } : place));
  return paths.length > 0 || bare ? paths : [unknownPath(UNKNOWN_MM2[role])];
}
