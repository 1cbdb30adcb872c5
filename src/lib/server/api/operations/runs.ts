import * as runs from '../../repositories/runs';
import { operation } from '../operation';
import { CRATE, inBuild, refuseAhead, changed, inBuildWithId, versioned } from './common';
import * as builds from '../../repositories/builds';
import { z } from 'zod';
import { runInputSchema } from '#core/results/run';
import { conditionsFrom } from '#core/format/record';
import { formatOf } from '../../planning/formatting';
import { buildNow, loadLibrary } from '../../planning/planning';
import { checkPairResults, blocking } from '#core/results/gates';
import { Problem } from '../../problems/problem';
import { portOf } from '#core/plan/resolve-build';
import { OS_LABEL } from '#core/facts/filesystems';

/** The operations at `…/runs`, by their names in the OpenAPI document. */
export const runOperations = {
  listRuns: operation({
    method: 'get',
    path: `${CRATE}/builds/{buildId}/runs`,
    summary: 'Results of a build, newest first.',
    params: inBuild,
    response: z.array(runs.storedRunSchema),
    handle: async ({ db, params }) => {
      await builds.getBuild(db, { crate_id: params.crateId, id: params.buildId });
      return runs.listRuns(db, params);
    }
  }),

  createRun: operation({
    method: 'post',
    path: `${CRATE}/builds/{buildId}/runs`,
    summary:
      'Enter one speed-check result. Impossible figures are refused; suspicious ones need their alarm in `accepted`.',
    params: inBuild,
    body: runInputSchema,
    response: changed,
    status: 201,
    handle: async ({ db, params, body, by, at }) => {
      const { crateId, buildId } = params;
      const build = await builds.getBuild(db, { crate_id: crateId, id: buildId });
      refuseAhead(body.date, at);
      const now = buildNow(await loadLibrary(db, crateId, [build.choice]), build);
      const alarms = checkPairResults(body.results, now.snapshot, now.report);
      const stopping = blocking(alarms, body.accepted);
      if (stopping.length > 0) {
        throw new Problem(
          'implausible',
          stopping[0]!.message,
          stopping.map(({ field, message }) => ({ path: `results.${field}`, message })),
          { alarms: stopping }
        );
      }
      const { host, portId, cable, enclosure, drive } = now.snapshot;
      const { hostId, cableId, enclosureId, driveId } = build.choice;
      const chain = {
        host: host.name,
        port: portOf(host, portId)?.label ?? portId,
        ...(cable ? { cable: cable.name } : {}),
        enclosure: enclosure.name,
        drive: drive.name,
        os: [OS_LABEL[host.os.family], host.os.version].filter(Boolean).join(' '),
        mode: now.report.link.mode,
        ids: { hostId, portId, enclosureId, driveId, ...(cableId ? { cableId } : {}) }
      };
      const { date, results, simulated } = body;
      // What was made of the drive is a condition of every later result, unless the result says otherwise.
      const format = await formatOf(db, params);
      const conditions = format ? { ...conditionsFrom(format), ...body.conditions } : body.conditions;
      // Only alarms that there were: what was kept against one does not count where jobs are timed.
      const accepted = body.accepted.filter((alarm) => alarms.some(({ id }) => id === alarm));
      return runs.createRun(db, {
        crateId,
        buildId,
        tag: build.tag,
        run: { date, results, conditions, chain, simulated, accepted },
        by,
        at
      });
    }
  }),

  deleteRun: operation({
    method: 'delete',
    path: `${CRATE}/builds/{buildId}/runs/{id}`,
    summary: 'Delete a result.',
    params: inBuildWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => runs.deleteRun(db, { ...params, ...body, by, at })
  })
};
