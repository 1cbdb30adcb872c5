import { STOCK_PADS_MM } from '../facts/m2.ts';
import { decision, schoolChoice, type Decision, type HouseRules } from '../facts/schools.ts';
import type { Assume, Finding } from '../findings/finding.ts';
import type { Drive } from '../parts/drive.ts';
import type { Enclosure } from '../parts/enclosure.ts';
import type { Pad } from '../parts/pad.ts';
import { chooseSheet, choosePad, stockPadFor, type Contact } from './pads.ts';

export type StackRow = {
  role: string;
  side: 'top' | 'bottom';
  gapMm: number;
  pads: number[];
  compressionPercent: number;
  verdict: Contact;
};

/**
 * A pad for every chip whose height is known, in an enclosure whose clearance is known: from the box first, then from the
 * pads at hand; with neither, the stock thickness to buy. The two largest heat sources count: controller and NAND.
 * gap = clearance(lid to board) - height of the chip.
 */
export function planPads(
  drive: Drive,
  enclosure: Enclosure,
  pads: readonly Pad[] | undefined,
  rules: HouseRules | undefined,
  assume: Assume
): { components: StackRow[]; findings: Finding[]; decisions: Decision[] } {
  const components: StackRow[] = [];
  const findings: Finding[] = [];
  const decisions: Decision[] = [];
  if (drive.formFactor !== 'm2' || !drive.components?.length) return { components, findings, decisions };
  const own = [...(enclosure.includedPads ?? []), ...(pads ?? [])].map((pad) => pad.thicknessMm);
  const thicknesses = own.length > 0 ? [...new Set(own)] : [...STOCK_PADS_MM];
  const stack = schoolChoice('gap-not-closed', rules) === 'stack';
  const chips = drive.components.flatMap((chip) => {
    const clearance = chip.side === 'top' ? enclosure.clearanceTopMm : enclosure.clearanceBottomMm;
    if ((chip.role !== 'controller' && chip.role !== 'nand') || clearance === undefined) return [];
    const gapMm = Math.round((clearance - chip.heightMm) * 1000) / 1000;
    return gapMm > 0 ? [{ chip, gapMm }] : [];
  });
  const gapsOf = (side: 'top' | 'bottom') => chips.filter(({ chip }) => chip.side === side).map(({ gapMm }) => gapMm);
  const sheets = schoolChoice('pieces', rules) === 'sheet';
  const sheetOf = { top: undefined as number | undefined, bottom: undefined as number | undefined };
  for (const side of ['top', 'bottom'] as const) {
    const gaps = gapsOf(side);
    // Chips of one height take the same pad either way.
    if (new Set(gaps).size < 2) continue;
    if (sheets) sheetOf[side] = chooseSheet(gaps, thicknesses);
    const effect = sheets
      ? `one ${sheetOf[side]} mm sheet over the ${side} of the board`
      : `pieces of their own on the ${side} of the board`;
    decisions.push(decision('pieces', rules, effect));
  }
  for (const { chip, gapMm } of chips) {
    const sheet = sheetOf[chip.side];
    const choice = sheet === undefined ? choosePad(gapMm, thicknesses, stack)! : choosePad(gapMm, [sheet], false)!;
    if (choosePad(gapMm, thicknesses, false)!.verdict !== 'good' && sheet === undefined) {
      const other = choosePad(gapMm, thicknesses, !stack)!;
      if (other.layers.length !== choice.layers.length && !decisions.some((d) => d.school === 'gap-not-closed'))
        decisions.push(
          decision(
            'gap-not-closed',
            rules,
            stack
              ? `${choice.layers.join(' + ')} mm over the ${chip.role}`
              : `one pad over the ${chip.role}, none stacked`
          )
        );
    }
    components.push({
      role: chip.role,
      side: chip.side,
      gapMm,
      pads: choice.layers,
      compressionPercent: Math.round(choice.compression * 1000) / 10,
      verdict: choice.verdict
    });
    const buyMm = stockPadFor(gapMm);
    const padMm = choice.layers.reduce((sum, t) => sum + t, 0);
    const already = findings.some((f) => 'gapMm' in f && f.gapMm === gapMm && f.role === chip.role);
    if (already) continue;
    if (choice.verdict === 'no-contact')
      findings.push({ code: 'pad-no-contact', severity: 'check', about: 'pad', gapMm, padMm, buyMm, role: chip.role });
    else if (choice.verdict === 'over-compressed') {
      findings.push({
        code: 'pad-over-compressed',
        severity: 'check',
        about: 'pad',
        gapMm,
        padMm,
        percent: choice.compression * 100,
        buyMm,
        role: chip.role
      });
    } else if (choice.verdict !== 'good')
      findings.push({ code: 'pad-none-fits', severity: 'check', about: 'pad', gapMm, buyMm, role: chip.role });
  }
  if (components.length > 0 && own.length === 0)
    assume('pad', 'thicknessMm', 'stock thicknesses', 'no pad is in the box or at hand; what to buy');
  return { components, findings, decisions };
}
