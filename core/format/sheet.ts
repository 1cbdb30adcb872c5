import { digest } from '../assembly/hands.ts';
import { STEP_MINUTES } from '../facts/handling.ts';
import { plan } from '../plan/plan.ts';
import type { PlanInput, PlanReport } from '../plan/report.ts';
import type { Band } from '../quantities/band.ts';
import type { FormatChoices } from '../sheets/format-choices.ts';
import type { RunSheet, SheetStage } from '../sheets/sheet.ts';
import { capacityLadder, type LadderReport } from './ladder.ts';
import { settle, type Settled } from './settled.ts';
import {
  stageFind,
  forWhat,
  stageMake,
  stageBefore,
  stageProve,
  type FormatStep,
  type FormatStage,
  type Formatting
} from './stages.ts';

export type FormatOptions = {
  choices?: FormatChoices | undefined;
  title?: string | undefined;
  units?: number | undefined;
};

/** Tells one setting of a step from another: what it is done to, and how. */
function keyOf(of: FormatStep['of'], { input, settled }: Formatting): string {
  const { system, filesystem, scheme, name, full, encryption, policy, volumes, shared, allocationUnit } = settled;
  const parts = {
    drive: input.drive.id ?? input.drive.name,
    system: system.family,
    format: JSON.stringify([filesystem, scheme, name, full, encryption, policy, volumes, shared, allocationUnit])
  };
  return digest(of.map((part) => parts[part]).join('\n'));
}

const toStage = ({ id, title, steps, check }: FormatStage, formatting: Formatting): SheetStage => ({
  id: `format-${id}`,
  title,
  steps: steps.map(({ of, ...draft }) => ({ id: `format:${draft.code}.${keyOf(of, formatting)}`, ...draft })),
  asks: [],
  check,
  checkId: `check:format-${id}.${keyOf(['drive', 'system'], formatting)}`
});

/** Minutes of all steps, with the time that a full format writes. */
function minutesOf(stages: readonly SheetStage[], units: number, fullMinutes: Band | null): Band {
  const sum = { low: 0, typical: 0, high: 0 };
  const add = (values: readonly [number, number, number], times: number) => {
    sum.low += values[0] * times;
    sum.typical += values[1] * times;
    sum.high += values[2] * times;
  };
  for (const { steps } of stages)
    for (const { code, once } of steps)
      add(
        code in STEP_MINUTES ? STEP_MINUTES[code as keyof typeof STEP_MINUTES] : STEP_MINUTES.usual,
        once ? 1 : units
      );
  if (fullMinutes) add([fullMinutes.low, fullMinutes.typical, fullMinutes.high], units);
  return { low: Math.round(sum.low), typical: Math.round(sum.typical), high: Math.round(sum.high) };
}

/** How long writing the whole drive takes, minutes: MB by MB/s, the fast end first. */
function fullMinutes({ drive }: PlanInput, { full }: Settled, report: PlanReport): Band | null {
  const rate = report.throughput?.sustainedWrite;
  if (!full || !rate) return null;
  const minutes = (MBps: number) => (drive.capacityTB * 1e6) / MBps / 60;
  return { low: minutes(rate.high), typical: minutes(rate.typical), high: minutes(rate.low) };
}

/**
 * Works out what is expected to be free on the drive of a build as it is formatted.
 * @example ladderOf(anInput(), settle(anInput(), plan(anInput()), {}, 'A')).steps[0].code // 'label'
 */
export const ladderOf = (
  { drive, host }: PlanInput,
  { filesystem, scheme, system }: Settled,
  observedFreeBytes?: number
): LadderReport =>
  capacityLadder({
    capacityTB: drive.capacityTB,
    filesystem,
    scheme,
    os: system.family ?? host.os.family,
    media: drive.media,
    ...(observedFreeBytes === undefined ? {} : { observedFreeBytes })
  });

/**
 * Makes the sheet that leads through formatting the drive of a build on the system at hand: by what is advised, where nothing else was
 * chosen.
 * @param input the parts in full, as a plan takes them
 * @example formatSheet(anInput()).stages.map(({ id }) => id) // ['format-before', 'format-find', 'format-make', 'format-prove']
 */
export function formatSheet(input: PlanInput, options: FormatOptions = {}): RunSheet {
  const { choices = {}, title = input.drive.name, units = 1 } = options;
  const report = plan(input, { workings: false });
  const settled = settle(input, report, choices, title);
  const formatting: Formatting = { input, settled, ladder: ladderOf(input, settled), units };
  const stages = [stageBefore, stageFind, stageMake, stageProve].map((stage) => toStage(stage(formatting), formatting));
  return {
    minutes: minutesOf(stages, units, fullMinutes(input, settled, report)),
    units,
    tools: ['the system’s own tools; nothing has to be installed', 'the photograph of the drive’s label'],
    spares: ['a second drive, for what is still only on this one'],
    kit: [
      {
        id: `kit:format-drive.${keyOf(['drive'], formatting)}`,
        what: `${forWhat(input.drive.name, units)} in ${input.enclosure.name}`,
        from: 'put together and closed',
        ...(input.drive.id ? { modelId: input.drive.id } : {})
      },
      {
        id: 'kit:format-label',
        what: 'The serial number: a photograph of the label, or the item’s page',
        from: 'taken when it was put together'
      }
    ],
    stages,
    warnings: report.filesystem.none
      ? ['No filesystem does all that the job asks for: look at the ways out first.']
      : []
  };
}
