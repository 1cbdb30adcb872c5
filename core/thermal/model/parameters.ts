import {
  AMBIENT_C,
  AREA_SPREAD,
  BOARD_PATH,
  CHIP_TO_CHIP,
  CONTROLLER_SHARE,
  DESK_H,
  DISK_PATH,
  EMISSIVITY,
  FAN_H,
  FILM_SPREAD,
  FIN_SHARE,
  PAD_CONDUCTIVITY_SHARE,
  PAPER_LABEL,
  PLASTIC,
  SHELL_PATH
} from '../../facts/thermal.ts';
import { type HouseRules, chosenOption } from '../../house-rules/house-rules.ts';
import type { FilledDrive } from '../../parts/fill/drive.ts';
import type { FilledEnclosure } from '../../parts/fill/enclosure.ts';
import type { Band } from '../../quantities/band.ts';
import type { Draw } from '../../chain/power-draw.ts';

/**
 * Everything that the temperatures hang on and that is known only within a range. Each has a typical value, and two ends: the one
 * that makes the drive hotter and the one that makes it cooler.
 */
export type ThermalParameters = {
  /** Factor on the rate at which data moves. */
  rate: number;
  idleW: number;
  heat: number;
  /** Factor on what the bridge draws. */
  bridge: number;
  controllerShare: number;
  /** What of a printed pad conductivity is reached. */
  padConductivityShare: number;
  /** m² K/W on top of every pad. */
  label: number;
  /** Factor on the surface that gives off heat. */
  area: number;
  /** Factor on what still air takes off it. */
  film: number;
  /** Into the desk, W/(m² K). */
  deskH: number;
  emissivity: number;
  fanH: number;
  finShare: number;
  plastic: number;
  boardPath: number;
  chipToChip: number;
  /** Paths of a drive in a shell of its own, K/W. */
  shellController: number;
  shellNand: number;
  ambientC: number;
};
export type ParameterName = keyof ThermalParameters;

/** Gives a copy, field by field: a spread of so many takes longer than a whole temperature. */
export const copyParameters = (k: ThermalParameters): ThermalParameters => ({
  rate: k.rate,
  idleW: k.idleW,
  heat: k.heat,
  bridge: k.bridge,
  controllerShare: k.controllerShare,
  padConductivityShare: k.padConductivityShare,
  label: k.label,
  area: k.area,
  film: k.film,
  deskH: k.deskH,
  emissivity: k.emissivity,
  fanH: k.fanH,
  finShare: k.finShare,
  plastic: k.plastic,
  boardPath: k.boardPath,
  chipToChip: k.chipToChip,
  shellController: k.shellController,
  shellNand: k.shellNand,
  ambientC: k.ambientC
});

/** What each parameter is called where a band is explained. */
export const PARAMETER_LABELS: Record<ParameterName, string> = {
  rate: 'the rate',
  idleW: 'idle power',
  heat: 'heat for each GB',
  bridge: 'the bridge’s power',
  controllerShare: 'the controller’s share of the heat',
  padConductivityShare: 'what the pads really conduct',
  label: 'the paper label',
  area: 'the surface of the case',
  film: 'the air over the case',
  deskH: 'what the desk takes',
  emissivity: 'the finish of the case',
  fanH: 'the fan',
  finShare: 'what fins do without a fan',
  plastic: 'what plastic gives off',
  boardPath: 'the path through the board',
  chipToChip: 'the path from controller to NAND',
  shellController: 'the path inside the drive’s shell',
  shellNand: 'the path inside the drive’s shell',
  ambientC: 'the ambient temperature'
};

/** An uncertain thing with its hotter and its cooler end. */
export type UncertainParameter = { name: ParameterName; hot: number; cool: number };

/** What the parameters of a build follow from. */
export type ParameterSources = {
  drive: FilledDrive;
  enclosure: FilledEnclosure;
  draw: Draw;
  desk: boolean;
  rules: HouseRules | undefined;
  ambientC: number | undefined;
  fan: boolean;
};

const hasPaper = ({ drive: { drive }, rules }: ParameterSources): boolean =>
  drive.label === 'paper' && drive.formFactor === 'm2' && chosenOption('label', rules) === 'leave';
const shellPaths = ({ drive: { drive }, enclosure: { enclosure } }: ParameterSources) =>
  drive.media === 'hdd'
    ? { controller: DISK_PATH[enclosure.formFactor === '3.5in' ? '3.5in' : '2.5in'], nand: null }
    : SHELL_PATH;

/** Gives the typical setting of every parameter. */
export function typicalParameters(of: ParameterSources): ThermalParameters {
  const { draw, enclosure, ambientC } = of;
  const paths = shellPaths(of);
  return {
    rate: 1,
    idleW: draw.idleW.typical,
    heat: draw.spread.typical,
    bridge: draw.bridgeSpread.typical,
    controllerShare: CONTROLLER_SHARE.typical,
    padConductivityShare: PAD_CONDUCTIVITY_SHARE.typical,
    label: hasPaper(of) ? PAPER_LABEL.typical : 0,
    area: 1,
    film: FILM_SPREAD.typical,
    deskH: DESK_H.typical,
    emissivity: EMISSIVITY[enclosure.enclosure.cooling?.finish ?? 'coated'].typical,
    fanH: FAN_H.typical,
    finShare: FIN_SHARE.typical,
    plastic: PLASTIC.film.typical,
    boardPath: BOARD_PATH.typical,
    chipToChip: CHIP_TO_CHIP.typical,
    shellController: paths.controller.typical,
    shellNand: paths.nand?.typical ?? 1,
    ambientC: ambientC ?? AMBIENT_C.typical
  };
}

/**
 * Gives the parameters that are uncertain here and play a part. What was measured or stated is no longer open.
 * @param rate the rate as a band, for what its own uncertainty makes of the temperatures
 */
// eslint-disable-next-line complexity -- one line for each parameter that may be uncertain
export function uncertainParameters(of: ParameterSources, rate: Band | undefined): UncertainParameter[] {
  const { drive, enclosure, draw, ambientC, fan, desk } = of;
  const { cooling } = enclosure.enclosure;
  const isM2 = drive.drive.formFactor === 'm2';
  const isDisk = drive.drive.media === 'hdd';
  const measured = cooling?.measured !== undefined;
  const paths = shellPaths(of);
  const open: UncertainParameter[] = [];
  /** Hotter at its high end. */
  const more = (name: ParameterName, { low, high }: { low: number; high: number }) => {
    if (high > low) open.push({ name, hot: high, cool: low });
  };
  /** Hotter at its low end. */
  const less = (name: ParameterName, { low, high }: Band) => void open.push({ name, hot: low, cool: high });
  if (rate && rate.typical > 0) more('rate', { low: rate.low / rate.typical, high: rate.high / rate.typical });
  more('idleW', draw.idleW);
  more('heat', draw.spread);
  more('bridge', draw.bridgeSpread);
  if (!isDisk) more('controllerShare', CONTROLLER_SHARE);
  if (isM2 && cooling?.measured?.chipFactor === undefined) less('padConductivityShare', PAD_CONDUCTIVITY_SHARE);
  if (hasPaper(of)) more('label', PAPER_LABEL);
  if (!measured) {
    less('area', cooling?.areaCm2 === undefined ? AREA_SPREAD.assumed : AREA_SPREAD.stated);
    if (desk) less('deskH', DESK_H);
    if (fan) less('fanH', FAN_H);
    else {
      less('film', FILM_SPREAD);
      less('emissivity', EMISSIVITY[cooling?.finish ?? 'coated']);
      if (cooling?.finsCm2 !== undefined) less('finShare', FIN_SHARE);
    }
    if (cooling?.material === 'plastic') less('plastic', PLASTIC.film);
  }
  if (isM2) {
    more('boardPath', BOARD_PATH);
    more('chipToChip', CHIP_TO_CHIP);
  } else {
    more('shellController', paths.controller);
    if (paths.nand) more('shellNand', paths.nand);
  }
  if (ambientC === undefined) more('ambientC', AMBIENT_C);
  return open;
}
