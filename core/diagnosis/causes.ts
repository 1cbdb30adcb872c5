import { capacity, quantity } from '../quantities/format.ts';
import { ejectWords } from '../assembly/leads.ts';
import type { Situation } from './situation.ts';

/** What can be the matter. The first ones are those of the contract. */
export const CAUSES = [
  'usb2-fallback',
  '5g-port-or-cable',
  '10g-fallback',
  'bulk-only',
  'write-cache-off',
  'slc-cliff',
  'host-disk-cliff',
  'thermal-throttle',
  'pad-no-contact',
  'two-lane-limit',
  'host-write-ceiling',
  'drive-nearly-full',
  'smr-rewrite',
  'weak-surface',
  'background-load',
  'encryption-cost',
  'unstable-link',
  'not-detected-link',
  'not-detected-drive',
  'wrong-capacity',
  'not-seated',
  'no-power',
  'not-initialised',
  'read-only-format',
  'supply-pin-3',
  'lid-or-pad',
  'sectors-4096',
  'healthy',
  'wrong-part',
  'upside-down',
  'in-the-way',
  'lid-turned',
  'heatsink-on',
  'not-allowed',
  'bridge-faulty',
  'drive-faulty',
  'bridge-firmware',
  'power-saving',
  'old-partition',
  'false-capacity',
  'encrypted',
  'not-ejected',
  'write-protected',
  'worn-out'
] as const;
export type CauseCode = (typeof CAUSES)[number];

/** What is said of a cause once it is found. */
export type CauseWords = {
  /** What is the matter, in a sentence. */
  says: string | ((at: Situation) => string);
  remedy: string | ((at: Situation) => string);
  /** Codes of steps of the run sheet to go back to; the first one that this sheet has. */
  backTo?: readonly string[];
  /** Whether a build can have it at all; without, every build. */
  applies?: (at: Situation) => boolean;
  /** The part that it lies with, where a note on one of its items is worth it; without, the drive. */
  of?: 'cable' | 'enclosure';
  /** Whether it lies with drive and bridge together, so that it is worth a known combination. */
  ofPair?: true;
};

const FIRMWARE =
  'Copy everything that is on the drive first: an update that is cut off can leave it dead. Take the file for exactly this board and revision, from the maker of the enclosure or of the drive, keep power and cable in place while it runs, and do nothing else meanwhile.';
const ANOTHER_CABLE =
  'Take another cable, short and marked for the speed, straight into a port of the computer. Mark or throw away the one that failed.';
const PLUGS = ['plug-in', 'plug-data-first', 'connect-supply'] as const;
const SEATING = ['insert-slanted', 'push-onto-connector', 'lay-in-tray'] as const;
const WITH_PADS = ['check-imprint', 'dry-fit'] as const;

const isM2 = ({ hands }: Situation) => hands.bay === 'm2';
const isFlash = ({ hands }: Situation) => hands.input.drive.media !== 'hdd';
const isDisk = (at: Situation) => !isFlash(at);
const hasPads = ({ hands }: Situation) => hands.pads !== 'none';
const onWindows = ({ hands }: Situation) => hands.input.host.os.family === 'windows';

/** What every cause says, asks for and belongs to. */
export const CAUSE_WORDS: Record<CauseCode, CauseWords> = {
  'usb2-fallback': {
    of: 'cable',
    says: 'The connection fell back to USB 2.0, about 40 MB/s: only the old pair of wires carries data.',
    remedy: ANOTHER_CABLE,
    backTo: PLUGS
  },
  '5g-port-or-cable': {
    of: 'cable',
    says: 'Port, hub or cable carry 5 Gb/s only.',
    remedy: 'Take a port marked 10 Gb/s or more, and a cable marked for it, without a hub or an adapter in between.',
    backTo: PLUGS,
    applies: ({ mode }) => mode !== null && mode !== 'usb2' && mode !== 'usb-5g' && !mode.startsWith('esata')
  },
  '10g-fallback': {
    of: 'cable',
    says: 'A fast enclosure fell back to USB 10 Gb/s.',
    remedy:
      'Take a certified 40 Gb/s cable of at most 0.8 m, and a port that carries USB4 or Thunderbolt, without an adapter.',
    backTo: PLUGS,
    applies: ({ mode }) => mode !== null && /^(?:usb4|tbt|usb-20g)/.test(mode)
  },
  'bulk-only': {
    of: 'enclosure',
    says: 'The drive is driven by the old bulk-only transport and not by UAS.',
    remedy: `Try another port and the system’s own driver. If it stays so, the bridge needs newer firmware. ${FIRMWARE}`,
    applies: ({ mode }) => mode !== null && /^usb-(?:5|10|20)g$/.test(mode),
    ofPair: true
  },
  'write-cache-off': {
    says: 'Windows writes without its cache for this drive (“quick removal”).',
    remedy:
      'Switch the drive to “better performance” in its properties in the Device Manager, and from then on always eject it before it is unplugged.',
    applies: onWindows
  },
  'slc-cliff': {
    says: 'The fast part of the flash is full: from there on the drive writes at the rate of its plain cells.',
    remedy:
      'This is no fault. Let it rest for ten minutes with the power on, keep a fifth of it free, and plan large copies in parts. The forecast names the size of the cache.',
    applies: isFlash
  },
  'host-disk-cliff': {
    says: 'The other side is slow: the disk that is copied from or to cannot keep up.',
    remedy: 'Copy from and to another disk to prove it; then measure the computer’s own disk.'
  },
  'thermal-throttle': {
    says: 'The drive gets too hot and slows itself down.',
    remedy:
      'Lay the case free and on edge, or blow a fan on it, and try again. If that helps, look at the pads: they carry the heat to the case.',
    backTo: WITH_PADS,
    applies: isFlash
  },
  'pad-no-contact': {
    says: 'A pad does not touch: the chip gets hot at once while the case stays cool.',
    remedy: 'Open it with everything unplugged, look at the imprints, and take the next thicker pad.',
    backTo: WITH_PADS,
    applies: (at) => isFlash(at) && isM2(at)
  },
  'two-lane-limit': {
    says: 'Bridge and drive run with two lanes in the place of four.',
    remedy: 'Seat the drive again; look in the data sheet of the enclosure how many lanes its slot has.',
    backTo: SEATING,
    applies: ({ hands, mode }) =>
      hands.input.drive.media === 'nvme' && mode !== null && /^(?:usb4|tbt|usb-20g)/.test(mode)
  },
  'host-write-ceiling': {
    says: 'This computer writes more slowly to its ports than it reads.',
    remedy:
      'Measure it on a second computer once. If it is fast there, enter the ceiling at the port, so that the forecast knows it.'
  },
  'drive-nearly-full': {
    says: 'The drive is nearly full: its cache has shrunk, and it has little room to write into.',
    remedy: 'Free a fifth of it, let it rest for half an hour with the power on, and measure again.',
    applies: isFlash
  },
  'smr-rewrite': {
    says: 'The disk writes in overlapping tracks and is putting them in order.',
    remedy:
      'Leave it switched on and idle for an hour or more. Use it for what is written once, not for work or mirrors.',
    applies: (at) => isDisk(at) && at.hands.input.drive.disk?.recording !== 'cmr'
  },
  'weak-surface': {
    says: 'Some places of the disk are read only after many tries.',
    remedy:
      'Copy what is on it at once, then read its health and its whole surface. Weak places in the same spot twice: give it back.',
    applies: isDisk
  },
  'background-load': {
    says: 'Something else uses the drive: an index, a virus scanner, a backup, a synchronising folder.',
    remedy: 'Wait until it is done, or pause it, and measure again.'
  },
  'encryption-cost': {
    says: 'Encryption by the processor takes its share.',
    remedy:
      'Measure once on a volume without encryption. Up to 20 % in one go and half for small blocks is usual for software.'
  },
  'unstable-link': {
    of: 'cable',
    says: 'The connection is not firm: plug, cable or port lose contact, or do not hold the speed.',
    remedy: `${ANOTHER_CABLE} Clean and look at the plugs. Where it stays, a lower speed that is firm beats a high one that is not.`,
    backTo: PLUGS
  },
  'not-detected-link': {
    of: 'cable',
    says: 'Cable or port is at fault: they give power, or nothing, and no data.',
    remedy: ANOTHER_CABLE,
    backTo: PLUGS
  },
  'not-detected-drive': {
    says: 'Bridge and drive do not understand each other: each is sound with another partner.',
    remedy: `Try this drive in another enclosure, or another drive here, and note the pair as a known combination. Newer firmware of bridge or drive may mend it. ${FIRMWARE}`,
    ofPair: true
  },
  'wrong-capacity': {
    of: 'enclosure',
    says: ({ hands }) =>
      `The bridge of ${hands.input.enclosure.name} cannot count so far: it shows the rest that is beyond its limit.`,
    remedy: `Do not write to it: what lies beyond the limit would overwrite the beginning. Use the drive in another enclosure, or update the bridge. ${FIRMWARE}`,
    applies: ({ hands, findings }) => hands.input.drive.capacityTB > 2 || findings.has('capacity-above-limit'),
    ofPair: true
  },
  'not-seated': {
    says: 'The drive is not all the way in its connector, or does not lie flat.',
    remedy: ({ hands }) =>
      hands.bay === 'm2'
        ? 'Unplug everything. Take the drive out and put it in again aslant, until no gold shows; press it flat, and fix its end.'
        : 'Unplug everything. Pull the drive off its connector and slide it on again, level, until it stops.',
    backTo: SEATING
  },
  'no-power': {
    of: 'enclosure',
    says: 'It does not get the power it needs.',
    remedy: ({ hands }) =>
      hands.power === 'port'
        ? 'Plug it straight into the computer, into a port that gives more (USB-C rather than USB-A), or use a hub with a supply of its own.'
        : 'Look at supply, switch and socket. A supply is never opened: replace it by one of the same voltage and at least the same current.',
    backTo: ['connect-supply', 'plug-power', 'plug-in']
  },
  'not-initialised': {
    says: 'The drive is well and empty: it has no partition yet, so no volume shows.',
    remedy: ({ report }) =>
      `Nothing is wrong. Format it for its systems as the plan says (${report.filesystem.first.scheme.toUpperCase()}). Before you erase anything, make sure by size and serial number that it is this disk.`,
    backTo: ['look-for-it']
  },
  'read-only-format': {
    says: ({ hands }) => `It has a filesystem that ${hands.input.host.name} cannot write, or cannot read at all.`,
    remedy:
      'Copy what is on it on a computer that can; then format it anew for all its systems, or use it there only. Do not let this system repair or erase it.'
  },
  'supply-pin-3': {
    says: 'The disk is held off by power on the third pin of its plug, which some supplies give.',
    remedy:
      'It is a feature of disks for servers and of some out of ready-made externals. Use an enclosure whose bay leaves that pin without power. Do not cut or tape anything inside a mains-powered case.',
    applies: ({ hands }) => hands.bay === '3.5in' || (hands.input.drive.media === 'hdd' && hands.bay !== 'm2')
  },
  'lid-or-pad': {
    of: 'enclosure',
    says: 'Lid or pads press on the board: contacts lift when the case is closed.',
    remedy: 'Unplug everything, open it, and take thinner pads or one layer less. The imprint shows where it pressed.',
    backTo: ['check-imprint', 'dry-fit', 'close-lid', 'slide-in-tray'],
    applies: isM2
  },
  'sectors-4096': {
    says: 'The drive was written in a case that shows sectors of 4096 bytes; here they are 512, and nothing is where it should be.',
    remedy:
      'Do not initialise it while the data is needed: put it back into its old case and copy everything. After that it can be erased and used here.'
  },
  healthy: {
    says: (at) => `Nothing is wrong: ${binaryWords(at)}`,
    remedy: 'Nothing to do. The capacity ladder of the plan shows where each byte goes.'
  },
  'wrong-part': {
    says: 'Drive and enclosure do not belong together: key, length or kind differ.',
    remedy: 'Do not force it. Take an enclosure that is made for this drive; the Pair step shows which of yours are.',
    backTo: ['match-key', 'match-connector']
  },
  'upside-down': {
    says: 'The drive is the wrong way up.',
    remedy: 'Turn it over, so that notch and key, or both L shapes, lie the same way round.',
    backTo: ['match-key', 'match-connector']
  },
  'in-the-way': {
    says: 'Something lies in the way: a film, a dummy, a post at the wrong place, a wire.',
    remedy: 'Take it out, or set the post at the length of the drive; then try again without force.',
    backTo: ['unpack-inside', 'set-standoff', 'free-retainer']
  },
  'lid-turned': {
    of: 'enclosure',
    says: 'The lid or the tray is the wrong way round.',
    remedy: 'Turn it round: the mark or the pencil line meets again, and pads lie over the chips.',
    backTo: ['close-lid', 'slide-in-tray']
  },
  'heatsink-on': {
    says: 'The drive still has its heatsink, and the case has no room for it.',
    remedy: 'Take it off if it comes without force; else take a case with more room. It may end the warranty.',
    backTo: ['remove-heatsink'],
    applies: (at) => isM2(at) && (at.hands.input.drive.heatsinkMm ?? 0) > 0
  },
  'not-allowed': {
    says: 'The system has not been told to trust this device.',
    remedy:
      'Unlock the screen, unplug it, plug it in again, and allow the accessory when the system asks. Under Thunderbolt it may have to be allowed in the settings.',
    applies: ({ hands, mode }) =>
      ['macos', 'ipados', 'ios'].includes(hands.input.host.os.family) || (mode !== null && /^(?:tbt|usb4)/.test(mode))
  },
  'bridge-faulty': {
    of: 'enclosure',
    says: ({ hands }) => `${hands.input.enclosure.name} itself is faulty: it is dead with any drive and any cable.`,
    remedy: 'Give it back while it can be returned. The drive is fine: try it in another enclosure.'
  },
  'drive-faulty': {
    says: 'The drive itself is faulty: it is dead in another place too.',
    remedy:
      'Stop switching it on if its data is wanted, and ask a data rescue service; else give it back under its warranty.'
  },
  'bridge-firmware': {
    of: 'enclosure',
    says: 'The program in the bridge has a fault that shows under load or at rest.',
    remedy: FIRMWARE,
    ofPair: true
  },
  'power-saving': {
    says: 'The system or the enclosure puts the drive to sleep.',
    remedy: 'Switch off the sleep of disks and of USB ports in the power settings, and try for an hour.'
  },
  'old-partition': {
    says: 'An old, smaller partition is still on the drive; the rest is not given to any.',
    remedy:
      'Copy what is needed, then erase the whole device and not the volume, with GPT. Make sure by size and serial number that it is this disk.'
  },
  'false-capacity': {
    says: 'The drive holds less than it says: a forgery, or a faulty one.',
    remedy: 'Do not trust it with anything. Prove it by filling it and reading everything back, and give it back.'
  },
  encrypted: {
    says: 'It is encrypted: without the key it looks empty or foreign.',
    remedy: 'Open it with what encrypted it, on a system that has that, with the recovery key. Do not initialise it.'
  },
  'not-ejected': {
    says: 'It was unplugged without being ejected; the system holds it back until it is checked.',
    remedy: ({ hands }) =>
      `Let the system’s own check repair it where it was formatted, and from then on: ${ejectWords(hands.input.host.os.family)}`,
    backTo: ['eject']
  },
  'write-protected': {
    says: 'A lock or a permission forbids writing: of the files, of the volume, or a switch on the case.',
    remedy: 'Look at the switch of the case, then at owner and rights of the volume in the system’s own file manager.'
  },
  'worn-out': {
    says: 'The drive has come to the end of its life and has gone read-only to save what is on it.',
    remedy: 'Copy everything now, without switching it off in between, and replace it.'
  }
};

/** Gives the size that a system shows which counts in steps of 1024, in words. */
export function shownInBinary(at: Situation): string {
  const { capacityTB } = at.hands.input.drive;
  const tib = (capacityTB * 1e12) / 2 ** 40;
  return tib < 1 ? quantity((capacityTB * 1e12) / 2 ** 30, 'GB') : quantity(tib, 'TB');
}

/** A size in both counts, for who takes one for the other. */
const binaryWords = (at: Situation): string =>
  `makers count ${soldAs(at)} in steps of 1000; a system that counts in steps of 1024 shows about ${shownInBinary(at)} for the same bytes.`;

/** Says how large the drive is, as it was sold. */
export const soldAs = ({ hands }: Situation): string => capacity(hands.input.drive.capacityTB);
/** Tells builds with pads, and disks, apart for whoever asks. */
export const buildHas = { pads: hasPads, flash: isFlash, disk: isDisk, m2: isM2, windows: onWindows };
