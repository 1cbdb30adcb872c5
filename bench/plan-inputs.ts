import type { PlanInput } from '#core/plan/report';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../tests/parts.ts';

/** What is planned on and on: everything stated, a job on three systems, almost nothing stated, and parts that do not fit. */
export const planInputs: Record<string, PlanInput> = {
  'sound build, everything stated': anInput(),
  'with a job on three systems': anInput({
    host: aHost({}, { internalDisk: { readMBps: 3000, writeMBps: 2500 } }),
    cable: aCable({ modes: ['usb-10g'], active: true }),
    job: {
      name: 'j',
      purposes: ['exchange'],
      transferGB: 420,
      files: 4000,
      largestFileGB: 9,
      direction: 'in',
      readHosts: [{ family: 'macos', version: '14' }, { family: 'windows' }]
    }
  }),
  'almost nothing known': anInput({
    drive: { kind: 'drive', name: 'd', media: 'nvme', formFactor: 'm2', capacityTB: 1 }
  }),
  'does not fit': anInput({ drive: aDrive({ m2LengthMm: 110 }), enclosure: anEnclosure() })
};
