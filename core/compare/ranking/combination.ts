/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices made by the walk over these very lists */
import { chainKey } from '../../build/chain-key.ts';
import { gather } from '../../build/gather.ts';
import { plan } from '../../plan/plan.ts';
import type { PlanInput, PlanReport } from '../../plan/report.ts';
import type { LinkClass } from './link-classes.ts';
import type { Prepared } from './prepare.ts';
import type { Combination } from './request.ts';

/** One combination by indexes: a drive, an enclosure, a port with its host, and a cable, -1 for none. */
export type RankMember = { drive: number; enclosure: number; link: LinkClass; cable: number };

/** Names the parts of a combination. */
export function combinationOf(
  { withIds, ports }: Prepared,
  { drive, enclosure, link, cable }: RankMember
): Combination {
  return {
    hostId: withIds.hosts[link.host]!.id!,
    portId: ports[link.port]!.port.id,
    ...(cable >= 0 ? { cableId: withIds.cables[cable]!.id! } : {}),
    enclosureId: withIds.enclosures[enclosure]!.id!,
    driveId: withIds.drives[drive]!.id!
  };
}

const KEYS = ['hostId', 'portId', 'cableId', 'enclosureId', 'driveId'] as const;

/** Orders combinations by their ids, in the order of the chain: a tie of everything else is settled the same way every time. */
export function compareIds(a: Combination, b: Combination): number {
  for (const key of KEYS) {
    const [x, y] = [a[key] ?? '', b[key] ?? ''];
    if (x !== y) return x < y ? -1 : 1;
  }
  return 0;
}

/** Names a combination in one word. */
export const combinationKey = (combination: Combination): string => chainKey(combination);

/** Gathers what a plan of one combination needs, as a page or the API does. */
export function inputOf({ withIds, ports, known }: Prepared, { drive, enclosure, link, cable }: RankMember): PlanInput {
  return gather(
    {
      host: withIds.hosts[link.host]!,
      portId: ports[link.port]!.port.id,
      ...(cable >= 0 ? { cable: withIds.cables[cable]! } : {}),
      enclosure: withIds.enclosures[enclosure]!,
      drive: withIds.drives[drive]!,
      job: withIds.job
    },
    known
  );
}

/** Plans one combination. */
export const planOf = (set: Prepared, member: RankMember): PlanReport =>
  plan(inputOf(set, member), { workings: false });
