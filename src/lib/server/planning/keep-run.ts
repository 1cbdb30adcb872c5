import type { Knex } from 'knex';
import type { z } from 'zod';
import { conditionsFrom } from '#core/format/record';
import { isAhead } from '#core/parts/form/field';
import type { PlanInput, PlanReport } from '#core/plan/report';
import { checkRun } from '#core/protocols/gates';
import { blocking } from '#core/results/gates';
import type { runInputSchema, Subject } from '#core/results/run';
import type { ChangeResult } from '../db/change';
import { Problem, refuse } from '../problems/problem';
import { getBuild } from '../repositories/builds';
import { getModel } from '../repositories/models';
import { createRun, type Chain, type RunSubject } from '../repositories/runs';
import { itemsIn } from '../repositories/units';
import { formatOf } from './formatting';
import { chainOf, internalChain, readyMadeChain } from './measuring';
import { buildNow, loadLibrary } from './planning';

type By = { by: string; at: string };
/** What was measured, as the gates and the log need it. */
type Measured = {
  column: RunSubject;
  of: string;
  chain: Chain;
  build: { input: PlanInput; report: PlanReport } | null;
};

async function measuredOf(db: Knex, crateId: string, subject: Subject): Promise<Measured> {
  if ('buildId' in subject) {
    const build = await getBuild(db, { crate_id: crateId, id: subject.buildId });
    const { snapshot, report } = buildNow(await loadLibrary(db, crateId, [build.choice]), build);
    return {
      column: { build_id: build.id },
      of: build.tag,
      chain: chainOf(build.choice, snapshot, report),
      build: { input: snapshot, report }
    };
  }
  const wrong = (path: string, what: string) =>
    new Problem('bad-input', `That is no ${what}.`, [{ path: `subject.${path}`, message: `is no ${what}` }]);
  if ('hostId' in subject) {
    const { spec } = await getModel(db, { crateId, id: subject.hostId });
    if (spec.kind !== 'host') throw wrong('hostId', 'computer');
    const id = subject.hostId;
    return {
      column: { host_id: id },
      of: `the internal disk of ${spec.name}`,
      chain: internalChain(id, spec),
      build: null
    };
  }
  const { spec } = await getModel(db, { crateId, id: subject.modelId });
  if (spec.kind !== 'alternative') throw wrong('modelId', 'ready-made drive, stick or card');
  return {
    column: { model_id: subject.modelId },
    of: spec.name,
    chain: readyMadeChain(subject.modelId, spec.name),
    build: null
  };
}

/**
 * Keeps a result, whatever it is of, once it has passed the plausibility gates.
 * @throws Problem `implausible` with the alarms that stand in the way; `bad-input` for a day to come
 */
export async function keepRun(
  db: Knex,
  args: { crateId: string; subject: Subject; run: z.output<typeof runInputSchema> } & By
): Promise<ChangeResult> {
  const { crateId, subject, run, by, at } = args;
  const measured = await measuredOf(db, crateId, subject);
  refuse(isAhead(run.date, at.slice(0, 10)) ? [{ path: 'date', message: 'lies in the future' }] : []);
  if (!run.results && !run.series)
    throw new Problem('bad-input', 'Give results, a series, or both.', [
      { path: 'results', message: 'is needed where there is no series' }
    ]);
  // What was made of the drive is a condition of every later result, unless the result says otherwise.
  const format = 'buildId' in subject ? await formatOf(db, { crateId, buildId: subject.buildId }) : undefined;
  const unitIds = 'buildId' in subject ? await itemsIn(db, { crateId, buildId: subject.buildId }) : [];
  const conditions = {
    ...(format ? conditionsFrom(format) : {}),
    // The very items that are in it now, unless somebody says which others.
    ...(unitIds.length > 0 ? { unitIds: unitIds.slice(0, 10) } : {}),
    ...run.conditions
  };
  const alarms = checkRun({ ...run, conditions }, measured.build);
  const stopping = blocking(alarms, run.accepted);
  const [first] = stopping;
  if (first)
    throw new Problem(
      'implausible',
      first.message,
      stopping.map(({ path, message }) => ({ path, message })),
      { alarms: stopping }
    );
  const { protocol, date, results = {}, settings, simulated } = run;
  // Only alarms that there were: what was kept against one does not count where jobs are timed.
  const accepted = run.accepted.filter((alarm) => alarms.some(({ id }) => id === alarm));
  return createRun(db, {
    crateId,
    subject: measured.column,
    of: measured.of,
    run: { protocol, date, results, conditions, chain: measured.chain, simulated, accepted, settings },
    ...(run.series ? { series: run.series } : {}),
    by,
    at
  });
}
