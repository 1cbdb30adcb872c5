import { z } from 'zod';
import { STEP_MINUTES } from '../facts/handling.ts';
import { plan } from '../plan/plan.ts';
import type { PlanInput } from '../plan/report.ts';
import type { Band } from '../quantities/band.ts';
import type { RunSheet, SheetStage } from '../sheets/sheet.ts';
import { handsOf, partsKey, type Hands } from './hands.ts';
import { toStep, type StageDraft } from './step.ts';
import { close } from './stages/close.ts';
import { open } from './stages/open.ts';
import { dryFit, padsOver, padsUnder, putBack } from './stages/pads.ts';
import { plugIn } from './stages/plug-in.ts';
import { layOut, prove, takeOut } from './stages/prepare.ts';
import { seat } from './stages/seat.ts';
import { kitOf, sparesOf, toolsOf } from './tools.ts';

/** Most items that one sheet is for. */
export const MOST_UNITS = 20;

/** What a sheet takes beside the parts of a build. */
export const sheetOptions = {
  units: z.number().int().min(1).max(MOST_UNITS).optional().describe('how many alike are put together'),
  from: z.literal('ready-made').optional().describe('the drive comes out of a ready-made external')
};
export type SheetOptions = { units?: number | undefined; from?: 'ready-made' | undefined };

/** The stages that a build can have, in the order of the work. */
const STAGES = [prove, layOut, takeOut, open, seat, dryFit, padsUnder, putBack, padsOver, close];

/** Adds up what the steps take, minutes; what is done once counts once. */
function minutesOf(stages: readonly SheetStage[], units: number): Band {
  const sum = { low: 0, typical: 0, high: 0 };
  for (const { steps } of stages)
    for (const { code, once } of steps) {
      const [low, typical, high] =
        code in STEP_MINUTES ? STEP_MINUTES[code as keyof typeof STEP_MINUTES] : STEP_MINUTES.usual;
      const times = once ? 1 : units;
      sum.low += low * times;
      sum.typical += typical * times;
      sum.high += high * times;
    }
  return { low: Math.round(sum.low), typical: Math.round(sum.typical), high: Math.round(sum.high) };
}

const toStage = ({ id, title, steps, asks, check }: StageDraft, hands: Hands): SheetStage => ({
  id,
  title,
  steps: steps.map((draft) => toStep(draft, hands)),
  asks: [...(asks ?? [])],
  check,
  checkId: `check:${id}.${partsKey(hands, ['drive', 'enclosure'])}`
});

/**
 * Makes the run sheet of a build: what to lay out, and stages of steps that each end in a check, composed from what its parts state.
 * @param input the parts in full, as a plan takes them
 * @example runSheet(anInput()).stages.map(({ id }) => id) // ['lay-out', 'open', 'seat', 'dry-fit', 'pads-over', 'close', 'plug-in']
 */
export function runSheet(input: PlanInput, options: SheetOptions = {}): RunSheet {
  const units = options.units ?? 1;
  const hands = handsOf(input, units, options.from === 'ready-made');
  const { findings, link } = plan(input, { workings: false });
  const drafts = [...STAGES.flatMap((stage) => stage(hands) ?? []), plugIn(hands, link.mode)];
  const stages = drafts.map((draft) => toStage(draft, hands));
  return {
    minutes: minutesOf(stages, units),
    units,
    tools: toolsOf(hands),
    spares: sparesOf(hands),
    kit: kitOf(hands),
    stages,
    warnings: findings.filter(({ severity }) => severity === 'fail').map(({ message }) => message)
  };
}
