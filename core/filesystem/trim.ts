import { FILESYSTEMS, OS_LABEL, type FilesystemId, type OsFamily } from '../facts/filesystems.ts';
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import { isTunnelled } from '../chain/modes.ts';
import { runsUas } from '../chain/stages.ts';
import type { FilledDrive } from '../parts/fill/drive.ts';
import type { FilledEnclosure } from '../parts/fill/enclosure.ts';
import type { Port } from '../parts/host.ts';
import type { Band } from '../quantities/band.ts';
import { figure, quantity } from '../quantities/format.ts';
import { forecastCache, type CacheForecast } from '../throughput/flash-cache.ts';

export type TrimAnswer = {
  answer: 'yes' | 'no' | 'unknown' | 'not-needed';
  because: string[];
  /** What it means for the forecast. */
  effect: string;
  /** How to find out on this system; empty where there is nothing to find out. */
  check: string;
  /** Where the cliff comes once every block was written and none was given back, GB; null where that changes nothing. */
  onceWrittenGB: Band | null;
};

/** How to see it, system by system. Commands only read, but for the trim itself, which frees what is free already. */
const CHECK: Partial<Record<OsFamily, string>> = {
  linux:
    'lsblk --discard: a DISC-GRAN above 0 means that it gets through. sudo fstrim -v MOUNTPOINT then says how much it gave back.',
  windows:
    'Optimize-Volume -DriveLetter LETTER -ReTrim -Verbose: it reports a retrim, or that the drive does not support it.',
  macos:
    'System Information, under NVMExpress or SATA: “TRIM Support: Yes”. A drive that is listed under USB only has none.'
};
const CHECK_ELSEWHERE = 'This system does not show it: attach the build to a computer and look there.';

type Chain = {
  mode: LinkMode;
  port: Port;
  enclosure: FilledEnclosure;
  drive: FilledDrive;
  filesystem: FilesystemId;
  os: OsFamily;
  cache: CacheForecast;
  write: Band;
};

/**
 * Tells whether the drive learns what was freed: through this link and bridge, from this filesystem on this system. It gets through tunnels
 * and eSATA; over USB only with UAS, a bridge that translates it and a system that sends it.
 */
// eslint-disable-next-line complexity -- one line for each link of the chain that TRIM passes
export function trimAnswer({ mode, port, enclosure, drive, filesystem, os, cache, write }: Chain): TrimAnswer {
  if (drive.drive.media === 'hdd')
    return {
      answer: 'not-needed',
      because: ['a hard disk has no use for it, shingled ones aside'],
      effect: '',
      check: '',
      onceWrittenGB: null
    };
  const because: string[] = [];
  let answer: TrimAnswer['answer'] = 'yes';
  const lower = (to: 'no' | 'unknown', reason: string) => {
    if (to === 'no' || answer === 'yes') answer = to;
    because.push(reason);
  };
  const direct = isTunnelled(mode) || LINK_MODES[mode].carrier === 'esata';
  if (direct) because.push(`${LINK_MODES[mode].label} passes it like a slot inside the computer`);
  else if (enclosure.enclosure.trim === false) lower('no', 'this bridge does not translate it');
  else if (!runsUas(port, enclosure)) lower('no', 'bulk-only transport has no command for it');
  else if (enclosure.enclosure.trim === undefined) lower('unknown', 'whether this bridge translates it is not stated');
  else because.push('UAS, and a bridge that translates it');
  const sends = FILESYSTEMS[filesystem].trim[os];
  const who = `${OS_LABEL[os]} on ${FILESYSTEMS[filesystem].label}`;
  if (sends === 'any-link' || (sends === 'tunnel' && direct)) because.push(`${who} sends it`);
  else if (sends === 'never') lower('no', `${who} never sends it`);
  else if (sends === 'tunnel') lower('unknown', `${who} sends it over tunnels, over USB seldom`);
  else lower('unknown', `whether ${who} sends it is not known`);

  // With a dynamic cache only: it lives in the space that the drive knows to be free.
  const dynamic = cache.cliffAtGB !== null && drive.drive.flash?.cacheKind !== 'fixed';
  const onceWrittenGB =
    dynamic && (answer as string) !== 'yes' ? (forecastCache(drive, write, 0).cliffAtGB ?? null) : null;
  return {
    answer,
    because,
    effect: effectOf(answer, dynamic, cache),
    check: answer === 'yes' && direct ? '' : (CHECK[os] ?? CHECK_ELSEWHERE),
    onceWrittenGB
  };
}

function effectOf(answer: TrimAnswer['answer'], dynamic: boolean, cache: CacheForecast): string {
  if (cache.cliffAtGB === null)
    return 'Here the link is no faster than the drive writes after its cache, so the forecast stays as it is.';
  const at = `about ${quantity(cache.cliffAtGB.typical, 'GB')}`;
  if (answer === 'yes') return `What is deleted is cache again: the ${at} hold after every clean-up.`;
  if (!dynamic) return 'The cache of this drive is fixed and stays; garbage collection gets slower with time.';
  const word = answer === 'no' ? 'The' : 'If it does not get through, the';
  return `${word} forecast of ${at} holds on a drive with blocks never written. Once all were written, a cache that lives in free space shrinks to next to nothing, and long writes begin at about ${figure(cache.sustained.typical)}\u202fMB/s.`;
}
