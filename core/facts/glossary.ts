/** Terms in plain words, for those who meet them the first time. `also` are other names for the same thing, marketing ones included. */
export type Term = { term: string; also?: readonly string[]; means: string };

export const GLOSSARY: readonly Term[] = [
  {
    term: 'Active cable',
    also: ['active'],
    means: 'A cable with chips in its plugs. It carries 40 Gb/s beyond 0.8 m; some active ones carry no plain USB.'
  },
  {
    term: 'Allocation unit',
    also: ['cluster'],
    means: 'The smallest piece of a volume that a file can take. Large ones waste space on small files.'
  },
  { term: 'Band', means: 'A forecast as low, typical and high. What is not measured is never one bare number.' },
  {
    term: 'Bottleneck',
    means: 'The stage of the chain from port to drive with the lowest ceiling. It sets the speed of the whole.'
  },
  {
    term: 'Bow',
    means:
      'How far pads press a board down. Without support from below half a millimetre is the limit; beyond, contacts lift.'
  },
  {
    term: 'Bridge',
    also: ['bridge chip', 'controller of the enclosure'],
    means:
      'The chip in an enclosure that stands between the cable and the drive. It decides the link modes, TRIM and UAS.'
  },
  {
    term: 'Bulk-only transport',
    also: ['BOT'],
    means: 'The older way of USB storage, one command at a time: 15 to 25 % slower than UAS and worse at small files.'
  },
  {
    term: 'Cells (TLC, QLC)',
    also: ['TLC', 'QLC', 'SLC', 'MLC'],
    means:
      'How many bits a flash cell holds: three in TLC, four in QLC. More bits cost less and write slower once the cache is full.'
  },
  {
    term: 'Cliff',
    means:
      'The moment in a long write at which the fast cache of a drive is full. After it the drive is slower, and nothing is wrong.'
  },
  {
    term: 'CMR and SMR',
    also: ['conventional', 'shingled'],
    means: 'How a hard disk records. Shingled (SMR) tracks overlap: first writes are fine, rewriting is very slow.'
  },
  {
    term: 'Compression',
    means:
      'The share by which a pad is thicker than its gap, once the case is closed. 10 to 30 % makes good contact and leaves the board flat.'
  },
  {
    term: 'Conductivity',
    also: ['W/mK'],
    means:
      'How well a pad passes heat, for its thickness. Printed values are often twice what is reached; thinness counts for more.'
  },
  {
    term: 'Container',
    also: ['encrypted container'],
    means:
      'A file or volume that is opened with a password by a program, and looks like a drive then. It spans systems that share no encryption of their own.'
  },
  { term: 'Coupon', means: 'A fixed amount off a price, taken off after a discount in percent.' },
  {
    term: 'Device and volume',
    also: ['whole disk'],
    means:
      'The device is the drive itself; volumes are the parts of it that show up with a name. Formatting begins at the device, or an old partition stays on it.'
  },
  {
    term: 'Drop-out',
    also: ['drop-outs'],
    means:
      'A time in a run in which nothing moves, mostly seconds: a plug, a cable or the power lets go, or the link is set up anew.'
  },
  {
    term: 'Dry fit',
    means:
      'The case is closed once on the pads with their liners still on, and opened again: the imprints show whether each one touches.'
  },
  {
    term: 'Eject',
    also: ['unmount', 'remove safely'],
    means:
      'Telling the system that a drive will be unplugged, so that everything is written and nothing uses it. Some systems call it unmount or remove safely.'
  },
  {
    term: 'Endurance',
    also: ['TBW', 'terabytes written'],
    means: 'How much the computer may write before the warranty ends, in terabytes. 1 PBW is 1000 TBW.'
  },
  {
    term: 'exFAT',
    means: 'The filesystem that macOS, Windows, phones and cameras all write. No journal: always eject.'
  },
  {
    term: 'Full-featured cable',
    means:
      'A USB-C cable with both pairs of lanes. Most passive ones sold for 10 Gb/s are: they carry 20 Gb/s where port and bridge do.'
  },
  {
    term: 'Generation (PCIe)',
    also: ['Gen 3', 'Gen 4', 'Gen 5'],
    means: 'Each generation doubles the rate of a lane: about 985, 1970 and 3940 MB/s for 3, 4 and 5.'
  },
  {
    term: 'Height code',
    means:
      'The end of an M.2 module’s name, such as S3 or D5: how high its chips may stand over each side of the board.'
  },
  {
    term: 'Host memory buffer',
    also: ['HMB'],
    means:
      'A drive without memory of its own borrows some of the computer’s through PCIe. Behind a USB bridge it cannot, and small files suffer.'
  },
  {
    term: 'Hub without a supply',
    also: ['bus-powered hub'],
    means: 'It lives on the port before it: 4.5 to 7.5 W for everything that hangs on it.'
  },
  {
    term: 'Imprint check',
    means:
      'Closing the case on pads with their liners on, opening it again, and looking whether both faces of each pad were touched.'
  },
  {
    term: 'Journal',
    also: ['journaled'],
    means:
      'Notes that a filesystem makes before it changes something. After a pulled cable they are read, and the volume is whole.'
  },
  {
    term: 'Key (M.2)',
    also: ['M key', 'B+M key'],
    means:
      'The notch of an M.2 module. M is for NVMe, B+M for SATA or two lanes. Fitting in does not mean being understood.'
  },
  {
    term: 'Internal disk',
    means: 'The disk inside the computer. It is the other end of most copies, and often the slower one.'
  },
  {
    term: 'Lanes',
    also: ['x2', 'x4'],
    means: 'Parallel PCIe paths to the drive. Two instead of four halve the ceiling.'
  },
  {
    term: 'Latency',
    means:
      'How long one small request takes. It decides how fast many small files go, whatever the big number on the box.'
  },
  {
    term: 'Like for like',
    means: 'Two results that differ in one thing only. If more differs, nobody can say what made the difference.'
  },
  {
    term: 'Liner',
    means: 'The film on each face of a pad. It comes off at the very end; left on, it keeps the heat in.'
  },
  {
    term: 'MB/s and Gb/s',
    also: ['megabytes', 'gigabits'],
    means:
      'Links are rated in bits, files move in bytes. 8 bits are a byte, and coding takes a share: 10 Gb/s carry about 1000 MB/s.'
  },
  {
    term: 'NVMe',
    means: 'The protocol of PCIe drives. An M.2 drive may speak NVMe or SATA; the enclosure must speak the same.'
  },
  {
    term: 'Payload ceiling',
    means:
      'The most that can pass through a link mode once coding and packets have taken their share. Nothing real is faster.'
  },
  {
    term: 'Post',
    also: ['standoff'],
    means:
      'The small pillar on which the end of an M.2 drive lies and is screwed; it is set at the length of the drive.'
  },
  {
    term: 'Post-cache rate',
    also: ['after the cache'],
    means:
      'The rate to which a flash drive falls when its fast cache is full. On large copies this is the one that counts.'
  },
  {
    term: 'Price delivered',
    also: ['landed'],
    means: '(List less discount, less coupon, plus shipping) plus tax: what it really costs at the door.'
  },
  {
    term: 'Queue depth',
    means: 'How many requests are under way at once. Data sheets use deep queues; people at a desk work at depth 1.'
  },
  {
    term: 'Recovery key',
    means:
      'The long code that opens an encrypted drive when the password is lost. It belongs in another place than the drive; Ash Crate keeps only where.'
  },
  {
    term: 'Retainer',
    means:
      'What holds the free end of an M.2 drive without a screw: a catch that turns over it, or a piece of rubber. The board lies in its notch, not under it.'
  },
  {
    term: 'Run sheet',
    means: 'The steps of putting a build together, in stages that each end in a check; made from its own parts.'
  },
  {
    term: 'Saw-tooth',
    means: 'What quick throttling looks like: up to full rate, too hot, down to half, cool again, and so on.'
  },
  {
    term: 'Secure erase',
    also: ['sanitize'],
    means: 'A command by which a drive erases itself, spare cells too. Many bridges do not pass it on.'
  },
  {
    term: 'Serial number, as the case shows it',
    means:
      'Some cases report a number of their own instead of the drive’s. Noted on the item, it tells the drive in a list.'
  },
  {
    term: 'Shore 00',
    means:
      'How hard a soft material is. Pads of 20 to 40 follow uneven chips; harder ones press on the board instead of giving way.'
  },
  {
    term: 'Simulated rig',
    also: ['rig', 'stand-in rig'],
    means:
      'A stand-in without any device: it plays the forecast’s own models over time. Everything it gives is marked as simulated.'
  },
  {
    term: 'Slack',
    means: 'Room that the last allocation unit of each file leaves unused. It counts where files are many and small.'
  },
  {
    term: 'SLC cache',
    also: ['write cache', 'cache cliff'],
    means:
      'A part of the flash written in a fast way. When it is full the rate falls in one step: the cliff. That is no fault.'
  },
  {
    term: 'Soak',
    means: 'A long write, a quarter of an hour or more, that shows where the cache ends and how warm a drive gets.'
  },
  {
    term: 'Surface sweep',
    means:
      'Reading a whole hard disk from the outer edge inwards, to find places that are slower than their neighbours.'
  },
  {
    term: 'Suspect across builds',
    means:
      'A part that all slow builds share and no sound one has. A cable goes round in a house: it is found only by looking at several builds.'
  },
  {
    term: 'TB and TiB',
    also: ['terabyte', 'tebibyte'],
    means: 'Drives are sold in TB (10^12 bytes); some systems show TiB (2^40). 1 TB is 0.909 TiB; nothing is missing.'
  },
  {
    term: 'Thermal pad',
    means:
      'A soft sheet that carries heat from a chip to the case. It must be a little thicker than the gap: 10 to 30 % compressed.'
  },
  {
    term: 'Thermal resistance',
    means:
      'How many kelvin a path warms for each watt that goes through it. Pads, boards and the air around a case each have one.'
  },
  {
    term: 'Thermal shutdown',
    also: ['switches itself off'],
    means: 'A drive that still gets hotter after throttling leaves the system at about 105 °C, in the middle of a copy.'
  },
  {
    term: 'Throttling',
    also: ['throttles', 'throttle'],
    means: 'A drive slowing itself down at its warning temperature, to cool. It recovers when it has.'
  },
  {
    term: 'Thunderbolt 5',
    also: ['USB4 version 2', 'USB4 80Gbps'],
    means: '80 Gb/s: about 6000 MB/s behind a PCIe 4.0 x4 tunnel.'
  },
  {
    term: 'Time constant',
    means:
      'The time in which a case comes 63 % of its way to where it settles, often ten minutes and more. A one-minute test says nothing about heat.'
  },
  {
    term: 'TRIM',
    means: 'How a system tells a drive which blocks are free. Without it the write cache shrinks over time.'
  },
  {
    term: 'Tunnel',
    also: ['PCIe tunnelling'],
    means: 'USB4 and Thunderbolt carry PCIe itself to the drive, with less latency than USB storage.'
  },
  {
    term: 'UAS',
    also: ['UASP', 'USB attached SCSI'],
    means: 'The newer way of USB storage with many commands at once. Computer, port and bridge must all speak it.'
  },
  {
    term: 'USB 10 Gb/s',
    also: ['USB 3.1 Gen 2', 'USB 3.2 Gen 2x1', 'SuperSpeed USB 10Gbps'],
    means: 'About 1000 MB/s, and nearly everywhere.'
  },
  {
    term: 'USB 20 Gb/s',
    also: ['USB 3.2 Gen 2x2'],
    means: 'Two lanes of 10 Gb/s. Few ports offer it; USB4 and Thunderbolt ports mostly do not, and then it runs at 10.'
  },
  {
    term: 'USB 5 Gb/s',
    also: ['USB 3.0', 'USB 3.1 Gen 1', 'USB 3.2 Gen 1x1', 'SuperSpeed'],
    means: 'Four names for one speed: about 435 MB/s.'
  },
  {
    term: 'USB4 40 Gb/s',
    also: ['USB4 Gen 3x2', 'USB4 40Gbps'],
    means: 'Tunnels PCIe: 2500 to 3900 MB/s with an NVMe drive. “USB4” alone may also mean 20 Gb/s.'
  },
  {
    term: 'Volume name',
    also: ['label of the volume'],
    means: 'What a volume is called in a list. FAT32 and exFAT hold 11 characters everywhere.'
  },
  {
    term: 'Weak place',
    also: ['weak places'],
    means:
      'A place on a disk that is read much more slowly than its neighbours, since it takes many tries. The same places twice: copy everything and give it back.'
  },
  {
    term: 'Write amplification',
    means: 'Flash writes more inside than the computer sends. The endurance rating has it in already.'
  },
  {
    term: 'Write ceiling',
    means:
      'A computer that writes more slowly to a port than it reads from it, whatever drive is there. Known of some ports; it is entered once at the port.'
  },
  {
    term: 'Write-cache policy',
    also: ['quick removal', 'better performance'],
    means: 'Windows writes straight through (safe to unplug, slow) or caches (fast, must be ejected).'
  },
  {
    term: 'Y lead',
    means: 'A cable with a second plug that takes power from one more port.'
  }
];

/** Names with capitals or digits inside (TRIM, x4, NVMe) are themselves only as they stand; others whatever their case. */
const exact = (name: string): boolean => /[A-Z0-9]/.test(name.slice(1));
const escaped = (name: string): string => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
/** Names that are everyday words too: what stands in prose is more often that. */
const EVERYDAY = new Set([
  'mb/s',
  'gb/s',
  'tb',
  'band',
  'active',
  'conventional',
  'cluster',
  'better performance',
  'quick removal',
  'coupon'
]);

const NAMES: readonly { name: string; term: Term }[] = GLOSSARY.flatMap((term) => {
  // "Key (M.2)" stands in prose as "key"; "MB/s and Gb/s" as one or the other
  const spoken = term.term.replace(/ \(.*\)$/, '').split(' and ');
  return [...spoken, ...(term.also ?? [])].map((name) => ({ name, term }));
})
  .filter(({ name }) => !EVERYDAY.has(name.toLowerCase()))
  .sort((a, b) => b.name.length - a.name.length);
const ANY_NAME = new RegExp(
  `(?<![\\p{L}\\d])(?:${NAMES.map(({ name }) => escaped(name)).join('|')})s?(?![\\p{L}\\d])`,
  'giu'
);

/**
 * Cuts a text where it uses terms of the glossary, so that they can be explained in place: each at its first use. The
 * longest name wins ("USB 10 Gb/s" is not "Gb/s"). The pieces joined are the text.
 * @example splitTerms('about UAS').map(({ text }) => text).join('') // 'about UAS'
 */
export function splitTerms(text: string): { text: string; term?: Term }[] {
  const pieces: { text: string; term?: Term }[] = [];
  const seen = new Set<Term>();
  let from = 0;
  for (const match of text.matchAll(ANY_NAME)) {
    const used = match[0];
    const found = NAMES.find(({ name }) => {
      const forms = [name, `${name}s`];
      return exact(name) ? forms.includes(used) : forms.some((f) => f.toLowerCase() === used.toLowerCase());
    });
    if (!found || seen.has(found.term)) continue;
    seen.add(found.term);
    if (match.index > from) pieces.push({ text: text.slice(from, match.index) });
    pieces.push({ text: used, term: found.term });
    from = match.index + used.length;
  }
  if (from < text.length) pieces.push({ text: text.slice(from) });
  return pieces;
}
