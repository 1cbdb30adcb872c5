import { M2_HEIGHT_CODES, USUAL_HEIGHT_CODE } from '../../facts/m2.ts';
import { SMALLEST_CASE_CM2 } from '../../facts/thermal.ts';
import { sidesAssumed } from '../../parts/fill/drive.ts';
import type { PartsRule } from './rule.ts';

/** Holds the form factor of a drive against its bay: most docks for 3.5-inch disks take a 2.5-inch drive too, for the connector is the same; closed cases want a frame for it. */
export const formFactorFits: PartsRule = ({ drive: { drive }, enclosure: { enclosure } }) =>
  drive.formFactor === enclosure.formFactor
    ? undefined
    : {
        code: 'form-factor-mismatch',
        severity: drive.formFactor === '2.5in' && enclosure.formFactor === '3.5in' ? 'check' : 'fail',
        about: 'drive',
        drive: drive.formFactor,
        bay: enclosure.formFactor
      };

/** Holds the length of a module, mm, against the posts of the enclosure. */
export const m2Length: PartsRule = ({ drive, enclosure }) => {
  if (drive.drive.formFactor !== 'm2' || enclosure.enclosure.formFactor !== 'm2') return undefined;
  if (enclosure.m2LengthsMm.includes(drive.m2LengthMm)) return undefined;
  const assumed = drive.drive.m2LengthMm === undefined || enclosure.enclosure.m2LengthsMm === undefined;
  return {
    code: 'm2-length-unsupported',
    severity: assumed ? 'check' : 'fail',
    about: 'drive',
    driveMm: drive.m2LengthMm,
    takesMm: enclosure.m2LengthsMm,
    assumed
  };
};

/** Holds the key of a module against the slot: the list names the module keys a slot accepts; a slot for M also takes a B+M module mechanically. */
export const m2Key: PartsRule = ({ drive, enclosure }) => {
  if (drive.drive.formFactor !== 'm2' || enclosure.enclosure.formFactor !== 'm2') return undefined;
  const takes = enclosure.m2Keys;
  if (takes.includes(drive.m2Key) || (drive.m2Key === 'B+M' && (takes.includes('M') || takes.includes('B'))))
    return undefined;
  const assumed = drive.drive.m2Key === undefined || enclosure.enclosure.m2Keys === undefined;
  return {
    code: 'm2-key-mismatch',
    severity: assumed ? 'check' : 'fail',
    about: 'drive',
    drive: drive.m2Key,
    takes,
    assumed
  };
};

/** Holds the protocol of a drive against the bridge: mechanical fit and protocol fit are two findings: a SATA module slides into an M slot and is then not recognised. */
export const protocol: PartsRule = ({ drive, enclosure: { enclosure } }) =>
  enclosure.protocols.includes(drive.protocol)
    ? undefined
    : {
        code: 'protocol-unsupported',
        severity: 'fail',
        about: 'enclosure',
        drive: drive.protocol,
        takes: enclosure.protocols
      };

/** Holds the thickness of a drive, mm, against its bay. */
export const bayThickness: PartsRule = ({ drive, enclosure }) => {
  const { formFactor } = drive.drive;
  if (formFactor === 'm2' || formFactor !== enclosure.enclosure.formFactor) return undefined;
  if (drive.thicknessMm <= enclosure.maxThicknessMm) return undefined;
  const assumed = drive.drive.thicknessMm === undefined || enclosure.enclosure.maxThicknessMm === undefined;
  return {
    code: 'bay-too-thin',
    severity: assumed ? 'check' : 'fail',
    about: 'enclosure',
    driveMm: drive.thicknessMm,
    bayMm: enclosure.maxThicknessMm,
    assumed
  };
};

/** Finds a double-sided module over a floor that has no room for it, mm. */
// eslint-disable-next-line complexity -- one rule with all that a board may leave unsaid
export const doubleSided: PartsRule = ({ drive, enclosure: { enclosure } }) => {
  if (!drive.doubleSided || enclosure.formFactor !== 'm2') return undefined;
  const { takesDoubleSided: takes, clearanceBottomMm: clearanceMm } = enclosure;
  const { components, m2HeightCode } = drive.drive;
  const chipsMm = components?.filter((c) => c.side === 'bottom').reduce((max, c) => Math.max(max, c.heightMm), 0) ?? 0;
  const codeMm = m2HeightCode === undefined ? 0 : M2_HEIGHT_CODES[m2HeightCode].bottom;
  const neededMm = chipsMm || codeMm || M2_HEIGHT_CODES[USUAL_HEIGHT_CODE.double].bottom;
  const tooLow = clearanceMm !== undefined && clearanceMm < neededMm;
  if (takes === true && !tooLow) return undefined;
  if (takes === undefined && clearanceMm !== undefined && !tooLow) return undefined;
  // A height that was only taken from the usual code rejects nothing: the flattest code needs half of it.
  const heightAssumed = chipsMm === 0 && codeMm === 0;
  const assumed =
    sidesAssumed(drive.drive) ||
    (takes === undefined && clearanceMm === undefined) ||
    (takes !== false && tooLow && heightAssumed);
  return {
    code: 'double-sided-no-clearance',
    severity: assumed ? 'check' : 'fail',
    about: 'enclosure',
    ...(tooLow ? { clearanceMm } : {}),
    neededMm,
    assumed
  };
};

/** Finds a heatsink under a lid that has no room for it, mm. */
export const heatsink: PartsRule = ({ drive: { drive }, enclosure: { enclosure } }) => {
  if (!drive.heatsinkMm) return undefined;
  const clearanceMm = enclosure.clearanceTopMm;
  if (clearanceMm !== undefined && drive.heatsinkMm <= clearanceMm) return undefined;
  return {
    code: 'heatsink-blocks-lid',
    severity: clearanceMm === undefined ? 'check' : 'fail',
    about: 'drive',
    heatsinkMm: drive.heatsinkMm,
    clearanceMm
  };
};

/** Holds the capacity of a drive, TB, against what the enclosure states as its most. */
export const capacityLimit: PartsRule = ({ drive: { drive }, enclosure: { enclosure } }) =>
  enclosure.maxCapacityTB !== undefined && drive.capacityTB > enclosure.maxCapacityTB
    ? {
        code: 'capacity-above-limit',
        severity: 'check',
        about: 'enclosure',
        driveTB: drive.capacityTB,
        limitTB: enclosure.maxCapacityTB
      }
    : undefined;

/**
 * Finds a chip that is higher than the lid leaves room; of a drive that states no chips the usual height code is asked. Whether the
 * underside has room is the rule for double-sided drives.
 */
export const chipHeight: PartsRule = ({ drive: { drive, doubleSided: double }, enclosure: { enclosure } }) => {
  const roomMm = enclosure.clearanceTopMm;
  if (drive.formFactor !== 'm2' || enclosure.formFactor !== 'm2' || roomMm === undefined) return undefined;
  const code = M2_HEIGHT_CODES[drive.m2HeightCode ?? USUAL_HEIGHT_CODE[double ? 'double' : 'single']];
  const tallest = drive.components?.length
    ? drive.components
        .filter((chip) => chip.side === 'top')
        .reduce<{ role: string; heightMm: number }>((a, b) => (b.heightMm > a.heightMm ? b : a), {
          role: '',
          heightMm: 0
        })
    : { role: 'controller', heightMm: code.top };
  const { role, heightMm } = tallest;
  if (heightMm <= roomMm) return undefined;
  const assumed = !drive.components?.length && drive.m2HeightCode === undefined;
  const severity = assumed ? 'check' : 'fail';
  return { code: 'chip-touches-lid', severity, about: 'drive', role, heightMm, roomMm, assumed };
};

/** Finds a surface that no case around such a drive can have: square millimetres or inches were typed, or a digit is missing. */
export const surface: PartsRule = ({ drive, enclosure: { enclosure } }) => {
  const areaCm2 = enclosure.cooling?.areaCm2;
  if (areaCm2 === undefined) return undefined;
  const leastCm2 =
    enclosure.formFactor === 'm2'
      ? (SMALLEST_CASE_CM2.m2For80mm * drive.m2LengthMm) / 80
      : SMALLEST_CASE_CM2[enclosure.formFactor];
  return areaCm2 < leastCm2
    ? { code: 'surface-implausible', severity: 'check', about: 'enclosure', areaCm2, leastCm2 }
    : undefined;
};
