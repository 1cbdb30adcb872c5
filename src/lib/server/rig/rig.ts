import type { Knex } from 'knex';
import { briefOf } from '#core/protocols/brief';
import { protocolsFor } from '#core/protocols/protocols';
import { testedBuild } from '#core/protocols/tested';
import type { PlanInput, PlanReport } from '#core/plan/report';
import type { Conditions } from '#core/results/conditions';
import type { ProtocolId } from '#core/results/protocol-ids';
import type { Settings } from '#core/results/settings';
import type { SimulatedFault } from '#core/simulate/faults';
import { Problem } from '../problems/problem';
import { buildNow, loadLibrary } from '../planning/planning';
import { chainOf } from '../planning/measuring';
import { getBuild, type StoredBuild } from '../repositories/builds';
import { getRun, type RigRow } from '../repositories/runs';
import { beginRig, playedBy, resumeRig, type RigWork } from '../repositories/run-rig';
import { itemsIn } from '../repositories/units';
import { startTask } from '../tasks/tasks';
import { inWorker } from '../workers/run';
import { playRun } from './player';

export type RigRequest = {
  protocol: ProtocolId;
  settings: Settings;
  conditions: Conditions;
  fault?: SimulatedFault | undefined;
  seed?: number | undefined;
  speed: number;
  date: string;
};
type By = { by: string; at: string };

/** What is measured: the very item that a build holds; where it holds none, the build itself stands for its drive. */
async function driveKey(db: Knex, build: StoredBuild): Promise<string> {
  const items = await itemsIn(db, { crateId: build.crateId, buildId: build.id, modelId: build.choice.driveId });
  return items[0] === undefined ? `build ${build.id}` : `item ${items[0]}`;
}

/** What of the forecast stands for another external at the other end of a copy. */
async function ratesOf(db: Knex, crateId: string, id: string): Promise<{ readMBps: number; writeMBps: number }> {
  const build = await getBuild(db, { crate_id: crateId, id });
  const { read, write } = buildNow(await loadLibrary(db, crateId, [build.choice]), build).report.throughput;
  if (!read || !write)
    throw wrong('The other external does not run.', 'settings.otherBuildId', 'is of a build that does not run');
  return { readMBps: read.typical, writeMBps: write.typical };
}

const wrong = (message: string, path: string, what: string) =>
  new Problem('bad-input', message, [{ path, message: what }]);

/** @throws Problem `bad-input` where there is nothing that the rig could play */
function refuseUnplayable(protocol: ProtocolId, { drive, host }: PlanInput, { link, throughput }: PlanReport): void {
  if (!protocolsFor('build', drive.media).some(({ id }) => id === protocol))
    throw wrong('This way of measuring is not for this kind of drive.', 'protocol', 'is not for this kind of drive');
  if (link.mode === null || throughput.read === null)
    throw wrong(
      'This build does not run, so there is nothing to measure.',
      'buildId',
      'is of a build that does not run'
    );
  if (protocol === 'baseline' && !host.internalDisk)
    throw wrong(
      `The rig knows nothing of the internal disk of ${host.name}: enter its rates with the computer first.`,
      'protocol',
      'needs the rates of the internal disk'
    );
}

/**
 * Begins a run on the stand-in rig. All of it is simulated, and says so wherever it stands.
 * @throws Problem `bad-input` where the build does not run or the protocol is not for it; `drive-busy`
 */
export async function startRig(
  db: Knex,
  args: { crateId: string; buildId: string; request: RigRequest } & By
): Promise<{ runId: string; taskId: string }> {
  const { crateId, buildId, request, by, at } = args;
  const { protocol, conditions, date, seed = Date.now() % 4_294_967_296 } = request;
  const build = await getBuild(db, { crate_id: crateId, id: buildId });
  const { snapshot, report } = buildNow(await loadLibrary(db, crateId, [build.choice]), build);
  refuseUnplayable(protocol, snapshot, report);
  const brief = briefOf(protocol, request.settings, testedBuild(snapshot, report));
  const { settings } = brief;
  if (protocol === 'cross-copy' && settings.otherBuildId === undefined)
    throw wrong('Choose the other external.', 'settings.otherBuildId', 'is needed: the other external');
  const otherRates =
    settings.otherBuildId === undefined ? undefined : await ratesOf(db, crateId, settings.otherBuildId);
  const rig: RigRow = {
    state: 'running',
    taskId: null,
    seed,
    speed: request.speed,
    fault: request.fault ?? null,
    sampled: 0,
    atS: 0,
    wantedS: brief.seconds?.typical ?? 600,
    buildVersion: build.version,
    why: null,
    input: snapshot,
    phases: brief.phases,
    ...(settings.GB === undefined ? {} : { boundedGB: settings.GB }),
    ...(otherRates ? { otherRates } : {})
  };
  const chain = chainOf(build.choice, snapshot, report);
  const unitIds = (await itemsIn(db, { crateId, buildId })).slice(0, 10);
  const { id: runId } = await beginRig(db, {
    crateId,
    buildId,
    tag: build.tag,
    drive: await driveKey(db, build),
    run: {
      protocol,
      date,
      conditions: unitIds.length > 0 ? { unitIds, ...conditions } : conditions,
      chain,
      simulated: true,
      accepted: [],
      settings
    },
    rig,
    by,
    at
  });
  return { runId, taskId: await play(db, { crateId, runId, protocol, settings, rig, by }) };
}

/** Goes on with a run that was cancelled or broken off, from its last sample. @throws Problem `drive-busy` or `conflict` */
export async function resumeRun(
  db: Knex,
  args: { crateId: string; runId: string; speed?: number | undefined; by: string }
): Promise<{ runId: string; taskId: string }> {
  const { crateId, runId } = args;
  const run = await getRun(db, { crateId, id: runId });
  if (!run.buildId) throw new Problem('bad-input', 'This result did not come from the rig.', []);
  const build = await getBuild(db, { crate_id: crateId, id: run.buildId });
  const work = await resumeRig(db, { ...args, drive: await driveKey(db, build) });
  return { runId, taskId: await play(db, work) };
}

/** Starts the task that plays a run. */
async function play(db: Knex, work: RigWork): Promise<string> {
  const { input, phases, boundedGB, otherRates, seed, fault, wantedS } = work.rig;
  const { fillPercent } = work.settings;
  const settings = {
    seed,
    ...(fault ? { fault } : {}),
    ...(boundedGB === undefined ? {} : { boundedGB }),
    ...(otherRates ? { other: otherRates } : {}),
    ...(fillPercent === undefined ? {} : { fillFraction: Math.min(0.99, fillPercent / 100) })
  };
  const { id } = await startTask(db, 'Rig run', async (control) => {
    const played = await inWorker('rig', { input, phases, settings, wantedS }, { signal: control.signal });
    if (!played) throw new Problem('bad-input', 'This build does not run, so there is nothing to measure.', []);
    return playRun(db, work, played, control);
  });
  await playedBy(db, work, id);
  return id;
}
