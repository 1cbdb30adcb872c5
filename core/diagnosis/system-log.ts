import type { CauseCode } from './causes.ts';
import { fromTable, type Evidence, type Likelihoods } from './evidence.ts';

/** What a system writes into its log, by what it is a sign of. */
export const LOG_SIGNS = [
  'reset',
  'disconnect',
  'transport-error',
  'over-current',
  'speed-480',
  'speed-5g',
  'speed-10g',
  'bulk-only',
  'medium-error',
  'retried'
] as const;
export type LogSign = (typeof LOG_SIGNS)[number];

type Sign = { patterns: readonly RegExp[]; says: (times: number) => string; likelihoods: Likelihoods };

const times = (n: number, one: string, many: string): string => (n === 1 ? one : `${many} ${n} times`);
const LOOSE: Partial<Record<CauseCode, number>> = {
  'unstable-link': 0.75,
  'no-power': 0.5,
  'bridge-firmware': 0.6,
  'not-seated': 0.5,
  'weak-surface': 0.15,
  'thermal-throttle': 0.06,
  'bulk-only': 0.04
};

/** The usual wording of Linux, macOS and Windows. */
const SIGNS: Record<LogSign, Sign> = {
  reset: {
    patterns: [
      /\breset (?:high|super)-?speed/i,
      /\breset SuperSpeed/i,
      /Reset to device, \\Device\\/i,
      /uas_eh_(?:device_reset|abort)_handler/i,
      /\bIOUSB.*\breset(?:ting)? (?:device|port)/i,
      /xhci.*(?:resetting|Reset) (?:device|endpoint)/i
    ],
    says: (n) => times(n, 'The log tells of a reset', 'The log tells of resets') + '.',
    likelihoods: { usual: 0.03, given: LOOSE }
  },
  disconnect: {
    patterns: [
      /USB disconnect, device number/i,
      /surprise removed/i,
      /disk\d+ .*(?:not ejected properly|was removed)/i,
      /Disk Not Ejected Properly/i,
      /terminated.*IOUSBHostDevice/i
    ],
    says: (n) => times(n, 'The log tells that it went away', 'The log tells that it went away') + '.',
    likelihoods: { usual: 0.04, given: { ...LOOSE, 'thermal-throttle': 0.1 } }
  },
  'transport-error': {
    patterns: [
      /device descriptor read\/\w+, error -\d+/i,
      /device not accepting address/i,
      /cmd cmplt err -(?:71|75|84|110)/i,
      /status -(?:71|84|110)/i,
      /Transaction Error|Split Transaction Error/i,
      /Cannot enable\. Maybe the USB cable is bad/i,
      /kIOReturn(?:NotResponding|Aborted|USBTransactionTimeout)/i,
      /hostbyte=DID_ERROR|DID_TIME_OUT/i
    ],
    says: (n) => times(n, 'The log tells of an error on the line', 'The log tells of errors on the line') + '.',
    likelihoods: { usual: 0.015, given: { ...LOOSE, 'unstable-link': 0.8 } }
  },
  'over-current': {
    patterns: [
      /over-?current/i,
      /power surge on (?:the )?(?:USB )?(?:port|hub)/i,
      /drawing too much power/i,
      /needs more power/i
    ],
    says: (n) => times(n, 'The log tells that it drew too much', 'The log tells that it drew too much') + '.',
    likelihoods: { usual: 0.004, given: { 'no-power': 0.7, 'unstable-link': 0.02 } }
  },
  'speed-480': {
    patterns: [
      /new high-speed USB device/i,
      /(?:at|speed:?|Link speed:?) *480 ?(?:Mb|Mbps|M)/i,
      /\bHigh-?Speed \(480/i
    ],
    says: () => 'The log shows 480 Mb/s, USB 2.0.',
    likelihoods: { usual: 0.02, given: { 'usb2-fallback': 0.97 } }
  },
  'speed-5g': {
    patterns: [
      /new SuperSpeed (?:Gen 1 )?USB device/i,
      /(?:at|speed:?) *5(?:\.0)? ?(?:Gb|Gbps)\b/i,
      /(?:at|speed:?) *5000 ?M/i
    ],
    says: () => 'The log shows 5 Gb/s.',
    likelihoods: { usual: 0.03, given: { '5g-port-or-cable': 0.96, 'usb2-fallback': 0.01, '10g-fallback': 0.01 } }
  },
  'speed-10g': {
    patterns: [
      /new SuperSpeed ?Plus(?: Gen 2x1)? USB device/i,
      /(?:at|speed:?) *10(?:\.0)? ?(?:Gb|Gbps)\b/i,
      /(?:at|speed:?) *10000 ?M/i
    ],
    says: () => 'The log shows 10 Gb/s.',
    likelihoods: { usual: 0.03, given: { '10g-fallback': 0.96, 'usb2-fallback': 0.01, '5g-port-or-cable': 0.01 } }
  },
  'bulk-only': {
    patterns: [
      /UAS is ignored for this device/i,
      /usb-storage .*USB Mass Storage device detected/i,
      /USBSTOR\.SYS/i,
      /IOUSBMassStorageInterfaceNub.*Bulk-Only/i
    ],
    says: () => 'The log shows the bulk-only transport.',
    likelihoods: { usual: 0.05, given: { 'bulk-only': 0.97 } }
  },
  'medium-error': {
    patterns: [
      /medium error/i,
      /Unrecovered read error/i,
      /has a bad block/i,
      /UNC at LBA|Uncorrectable/i,
      /disk\d+(?:s\d+)?: I\/O error/i
    ],
    says: (n) =>
      times(n, 'The log tells of a place that cannot be read', 'The log tells of places that cannot be read') + '.',
    likelihoods: { usual: 0.006, given: { 'weak-surface': 0.8, 'drive-faulty': 0.8, 'unstable-link': 0.03 } }
  },
  retried: {
    patterns: [
      /The IO operation at logical block address .* was retried/i,
      /timing out command, waited/i,
      /tag#\d+ FAILED/i
    ],
    says: (n) =>
      times(n, 'The log tells that a request was sent again', 'The log tells that requests were sent again') + '.',
    likelihoods: { usual: 0.03, given: { ...LOOSE, 'weak-surface': 0.5, 'smr-rewrite': 0.12 } }
  }
};

/** A longer line than this is no line of such a log; of a longer log than this the end is read. */
const LONGEST_LINE = 2000;
export const LONGEST_LOG = 8_000_000;

/**
 * Reads lines of a system log.
 * @param text of any length; of more than eight million characters the end
 * @returns how often each sign is there, without those that are not; `lines` that were looked at, and those of them that `said` something
 * @example readSystemLog('usb 2-1: reset SuperSpeed USB device number 4').signs.get('reset') // 1
 */
export function readSystemLog(text: string): { signs: Map<LogSign, number>; lines: number; said: string[] } {
  const signs = new Map<LogSign, number>();
  let lines = 0;
  const said: string[] = [];
  let speed: LogSign | undefined;
  for (const line of text.slice(-LONGEST_LOG).split('\n')) {
    lines += 1;
    if (line.length > LONGEST_LINE || line.length < 8) continue;
    let any = false;
    for (const sign of LOG_SIGNS) {
      if (!SIGNS[sign].patterns.some((pattern) => pattern.test(line))) continue;
      any = true;
      if (sign.startsWith('speed-')) speed = sign;
      else signs.set(sign, (signs.get(sign) ?? 0) + 1);
    }
    if (any) said.push(line);
  }
  // It may have been plugged in more than once: how it came up last is how it runs.
  if (speed) signs.set(speed, 1);
  return { signs, lines, said };
}

/**
 * Makes evidence of a system log.
 * @returns nothing where it says nothing that is known
 */
export const logEvidence = (text: string): Evidence[] =>
  [...readSystemLog(text).signs].map(([sign, n]) =>
    fromTable(`log-${sign}`, SIGNS[sign].says(n), SIGNS[sign].likelihoods)
  );
