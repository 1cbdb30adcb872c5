import { band } from '../quantities/band.ts';

/**
 * What a drive in its case is made of for heat: three bodies (controller, NAND, case) and the paths between them. What is not
 * from a standard or from plain physics is an estimate, with its range.
 */

/** Heat that a body stores, J/K. Estimates. */
export const CAPACITY = { controller: 2, nand: 5, disk25: 90, disk35: 560, diskBoard: 8 } as const;
/** J/(kg K): aluminium, and the plastics that cases are made of. */
export const SPECIFIC_HEAT = { aluminium: 900, plastic: 1400 } as const;
/** The case of a class that states nothing: surface that air reaches in cm², and mass in g. Estimates. */
export const CASE_CLASS = {
  m2: { areaCm2: 110, massG: 85 },
  /** Behind a tunnel cases are larger, since they have to be. */
  'm2-tunnel': { areaCm2: 190, massG: 165 },
  '2.5in': { areaCm2: 220, massG: 110 },
  '3.5in': { areaCm2: 620, massG: 650 }
} as const;
/** How far a stated surface, and one from the class, may be off. Factors on the heat that it gives off. */
export const AREA_SPREAD = { stated: band(0.92, 1, 1.08), assumed: band(0.7, 1, 1.4) } as const;

/**
 * Natural convection h = c (dT / L)^0.25, W/(m² K), face by face: c 1.42 and L the height for a standing face, c 1.32 and L the area
 * over the perimeter for one that looks up. Source: laminar free convection of plates in air at 1 bar, Nu = 0.59 Ra^0.25 and
 * 0.54 Ra^0.25.
 */
export const CONVECTION = { standing: 1.42, up: 1.32, exponent: 0.25 } as const;
/** The film of a small box in a real room: how far it may be from the plates of a textbook. Estimate. */
export const FILM_SPREAD = band(0.75, 1, 1.25);
/** Length, width and height of the usual case of a form, as proportions. Estimates. */
export const CASE_BOX = {
  m2: { l: 10, w: 3.6, h: 1.4 },
  '2.5in': { l: 12.5, w: 8, h: 1.5 },
  '3.5in': { l: 19, w: 11.5, h: 4 }
} as const;
/** Through the face that lies on the desk, W/(m² K): into wood; more into metal, nothing into cloth. Estimate. */
export const DESK_H = band(2.5, 5, 7.5);
/** No case is smaller than this around its drive, cm²: an M.2 module of 80 mm and its two faces, a 2.5-inch and a 3.5-inch body. */
export const SMALLEST_CASE_CM2 = { m2For80mm: 15, '2.5in': 60, '3.5in': 120 } as const;
/** A bridge chip over the case, K/W, through a pad of its own, and the temperature that such chips are made for. Estimates. */
export const BRIDGE_PATH = band(6, 10, 16);
export const BRIDGE_LIMIT_C = 105;
export const STEFAN_BOLTZMANN = 5.670374e-8;
export const EMISSIVITY = { coated: band(0.8, 0.82, 0.9), bare: band(0.1, 0.15, 0.2) } as const;
/** A small fan over the case, W/(m² K), radiation included. Estimate. */
export const FAN_H = band(25, 30, 35);
/** Share of the extra surface of close fins that counts without a fan. */
export const FIN_SHARE = band(0.3, 0.45, 0.6);
/**
 * Plastic: share of the surface that the heat reaches (it spreads it badly; it does not radiate less), and its wall. Estimate.
 */
export const PLASTIC = { film: band(0.4, 0.6, 0.8), wallM: 0.002, conductivity: 0.2 } as const;

/** Contact of a pad, m² K/W, both faces together; two stacked ones have one face more. */
export const CONTACT = { one: 0.5e-4, two: 0.75e-4, marginal: 1e-4 } as const;
export const AIR_CONDUCTIVITY = 0.026;
/** What of a printed conductivity is reached. */
export const PAD_CONDUCTIVITY_SHARE = band(0.4, 0.6, 0.9);
/** W/(m K) where a pad prints nothing. */
export const USUAL_CONDUCTIVITY = 3;
/** A paper label, m² K/W. */
export const PAPER_LABEL = band(2.5e-4, 4e-4, 8e-4);
/** Through the board: to the case from controller and NAND each, and from one to the other, K/W. */
export const BOARD_PATH = band(25, 30, 35);
export const CHIP_TO_CHIP = band(20, 30, 40);
/** A 2.5-inch SSD inside its own shell, from its chips to the enclosure, K/W. Estimates. */
export const SHELL_PATH = { controller: band(8, 12, 18), nand: band(6, 9, 14) } as const;
/** From the body of a hard disk to the case around it, K/W. Estimates. */
export const DISK_PATH = { '2.5in': band(1.5, 2.5, 4), '3.5in': band(0.7, 1.2, 2) } as const;
/** A chip whose place is not known: face in mm² and gap in mm, closed by a pad that fits. */
export const UNKNOWN_CONTACT = { controllerMm2: 150, nandMm2: 390, gapMm: 0.8 } as const;

/** Heat for each GB moved, J/GB: bands of one shape, so that one factor widens all of them. */
export const HEAT_J_PER_GB = {
  nvmeRead: 0.9,
  nvmeWrite: 1.5,
  nvmePost: { slc: 1.5, mlc: 2.4, tlc: 3, qlc: 10 },
  sata: 4
} as const;
export const HEAT_SPREAD = { nvme: band(0.67, 1, 1.4), sata: band(0.75, 1, 1.25) } as const;
/** Share of a drive's heat that the controller makes. */
export const CONTROLLER_SHARE = band(0.5, 0.6, 0.75);
/** An "idle" or "active" power of a data sheet. */
export const STATED_POWER = band(0.9, 1, 1.1);

/**
 * Steps of throttling: at the warning temperature to half of the rate, at the critical one to a quarter, each released 8 K
 * lower. The temperature is what the drive itself reports; the silicon below can be 5 to 30 K hotter.
 */
export const THROTTLE = { startC: 80, criticalC: 88, releaseK: 8, factors: [1, 0.5, 0.25] } as const;
/** A drive that gets this warm switches itself off, °C: 100 to 110. */
export const SHUTDOWN_C = 105;
/** Hard disks are rated to here, °C. */
export const DISK_LIMIT_C = 60;

/** Ambient that is taken where nobody says: a room. */
export const AMBIENT_C = band(19, 22, 27);

/**
 * Contact with a hot surface, °C. Source: ISO 13732-1, limits for 10 s, 1 min, 10 min and 8 h and longer; a minute on plastic
 * is some 10 K less harsh, ten seconds some 15 K: the lower edge of what the standard gives for plastics (70 to 75).
 */
export const TOUCH = {
  aluminium: { hoursC: 43, tenMinutesC: 48, minuteC: 51, tenSecondsC: 55 },
  plastic: { hoursC: 43, tenMinutesC: 48, minuteC: 60, tenSecondsC: 70 }
} as const;

/** What a case draws where the drive is ejected and the bridge stays powered, as a share of the idle power. Estimate. */
export const EJECTED_SHARE = band(0.4, 0.7, 1);
