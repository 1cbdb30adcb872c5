import type { Choice } from '#core/build/choice';
import { OS_LABEL } from '#core/facts/filesystems';
import type { Host } from '#core/parts/host';
import type { PlanInput, PlanReport } from '#core/plan/report';
import { portOf } from '#core/plan/resolve-build';
import type { Chain } from '../repositories/runs';

const osOf = ({ os }: Host): string => [OS_LABEL[os.family], os.version].filter(Boolean).join(' ');

/** Which models a result was measured on. */
const chainIds = ({ hostId, portId, cableId, enclosureId, driveId }: Choice) => ({
  hostId,
  portId,
  enclosureId,
  driveId,
  ...(cableId ? { cableId } : {})
});

/** What a build is measured on, by the names of now. */
export function chainOf(
  choice: Choice,
  { host, portId, cable, enclosure, drive }: PlanInput,
  report: PlanReport
): Chain {
  return {
    host: host.name,
    port: portOf(host, portId)?.label ?? portId,
    ...(cable ? { cable: cable.name } : {}),
    enclosure: enclosure.name,
    drive: drive.name,
    os: osOf(host),
    mode: report.link.mode,
    ids: chainIds(choice)
  };
}

/** The internal disk of a computer, as what was measured. */
export const internalChain = (id: string, host: Host): Chain => ({
  host: host.name,
  port: '',
  enclosure: '',
  drive: 'internal disk',
  os: osOf(host),
  mode: null,
  ids: { hostId: id }
});

/** Something ready-made, as what was measured. */
export const readyMadeChain = (id: string, name: string): Chain => ({
  host: '',
  port: '',
  enclosure: '',
  drive: name,
  os: '',
  mode: null,
  ids: { modelId: id }
});
