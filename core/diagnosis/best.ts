import { slotLink } from '../chain/stages.ts';
import { PCIE_LANE_MBPS } from '../facts/buses.ts';
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import { fillDrive } from '../parts/fill/drive.ts';
import { fillEnclosure } from '../parts/fill/enclosure.ts';
import { plan } from '../plan/plan.ts';
import type { PlanInput } from '../plan/report.ts';
import type { Band } from '../quantities/band.ts';

/**
 * The best that a chain can do: caching on, UAS, empty, no ceiling of the computer that is known. What was measured is held against this,
 * so that a slow-down that the forecast names already is found by its own name.
 */
export type Best = {
  mode: LinkMode | null;
  read: Band | null;
  write: Band | null;
  post: Band | null;
  cliffGB: Band | null;
  random4kRead: Band | null;
  random4kWrite: Band | null;
  link: Band | null;
  bulkOnly: Band | null;
  /** Rate of one lane behind the bridge, MB/s; null without PCIe. */
  lane: number | null;
  internalDisk: PlanInput['host']['internalDisk'];
  startC: number | null;
  throttleAfterS: Band | null;
  disk: boolean;
};

/** The same chain with everything that slows it taken away. */
function atItsBest(input: PlanInput): PlanInput {
  const { drive, host, enclosure } = input;
  const { measured: _measured, job: _job, ...rest } = input;
  return {
    ...rest,
    writeCache: 'performance',
    drive: { ...drive, fillFraction: 0 },
    enclosure: enclosure.uas === false ? { ...enclosure, uas: true } : enclosure,
    host: {
      ...host,
      ports: host.ports.map((port) => {
        const { writeCapMBps: _cap, ...free } = port;
        return port.uas === false ? { ...free, uas: true } : free;
      })
    }
  };
}

/**
 * Works out the best that a chain can do.
 * @throws RangeError if the host has no port of that id
 * @example bestChain(anInput()).mode // 'usb4-40g'
 */
export function bestChain(input: PlanInput): Best {
  const best = atItsBest(input);
  const { link, throughput, cache, thermal } = plan(best, { workings: false });
  const pcie = slotLink(fillDrive(best.drive), fillEnclosure(best.enclosure));
  const mode = link.mode && LINK_MODES[link.mode];
  return {
    mode: link.mode,
    read: throughput.read,
    write: throughput.write,
    post: throughput.sustainedWrite,
    cliffGB: cache.cliffAtGB,
    random4kRead: throughput.random4kRead,
    random4kWrite: throughput.random4kWrite,
    link: mode && mode.read,
    bulkOnly: mode && 'bulkOnly' in mode ? mode.bulkOnly : null,
    lane: pcie ? PCIE_LANE_MBPS[pcie.generation] : null,
    internalDisk: input.host.internalDisk,
    startC: thermal?.startC ?? null,
    throttleAfterS: thermal?.throttleAfterS ?? null,
    disk: input.drive.media === 'hdd'
  };
}
