import { type PlanInput, planInputSchema, planReportSchema } from '../plan/report.ts';
import { type ResolvedBuild, resolveBuild } from '../plan/resolve-build.ts';
import { type ThermalModel, thermalModel } from '../thermal/forecast/thermal-model.ts';
import { type Setting, settingAt } from '../thermal/model/setting.ts';
import { type Transient, runTransient, EVENT_KINDS } from './transient.ts';
import { z } from 'zod';
import { assumptionsOf } from '../plan/assumptions.ts';
import { copyParameters } from '../thermal/model/parameters.ts';
import { COVERED, NEARLY_FULL_DRIVE, noisy, SIMULATED_FAULTS, type SimulatedFault } from './faults.ts';
import { PlayedChain } from './played-chain.ts';

/** Samples that a run keeps unless it is asked for more or fewer, and the most that it keeps at all. */
const USUAL_SAMPLES = 1800;
const MOST_SAMPLES = 20_000;

/** What a simulation takes beside a build. */
export const simulateOptions = {
  seconds: z.number().min(1).max(259_200),
  writeGB: z.number().min(0.001).max(200_000).optional().describe('a write of this much, instead of the job or a soak'),
  fillFraction: z.number().min(0).max(0.99).optional(),
  ambientC: z.number().min(-20).max(60).optional(),
  fan: z.boolean().optional().describe('with or without a fan, whatever the enclosure has'),
  bare: z.boolean().optional().describe('without any pads'),
  material: z.enum(['aluminium', 'plastic']).optional().describe('instead of what the enclosure is made of'),
  stands: z.enum(['flat', 'edge', 'cloth']).optional().describe('instead of how the enclosure stands'),
  start: z.enum(['idle', 'ambient']).optional().describe('warm from being connected, or just plugged in'),
  rewrite: z.boolean().optional().describe('over what was written before: shingled disks collapse'),
  fault: z.enum(SIMULATED_FAULTS).optional(),
  seed: z
    .number()
    .int()
    .min(0)
    .max(4294967295)
    .optional()
    .describe('adds noise to the rates, the same for the same seed'),
  everyS: z.number().min(0.1).max(3600).optional().describe('between samples')
};
export const simulateInputSchema = planInputSchema.extend(simulateOptions);
export type SimulateInput = z.infer<typeof simulateInputSchema>;

const column = () => z.array(z.number());
export const simulateReportSchema = z.strictObject({
  simulated: z.literal(true),
  samples: z.strictObject({
    t: column().describe('s'),
    MBps: column().describe('mean over (t[i-1], t[i]]'),
    writtenGB: column(),
    controllerC: column().describe('as the drive reports it; of a hard disk, the disk'),
    nandC: column().describe('empty for a hard disk'),
    caseC: column().describe('outer face')
  }),
  events: z.array(z.strictObject({ t: z.number(), kind: z.enum(EVENT_KINDS) })),
  summary: z.strictObject({
    doneS: z.number().nullable(),
    movedGB: z.number(),
    peakControllerC: z.number(),
    peakNandC: z.number(),
    peakCaseC: z.number(),
    heatJ: z.number().describe('all that was drawn'),
    storedJ: z.number().describe('what of it is still in the bodies'),
    startC: z.number().nullable().describe('where the drive begins to throttle')
  }),
  assumed: planReportSchema.shape.assumed
});
export type SimulateReport = z.infer<typeof simulateReportSchema>;

/** Takes the options of the rig away: what is left is the input of a plan. */
function withoutOptions(input: SimulateInput): PlanInput {
  const build: PlanInput & Partial<SimulateInput> = { ...input };
  for (const option of Object.keys(simulateOptions) as (keyof typeof simulateOptions)[]) delete build[option];
  return build;
}

/** Makes the build that is played: its parts with what the request changes of them. */
export function playedBuild(input: SimulateInput, fault: SimulatedFault): PlanInput {
  const { fillFraction, material } = input;
  const fill = fault === 'drive-nearly-full' ? NEARLY_FULL_DRIVE.fill : fillFraction;
  return {
    ...withoutOptions(input),
    drive: fill === undefined ? input.drive : { ...input.drive, fillFraction: fill },
    enclosure:
      material === undefined
        ? input.enclosure
        : { ...input.enclosure, cooling: { kind: 'passive', ...input.enclosure.cooling, material } }
  };
}

/** Finds how the build warms, with what a fault does to it. */
export function playedHeat(
  build: ResolvedBuild,
  input: SimulateInput,
  fault: SimulatedFault
): { model: ThermalModel; setting: Setting } {
  const { drive, enclosure, negotiation, rules, pads } = build;
  const { job, fan, bare, stands } = input;
  const stack = fault === 'pad-no-contact' ? withoutController(pads) : pads;
  const ambientC = input.ambientC ?? job?.ambientC;
  const model = thermalModel({ drive, enclosure, stack }, negotiation.mode, rules, { ambientC, fan, bare, stands });
  const parameters = copyParameters(model.typical.parameters);
  if (fault === 'thermal-throttle') parameters.area *= COVERED;
  return { model, setting: settingAt(model.geometry, model.draw, parameters) };
}

/** The longest step of the solver, s. */
const STEP_S = 2;

/**
 * Plays a build over time on the stand-in rig: typical rates, cache, heat and throttle of the plan's own models, second by second.
 * No device is involved; every result of it is shown as simulated.
 * @param input seconds and GB as in `simulateOptions`
 * @returns null where the build does not connect or does not fit: then there is nothing to play
 * @throws RangeError if the host has no port of that id
 * @example simulate({ ...anInput(), seconds: 60, everyS: 60 }).simulated // true
 */
export function simulate(input: SimulateInput): SimulateReport | null {
  const { seconds, writeGB, start, everyS } = input;
  const fault: SimulatedFault = input.fault ?? 'healthy';
  const build = playedBuild(input, fault);
  const resolved = resolveBuild(build);
  const { running, broken } = resolved;
  if (!running || broken) return null;
  const { model, setting } = playedHeat(resolved, input, fault);
  const legs = new PlayedChain(resolved, running.chain, fault, {
    job: writeGB === undefined ? input.job : undefined,
    rewrites: input.rewrite
  }).legs(writeGB);
  const air = setting.network.ambientC;
  const played = runTransient(setting, model.limits, legs, {
    seconds,
    everyS: Math.max(everyS ?? Math.max(1, seconds / USUAL_SAMPLES), seconds / MOST_SAMPLES),
    stepS: STEP_S,
    ...(start === 'ambient' ? { start: { controllerC: air, nandC: air, caseC: air } } : {})
  });
  return { ...reportOf(played, input, model), assumed: assumptionsOf(build, resolved) };
}

/** Writes down what was played. */
function reportOf(played: Transient, input: SimulateInput, { limits }: ThermalModel): Omit<SimulateReport, 'assumed'> {
  const { samples, events, doneS, movedGB, peak, heatJ, storedJ } = played;
  const { seed, fault, drive } = input;
  return {
    simulated: true,
    samples: {
      ...samples,
      ...(seed === undefined ? {} : { MBps: noisy(samples.MBps, fault ?? 'healthy', seed) }),
      ...(drive.media === 'hdd' ? { nandC: [] } : {})
    },
    events,
    summary: {
      doneS,
      movedGB,
      peakControllerC: peak.controllerC,
      peakNandC: peak.nandC,
      peakCaseC: peak.caseC,
      heatJ,
      storedJ,
      startC: limits?.startC ?? null
    }
  };
}

/** The stack with the controller's pad not touching. */
function withoutController<T extends { filled: readonly { chip: { role: string }; choice: unknown }[] }>(stack: T): T {
  return {
    ...stack,
    filled: stack.filled.map((place) => (place.chip.role === 'controller' ? { ...place, choice: null } : place))
  };
}
