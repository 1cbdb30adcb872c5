import { z } from 'zod';
import { isoDate } from '#core/parts/form/field';
import { conditionsSchema } from '#core/results/conditions';
import { PROTOCOL_IDS } from '#core/results/protocol-ids';
import { settingsSchema } from '#core/results/settings';
import { SIMULATED_FAULTS } from '#core/simulate/faults';
import { startRig } from '../../rig/rig';
import { operation } from '../operation';
import { CRATE, inBuild, refuseAhead, rigBegun, rigSpeed } from './common';

/** The operations of the stand-in rig, by their names in the OpenAPI document. Everything it gives is simulated. */
export const rigOperations = {
  createRigRun: operation({
    method: 'post',
    path: `${CRATE}/builds/{buildId}/rig-runs`,
    summary:
      'Measure a build on the stand-in rig: no device, but the plan’s models over time, with a seed and a fault.',
    params: inBuild,
    body: z.strictObject({
      protocol: z.enum(PROTOCOL_IDS),
      settings: settingsSchema.default({}),
      conditions: conditionsSchema.default({}),
      fault: z.enum(SIMULATED_FAULTS).optional(),
      seed: z.number().int().min(0).max(4_294_967_295).optional(),
      speed: rigSpeed.default(60),
      date: isoDate().optional()
    }),
    response: rigBegun,
    status: 202,
    handle: async ({ db, params, body: { date, ...request }, by, at }) => {
      if (date !== undefined) refuseAhead(date, at);
      return startRig(db, { ...params, request: { ...request, date: date ?? at.slice(0, 10) }, by, at });
    }
  })
};
