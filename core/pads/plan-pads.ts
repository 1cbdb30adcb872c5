/* eslint-disable @typescript-eslint/no-non-null-assertion -- an index below the length of the list; each side and each gap that is asked for was laid before */
import { BOARD_LIMITS, LABEL_MM } from '../facts/m2.ts';
import { appliedRule, chosenOption, type AppliedRule, type HouseRules } from '../house-rules/house-rules.ts';
import type { Finding } from '../findings/finding.ts';
import type { Drive } from '../parts/drive.ts';
import type { Enclosure } from '../parts/enclosure.ts';
import type { Pad } from '../parts/pad.ts';
import type { Mm } from '../quantities/measures.ts';
import type { Band } from '../quantities/band.ts';
import { boardOf, type Board, type Component } from './board.ts';
import type { StackChoice } from './choice.ts';
import {
  chooseSheet,
  choosePad,
  layIn,
  padKinds,
  stockPadFor,
  stressOf,
  thicknessOf,
  type Contact,
  type PadChoice,
  type PadKind
} from './gap.ts';
import { boardStiffness, bowOf, type Pressed } from './press.ts';

export type StackRow = {
  /** Which chip of the board. */
  component: number;
  role: string;
  side: 'top' | 'bottom';
  gapMm: number;
  pads: number[];
  padNames: string[];
  compressionPercent: number;
  verdict: Contact;
  /** Of the freshly pressed pad on its chip. */
  pressureMPa: number;
  forceN: number;
};

/** A chip that gives off heat, the gap over it and what fills it. */
export type FilledGap = { chip: Component; at: number; gapMm: Mm; choice: PadChoice | null };

export type StackPlan = {
  board: Board | null;
  rows: StackRow[];
  filled: readonly FilledGap[];
  /** How far the board gives way, mm, towards the floor; null where nothing presses on it. */
  bowMm: Band | null;
  findings: Finding[];
  decisions: AppliedRule[];
  /** Whether a person settled on these pads, and whether one of those is gone. */
  chosen: boolean;
  lost: boolean;
  /** Whether no pad is at hand, so that the thicknesses that are sold stand in. */
  fromShop: boolean;
};

export type StackInput = {
  drive: Drive;
  doubleSided: boolean;
  enclosure: Enclosure;
  pads?: readonly Pad[] | undefined;
  chosen?: StackChoice | undefined;
  rules?: HouseRules | undefined;
};

const round3 = (mm: number) => Math.round(mm * 1000) / 1000;

/** Gives what the label on the upper side takes of every gap there, mm: a paper one only where it stays on by house rule. */
export const labelThickness = ({ label }: Drive, rules: HouseRules | undefined): Mm =>
  label === 'metal' || (label === 'paper' && chosenOption('label', rules) === 'leave') ? LABEL_MM : 0;

/** A measured gap is the gap, also where the enclosure states no room; an imprint only says that it is no smaller. */
function trueGap(stated: Mm | undefined, seen: NonNullable<StackChoice['gaps']>[number] | undefined): Mm {
  if (seen?.measured) return seen.atLeastMm;
  return stated === undefined ? 0 : Math.max(stated, seen?.atLeastMm ?? 0);
}

/**
 * Finds the chips that carry heat to the case, with the gap over each: as measured, else clearance - height - label. A gap of 0 or
 * less is none.
 */
export function gapsOf(
  board: Board,
  enclosure: Enclosure,
  chosen: StackChoice | undefined,
  labelMm: Mm
): { chip: Component; at: number; gapMm: Mm }[] {
  const places: { chip: Component; at: number; gapMm: Mm }[] = [];
  for (let at = 0; at < board.chips.length; at++) {
    const chip = board.chips[at]!;
    const clearance = chip.side === 'top' ? enclosure.clearanceTopMm : enclosure.clearanceBottomMm;
    if (chip.role !== 'controller' && chip.role !== 'nand') continue;
    const stated =
      clearance === undefined ? undefined : clearance - chip.heightMm - (chip.side === 'top' ? labelMm : 0);
    const wide = trueGap(
      stated,
      chosen?.gaps?.find((gap) => gap.component === at)
    );
    const gapMm = round3(wide);
    if (gapMm > 0) places.push({ chip, at, gapMm });
  }
  return places;
}

/** Gives bow of the board under pads that press on it, mm, over the range of its stiffness; null without any pressure. */
export function boardBow(board: Board, rows: readonly StackRow[]): Band | null {
  const pressed: Pressed[] = rows
    .filter((row) => row.forceN > 0)
    .map((row) => ({ side: row.side, squeezeMm: row.pads.reduce((a, b) => a + b, 0) - row.gapMm, forceN: row.forceN }));
  if (pressed.length === 0) return null;
  const stiffness = boardStiffness(board.lengthMm);
  const at = (kb: number) => Math.abs(bowOf(pressed, kb));
  return { low: at(stiffness.high), typical: at(stiffness.typical), high: at(stiffness.low) };
}

/** The worst is said first: a chip without contact, then a board that is pressed, then a pad that sits badly. */
const PAD_CODES: readonly Finding['code'][] = ['pad-no-contact', 'pad-over-compressed', 'pad-none-fits'];

/** Says once what is wrong over chips of one kind with one gap; what is wrong in another way is said too. */
function padFindings(board: Board, filled: readonly FilledGap[]): Finding[] {
  const findings: Finding[] = [];
  // A height that is only assumed may be off by a third of a millimetre: it says whether a pad is far out, not how it sits.
  const assumed = board.from === 'template';
  for (const { chip, gapMm, choice } of filled) {
    const { role } = chip;
    if (choice?.verdict === 'good') continue;
    const add = (finding: Finding) => {
      const known = findings.some(
        (f) => f.code === finding.code && 'gapMm' in f && f.gapMm === gapMm && f.role === role
      );
      if (!known) findings.push(finding);
    };
    const buyMm = stockPadFor(gapMm);
    const padMm = choice ? thicknessOf(choice.layers) : 0;
    const about = { severity: 'check', about: 'pad', gapMm, buyMm, role, assumed } as const;
    if (!choice || choice.verdict === 'no-contact') add({ code: 'pad-no-contact', ...about, padMm });
    else if (choice.verdict === 'over-compressed')
      add({ code: 'pad-over-compressed', ...about, padMm, percent: choice.compression * 100 });
    else if (!assumed) add({ code: 'pad-none-fits', ...about });
  }
  return findings.sort((a, b) => PAD_CODES.indexOf(a.code) - PAD_CODES.indexOf(b.code));
}

/** What the pads do to the board: it bows where nothing holds it from below, or is pressed where something does. */
function pressFindings(rows: readonly StackRow[], bowMm: Band | null): Finding[] {
  const backed = rows.some((row) => row.side === 'bottom' && row.forceN > 0);
  if (bowMm && bowMm.typical > BOARD_LIMITS.bowMm && !backed)
    return [{ code: 'board-bows', severity: 'check', about: 'pad', bowMm: bowMm.typical, limitMm: BOARD_LIMITS.bowMm }];
  const worst = rows.reduce<StackRow | undefined>(
    (w, row) => (w && w.pressureMPa >= row.pressureMPa ? w : row),
    undefined
  );
  if (backed && worst && worst.pressureMPa > BOARD_LIMITS.stressMPa)
    return [
      {
        code: 'pad-pressure-high',
        severity: 'check',
        about: 'pad',
        role: worst.role,
        pressureMPa: worst.pressureMPa,
        limitMPa: BOARD_LIMITS.stressMPa
      }
    ];
  return [];
}

/**
 * Gives written out field by field, here and wherever a plan is made: a spread costs microseconds.
 * @param choice null for a chip that is left bare
 */
export function componentRow({ chip, at, gapMm }: Omit<FilledGap, 'choice'>, choice: PadChoice | null): StackRow {
  const pressureMPa = choice ? stressOf(choice) : 0;
  return {
    component: at,
    role: chip.role,
    side: chip.side,
    gapMm,
    pads: choice ? choice.layers.map((pad) => pad.thicknessMm) : [],
    padNames: choice ? choice.layers.map((pad) => pad.name) : [],
    compressionPercent: choice ? Math.round(choice.compression * 1000) / 10 : 0,
    verdict: choice ? choice.verdict : 'no-contact',
    pressureMPa,
    forceN: pressureMPa * chip.widthMm * chip.lengthMm
  };
}

const EMPTY: StackPlan = {
  board: null,
  rows: [],
  filled: [],
  bowMm: null,
  findings: [],
  decisions: [],
  chosen: false,
  lost: false,
  fromShop: false
};

const SIDES = ['top', 'bottom'] as const;

/** Whether chips of one side have gaps that differ. */
function differ(chips: readonly { chip: Component; gapMm: Mm }[], side: 'top' | 'bottom'): boolean {
  let first: Mm | undefined;
  for (const { chip, gapMm } of chips) {
    if (chip.side !== side) continue;
    if (first !== undefined && gapMm !== first) return true;
    first = gapMm;
  }
  return false;
}

/**
 * Gives a pad for every chip that gives off heat, in an enclosure whose clearance is known: those a person settled on; else from the
 * box, then from the pads at hand, best contact first; with neither, the stock thickness to buy. Where the drive states no chips,
 * the usual ones of its length and height code stand in, and the plan says so.
 * @example planPads({ drive: aDrive(), doubleSided: false, enclosure: anEnclosure() }).bowMm // null
 */
export function planPads(input: StackInput): StackPlan {
  const { drive, enclosure, pads, chosen, rules } = input;
  const board = boardOf(drive, input.doubleSided);
  if (!board || enclosure.formFactor !== 'm2') return EMPTY;
  const chips = gapsOf(board, enclosure, chosen, labelThickness(drive, rules));
  const decisions: AppliedRule[] = [];
  if (chips.length === 0) return { ...EMPTY, board };
  const kinds = padKinds(enclosure.includedPads, pads);
  const byKey = chosen && new Map(kinds.map((kind) => [kind.key, kind]));
  const stack = chosenOption('gap-not-closed', rules) === 'stack';
  const sheets = chosenOption('pieces', rules) === 'sheet';
  const sheetOf: { top?: PadKind; bottom?: PadKind } = {};
  for (const side of SIDES) {
    // Chips of one height take the same pad either way.
    if (chosen || !differ(chips, side)) continue;
    const gaps = chips.filter(({ chip }) => chip.side === side).map(({ gapMm }) => gapMm);
    if (sheets) sheetOf[side] = chooseSheet(gaps, kinds);
    const effect = sheets
      ? `one ${sheetOf[side]!.thicknessMm} mm sheet over the ${side} of the board`
      : `pieces of their own on the ${side} of the board`;
    decisions.push(appliedRule('pieces', rules, effect));
  }
  let settled = false;
  let lost = false;
  // Chips of one height are the rule, and the choice for one gap is the choice for all of them.
  const known: { gapMm: Mm; choice: PadChoice }[] = [];
  const bestFor = (gapMm: Mm, role: string): PadChoice => {
    const same = known.find((one) => one.gapMm === gapMm);
    if (same) return same.choice;
    const choice = choosePad(gapMm, kinds, stack)!;
    known.push({ gapMm, choice });
    // A stack that was needed, or a gap that stays badly closed because none is allowed.
    const doubtful = choice.layers.length > 1 || choice.verdict !== 'good';
    if (doubtful && !decisions.some((d) => d.school === 'gap-not-closed')) {
      const other = choosePad(gapMm, kinds, !stack)!;
      if (other.layers.length !== choice.layers.length)
        decisions.push(
          appliedRule(
            'gap-not-closed',
            rules,
            stack
              ? `${choice.layers.map((pad) => pad.thicknessMm).join(' + ')} mm over the ${role}`
              : `one pad over the ${role}, none stacked`
          )
        );
    }
    return choice;
  };
  const filled = chips.map((place): FilledGap => {
    const { at, gapMm, chip } = place;
    const piece = chosen?.pieces.find((p) => p.component === at);
    const layers = piece?.layers.map((key) => byKey!.get(key));
    if (layers && layers.every((pad) => pad !== undefined)) {
      settled = true;
      return { chip, at, gapMm, choice: layers.length > 0 ? layIn(layers, gapMm) : null };
    }
    if (layers) lost = true;
    const sheet = sheetOf[chip.side];
    return { chip, at, gapMm, choice: sheet ? layIn([sheet], gapMm) : bestFor(gapMm, chip.role) };
  });
  const rows = filled.map((place) => componentRow(place, place.choice));
  const bowMm = boardBow(board, rows);
  return {
    board,
    rows,
    filled,
    bowMm,
    findings: padFindings(board, filled).concat(pressFindings(rows, bowMm)),
    decisions,
    chosen: settled,
    lost,
    fromShop: kinds[0]?.from === 'shop'
  };
}
