import type { OsFamily } from '../facts/filesystems.ts';
import type { Os } from '../parts/host.ts';
import type { Job } from '../parts/job.ts';

/** Devices that a purpose speaks of: any of `one` will do; where none is named, all of `else` are meant. */
type Implied = { one: readonly OsFamily[]; else: readonly OsFamily[]; does: 'writers' | 'readers' };

const DEVICES: Partial<Record<Job['purposes'][number], Implied>> = {
  camera: { one: ['camera', 'ios', 'ipados', 'android'], else: ['camera'], does: 'writers' },
  console: { one: ['console'], else: ['console'], does: 'writers' },
  tv: { one: ['tv'], else: ['tv'], does: 'readers' },
  car: { one: ['car'], else: ['car'], does: 'readers' },
  phone: { one: ['ios', 'android'], else: ['ios', 'android'], does: 'writers' },
  tablet: { one: ['ipados', 'android'], else: ['ipados', 'android'], does: 'writers' },
  router: { one: ['router'], else: ['router'], does: 'writers' }
};

/**
 * Gives the devices that the purposes of a job speak of and that are not named among its systems. A phone whose kind is not said
 * may be of either.
 * @example impliedBy(['camera'], []).writers // [{ family: 'camera' }]
 */
export function impliedBy(purposes: Job['purposes'], named: readonly Os[]): { writers: Os[]; readers: Os[] } {
  const found: { writers: Os[]; readers: Os[] } = { writers: [], readers: [] };
  for (const purpose of purposes) {
    const device = DEVICES[purpose];
    if (!device || named.some(({ family }) => device.one.includes(family))) continue;
    found[device.does].push(...device.else.map((family) => ({ family })));
  }
  return found;
}
