import type { FindingCode } from './finding.ts';

/** Why each finding matters: the rule behind it, in one sentence, with the standard where there is one. Complete by type. */
export const REASONS: Record<FindingCode, string> = {
  'no-common-link-mode': 'A link runs only in a mode that port, cable and bridge all support.',
  'plug-mismatch': 'A plug decides which wires there are; what does not meet does not connect.',
  'port-limits-link':
    'The chain runs in the best mode that port, cable and bridge all support; one that lacks it drops all of them.',
  'cable-limits-link':
    'The chain runs in the best mode that port, cable and bridge all support; a cable without it drops the whole chain.',
  'adapter-limits-link': 'An adapter or hub passes only its own modes, and a USB-A plug nothing above 10 Gb/s.',
  'cable-rate-likely':
    'A passive USB-C cable that is wired in full has two lane pairs, of which 10 Gb/s uses one; nobody certified the second.',
  'write-cache-policy':
    'Windows writes through to a drive that may be pulled at any time, unless it is told to cache; that is its default.',
  'bridge-limits-link': 'Between link and drive sits the bridge, with its own lanes and its own rate.',
  'drive-limits-link': 'The slowest link sets the pace; here that is the drive, which is what one wants.',
  'drive-faster-than-link': 'What the link cannot carry is never seen, whatever the drive is rated for.',
  'bulk-only-transport':
    'Bulk-only transport has one command under way at a time; UAS queues them (USB Attached SCSI).',
  'host-write-ceiling': 'Some computers write at about half of their read rate through a tunnel.',
  'cable-length-doubtful':
    'Loss grows with length and frequency; a passive cable beyond its safe length drops to a slower mode or fails at times.',
  'pcie-generation-above-tunnel':
    'Generations are negotiated down, but not every bridge copes with a drive above its own.',
  'form-factor-mismatch': 'Connector and screw holes belong to a form factor.',
  'm2-length-unsupported':
    'A module is held at its end; without a standoff there it stands up or cannot be closed over.',
  'm2-key-mismatch':
    'The key is a bridge in the socket: the module’s notch has to be at the same place (PCI Express M.2).',
  'protocol-unsupported':
    'Form and protocol are two things: the same socket carries PCIe or SATA, and a bridge speaks what it speaks.',
  'bay-too-thin': 'Lid and bay leave a fixed height.',
  'capacity-above-limit':
    'Old bridges count sectors in 32 bits: 2.2 TB at 512 bytes. Newer limits are mostly what was tested.',
  'double-sided-no-clearance': 'Chips on the underside need room, and a pad, of their own.',
  'heatsink-blocks-lid': 'The case is meant to be the heatsink; there is no room for two.',
  'port-power-short': 'A drive that is starved resets in the middle of a write.',
  'shared-hub-power': 'A hub without a supply of its own has 4.5 to 7.5 W for all of its ports together.',
  'external-supply-needed': '3.5-inch disks turn on 12 V, which no USB or eSATA port gives.',
  'esata-needs-power': 'eSATA carries data alone; eSATAp carries power too.',
  'sectors-4096':
    'Partition tables count in sectors: one made behind such a bridge is not found behind another one, and the other way round.',
  'surface-implausible': 'The surface decides how warm a case gets; none is smaller than the drive in it.',
  'trim-not-passed': 'A drive that is not told what was freed keeps it, and has less room to work with.',
  'drive-nearly-full': 'A dynamic cache lives in free space, and garbage collection needs spare blocks.',
  'smr-rewrite-risk': 'Shingled tracks overlap: to change one, the ones above it are written again.',
  'known-bad-pair': 'Experience with this very pair outweighs what the data sheets say.',
  'known-good-pair': 'Experience with this very pair outweighs what the data sheets say.',
  'unit-suspect':
    'Bits are eight to the byte, and mega is a thousandth of giga; figures above what an interface can carry are nearly always typed in the wrong unit.',
  'pad-none-fits': 'Good contact wants a pad that is compressed by 10 to 30 %.',
  'pad-no-contact': 'A pad that does not touch leaves air in between.',
  'pad-over-compressed': 'An unsupported board bows before a thick pad yields.',
  'chip-touches-lid':
    'Heights count from the face of the board; a lid that rests on a chip presses on its solder joints.',
  'board-bows': 'A board held at both ends gives way before the pad does: bow = (t − gap) kp / (kp + kb), an estimate.',
  'pad-pressure-high': 'Where the board cannot give way, the pad presses on the chip with its full stress. Estimate.',
  'throttles-in-job':
    'A drive that reports its warning temperature halves its rate, and quarters it at the critical one, until it is 8 K cooler.',
  'case-too-hot-to-hold': 'Contact limits of ISO 13732-1, by material and length of contact.',
  'disk-too-warm': 'Hard disks are rated to 60 °C; there is no throttling to protect them.',
  'drive-shuts-down': 'At 100 to 110 °C a drive switches itself off before it is damaged.',
  'bridge-too-hot': 'Bridge chips are made for about 105 °C; over it they drop the drive. Estimate.',
  'room-outside-drive-range': 'The range stands in the data sheet of the drive; outside it the maker promises nothing.',
  'filesystem-no-common': 'Every system that writes has to know the filesystem.',
  'filesystem-read-only-on-host': 'Reading a filesystem is easier than writing it, and some systems stop there.',
  'os-too-old': 'Support for a filesystem came with a version.',
  'file-above-limit': 'FAT32 keeps the size of a file in 32 bits: 4 GiB less one byte.',
  'filesystem-excludes-host':
    'A start volume or a system’s own backup wants one filesystem; what another system can do with it comes second.',
  'mbr-above-2tib': 'MBR counts sectors in 32 bits: 2^32 of 512 bytes.',
  'cache-cliff-in-job':
    'Flash writes into a fast region of one bit a cell first; when it is full, the native rate is what is left.',
  'job-minimum-missed': 'A job that states a rate fails below it, whichever part is the slow one.',
  'job-does-not-fit': 'Room is what the filesystem leaves of the capacity, less what is on it.',
  'endurance-short': 'Cells wear with every write; warranty ends at the earlier of the years and the terabytes.'
};
