import { DISK_SIZES } from '../facts/mounting.ts';
import { STOCK_PADS_MM } from '../facts/m2.ts';
import type { Need } from '../cost/shopping.ts';
import { needsOf } from '../cost/needs.ts';
import { listed, quantity } from '../quantities/format.ts';
import { RETENTION_LABELS } from '../parts/enclosure.ts';
import type { Kit } from '../sheets/sheet.ts';
import { digest, type Hands } from './hands.ts';

const DRIVERS = {
  cross: 'A cross-head screwdriver that fills the screws of the case',
  star: 'A star driver that fills the screws of the case',
  hex: 'A hex key for the screws of the case'
} as const;

const isScrewed = ({ retention }: Hands): boolean => retention === 'screw' || retention === 'screw-from-below';

/** Drivers and levers, by what the case has. */
function openers({ opening, input: { enclosure }, bay, retention, readyMade }: Hands): string[] {
  const tools: string[] = [];
  if (opening === 'screws')
    tools.push(enclosure.screws ? DRIVERS[enclosure.screws.head] : 'Screwdrivers, cross and star, in small sizes');
  if (opening === undefined) tools.push('Small screwdrivers, cross and star, in case it is held by screws');
  if (opening === 'clips' || readyMade) tools.push('A thin plastic tool or an old card for the clips');
  if (retention === 'screw' || retention === 'screw-from-below' || retention === undefined)
    tools.push(bay === 'm2' ? 'A small cross-head screwdriver for the screw of the drive' : 'A cross-head screwdriver');
  return tools;
}

/**
 * Lists the tools that a build takes.
 * @example toolsOf(handsOf(anInput(), 1, false)).length > 2 // true
 */
export function toolsOf(hands: Hands): string[] {
  const { pads, input, label } = hands;
  const tools = ['A light cloth, a bowl for screws, good light', ...openers(hands)];
  if (pads === 'planned') tools.push('Scissors or a sharp knife, and a ruler', 'Tweezers for the liners');
  if (pads === 'box') tools.push('Scissors, and tweezers for the liners');
  if ((input.drive.heatsinkMm ?? 0) > 0 || label === 'remove')
    tools.push('Warm air, such as a hair dryer on its low step');
  tools.push('A phone or camera', 'A pencil, and a label for the case');
  return [...new Set(tools)];
}

/**
 * Lists what is good to have spare, for what gets lost or turns out otherwise.
 * @example sparesOf(handsOf(anInput(), 1, false)).includes('A second cable, to rule the first one out') // true
 */
export function sparesOf(hands: Hands): string[] {
  const { bay, retention, missing, pieces, pads, spareMm } = hands;
  const spares: string[] = [];
  if (bay === 'm2' && isScrewed(hands))
    spares.push('A screw for the drive (M2, 2 to 3 mm long): it is the part most often lost');
  if (bay === 'm2' && retention === 'rubber') spares.push(`A second ${RETENTION_LABELS.rubber}: the foot tears easily`);
  if (bay !== 'm2' && isScrewed(hands)) spares.push(`Four screws ${DISK_SIZES[bay].screw}`);
  if (spareMm > 0) spares.push(`A spacer frame of ${quantity(spareMm, 'mm')}, or a strip of foam`);
  const buy = [...new Set(missing.flatMap(({ buyMm }) => buyMm))].sort((a, b) => a - b);
  if (buy.length > 0)
    spares.push(`Pads of ${listed(buy.map((mm) => quantity(mm, 'mm')))}: nothing at hand closes a gap`);
  if (pads === 'planned')
    spares.push(
      `One step thicker and thinner than the pads of the plan: ${nextTo(pieces.flatMap(({ layersMm }) => layersMm))}`
    );
  spares.push('A second cable, to rule the first one out');
  return spares;
}

/** The stock thicknesses beside those that are planned. */
function nextTo(used: readonly number[]): string {
  const beside = STOCK_PADS_MM.filter(
    (mm, i) =>
      !used.includes(mm) && (used.includes(STOCK_PADS_MM[i - 1] ?? -1) || used.includes(STOCK_PADS_MM[i + 1] ?? -1))
  );
  return listed(beside.map((mm) => quantity(mm, 'mm')));
}

const kit = (what: string, from: string, modelId?: string): Kit => ({
  id: `kit.${digest(what)}`,
  what,
  from,
  ...(modelId === undefined ? {} : { modelId })
});

const fromOf = (need: Need): string =>
  need.inBoxOf ? `in the box of ${need.inBoxOf}` : need.modelId === undefined ? 'still to get' : 'of your own';

/** What comes with an enclosure beside pads and cables. */
function boxed(hands: Hands): Kit[] {
  const { name } = hands.input.enclosure;
  const box = `in the box of ${name}`;
  const things: Kit[] = [];
  if (hands.power === 'supply' || hands.power === 'esata-supply') things.push(kit('Its power supply', box));
  if (hands.power === 'esata-usb') things.push(kit('A USB cable that gives it power', 'from its box, or of your own'));
  if (hands.bay === 'm2' && isScrewed(hands)) things.push(kit('The screw and the post for the drive', box));
  if (hands.bay === 'm2' && hands.retention === 'rubber') things.push(kit('The rubber retainer', box));
  if (hands.bay !== 'm2' && isScrewed(hands)) things.push(kit('Four screws for the drive', box));
  if (hands.spareMm > 0) things.push(kit('The spacer frame', 'from the box of drive or enclosure'));
  if (hands.pads === 'box') things.push(kit('A thermal pad, where there is one', box));
  return things;
}

/**
 * Lists what has to lie on the table before the first step.
 * @example kitOf(handsOf(anInput(), 1, false))[0].what // 'Test T4 2TB'
 */
export function kitOf(hands: Hands): Kit[] {
  const { input, pieces, missing, units } = hands;
  const padsMm = [...new Set(pieces.flatMap(({ layersMm }) => layersMm))];
  const { needs } = needsOf({ ...input, padsMm, padMissing: missing.length > 0 }, input.pads ?? []);
  const times = units > 1 ? `${units} × ` : '';
  const parts = needs
    .filter(({ role }) => role !== 'host')
    .map((need) => kit(`${need.role === 'pad' ? '' : times}${need.name}`, fromOf(need), need.modelId));
  const things = [...parts, ...boxed(hands)];
  return things.filter(({ id }, i) => things.findIndex((other) => other.id === id) === i);
}
