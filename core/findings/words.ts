import { type FormFactor, FORM_FACTOR_LABELS } from '../parts/drive.ts';
import { PLUG_LABELS } from '../parts/link-mode.ts';
import { FILESYSTEMS, OS_LABEL, type OsFamily } from '../facts/filesystems.ts';
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import { capacity, duration, figure, quantity, rate } from '../quantities/format.ts';
import type { Finding, FindingCode, FindingFacts } from './finding.ts';
import { REASONS } from './reasons.ts';

export type Sentence = { message: string; reason: string; remedy?: string };
type Words = Omit<Sentence, 'reason'>;

const mode = (id: LinkMode) => LINK_MODES[id].label;
const speed = (id: LinkMode) => (id === 'usb2' ? '480 Mb/s' : quantity(LINK_MODES[id].lineGbps, 'Gb/s'));
const mbps = (value: number) => `${rate(value)}\u202fMB/s`;
const mm = (value: number) => quantity(value, 'mm');
const list = (items: readonly string[], last = 'and') =>
  items.length < 2 ? (items[0] ?? 'nothing') : `${items.slice(0, -1).join(', ')} ${last} ${items[items.length - 1]}`;
const systems = (families: readonly OsFamily[]) => list([...new Set(families)].map((f) => OS_LABEL[f]));
const plugs = PLUG_LABELS;
const form = (id: FormFactor) => `${id === 'm2' ? 'an' : 'a'} ${FORM_FACTOR_LABELS[id]}`;
const withoutStop = (text: string) => text.trim().replace(/\.$/, '');
const buy = (value: number | undefined) =>
  value === undefined
    ? 'No single stock thickness closes this gap well; stack two, or pick another enclosure.'
    : `A ${mm(value)} pad would sit right.`;
const chipWord = (role: string) => (role === 'nand' ? 'NAND' : role === 'dram' ? 'DRAM' : role);
const byHeightCode = (f: { assumed?: boolean }) => (f.assumed ? ' (height assumed)' : '');
type Gained = { now: number; best: number; direction: string; with?: string; enough?: { needs: number; rule: string } };
const gain = (f: Gained, what: string) =>
  `${what}${f.with ? ` together with a ${f.with} that carries it` : ''} would take the ${f.direction} from ${rate(f.now)} to about ${mbps(f.best)}.${
    f.enough ? ` The job needs ${mbps(f.enough.needs)} and has it (${f.enough.rule}).` : ''
  }`;

/** Every sentence a finding can say, complete by type. Bits for links, bytes for throughput, each with its unit. */
const WORDS: { [C in FindingCode]: (f: FindingFacts[C]) => Words } = {
  'no-common-link-mode': (f) => ({
    message: f.thunderboltOnly
      ? 'The enclosure speaks Thunderbolt only and has no USB fallback: on this port and cable it does not appear at all.'
      : f.port.length === 0
        ? 'The port carries nothing that this enclosure could use.'
        : `Port, cable and enclosure have no link mode in common (port: ${list(f.port.map(mode))}; enclosure: ${list(f.bridge.map(mode))}).`,
    remedy: f.thunderboltOnly
      ? 'Use a Thunderbolt port with a 40 Gb/s cable, or an enclosure that falls back to USB.'
      : 'Pick a port and cable that share a mode with the enclosure.'
  }),
  'plug-mismatch': (f) => ({
    message: f.ends
      ? `The cable has ${plugs[f.ends[0]]} and ${plugs[f.ends[1]]}; the port takes ${plugs[f.port]}, the enclosure ${list(
          f.enclosure.map((p) => plugs[p]),
          'or'
        )}.`
      : `The enclosure's fixed cable ends in ${list(
          f.enclosure.map((p) => plugs[p]),
          'or'
        )}; the port takes ${plugs[f.port]}.`,
    remedy: f.ends
      ? `Use a cable from ${plugs[f.port]} to ${list(
          f.enclosure.map((p) => plugs[p]),
          'or'
        )}.`
      : 'Use a port that takes this plug.'
  }),
  'port-limits-link': (f) => ({
    message: `The port is the slowest link: it runs this enclosure in ${mode(f.mode)}, and the enclosure could do ${mode(f.wanted)}.`,
    remedy: gain(f, `A port with ${mode(f.wanted)}`)
  }),
  'cable-limits-link': (f) => ({
    message: `The cable is the slowest link: it carries ${speed(f.mode)} here, the enclosure could do ${mode(f.wanted)}.`,
    remedy: gain(f, `A ${speed(f.wanted)} cable`)
  }),
  'adapter-limits-link': (f) => ({
    message: `The ${f.via === 'adapter' ? 'adapter' : 'hub'} in front of the port is the slowest link: behind it the enclosure runs in ${mode(f.mode)}, and could do ${mode(f.wanted)}.`,
    remedy: gain(f, `A port without the ${f.via === 'adapter' ? 'adapter' : 'hub'}`)
  }),
  'cable-rate-likely': (f) => ({
    message: `${mode(f.mode)} is likely over this cable, but not certain: it is sold for 10\u202fGb/s, and passive USB-C cables of that kind mostly have both lane pairs.`,
    remedy: 'Try it before you buy another: read the negotiated speed, or run a speed check.'
  }),
  'write-cache-policy': (f) => ({
    message: `Windows writes without a cache here (${f.from === 'rule' ? f.rule : f.from === 'build' ? 'quick removal, as this build says' : '“quick removal”, its default'}): ${
      f.of === 'rate'
        ? `about ${rate(f.now)} instead of ${mbps(f.better)}`
        : `the job takes about ${duration(f.now)} instead of ${duration(f.better)}`
    }.`,
    remedy:
      'Switching the drive to “better performance” gives the rest; it must then always be ejected before it is unplugged.'
  }),
  'bridge-limits-link': (f) => ({
    message: `The enclosure's bridge is the slowest link: ${mbps(f.bridge)} in ${mode(f.mode)}, where the drive could do ${mbps(f.drive)}.`,
    remedy: 'An enclosure with a faster bridge would show more of this drive.'
  }),
  'drive-limits-link': (f) => ({
    message: `The drive sets the pace: ${mbps(f.drive)}, where the link would carry ${mbps(f.link)}.`,
    remedy: 'Nothing to mend; a faster drive would use the rest of the link.'
  }),
  'drive-faster-than-link': (f) => ({
    message: `The drive is rated for ${mbps(f.drive)}; this chain can use ${figure(f.percent)}\u202f% of it.`,
    remedy: `${f.keep ? 'Keep it: a faster computer can use more later' : 'A slower drive would do the same here; a faster computer could use more'} (${f.rule}).`
  }),
  'bulk-only-transport': (f) => ({
    message: `The ${f.who} uses bulk-only transport instead of UAS: about ${rate(f.read)} instead of ${mbps(f.withUas)}, and worse at random access.`,
    remedy:
      f.who === 'port'
        ? 'Try another port, or a newer driver.'
        : 'Look for bridge firmware with UAS, or another enclosure.'
  }),
  'host-write-ceiling': (f) => ({
    message: `This port writes at most ${mbps(f.cap)}; the rest of the chain would take ${mbps(f.without)}.`,
    remedy: 'Measure on a second computer before you blame the drive.'
  }),
  'cable-length-doubtful': (f) => ({
    message: `${quantity(f.lengthM, 'm')} is long for a passive cable in ${mode(f.mode)}; up to ${quantity(f.safeM, 'm')} is safe.`,
    remedy: 'Take a shorter cable, or one that is active or certified at this length.'
  }),
  'pcie-generation-above-tunnel': (f) => ({
    message: `A PCIe ${f.drive} drive should fall back to the bridge's PCIe ${f.slot}, but some bridges do not find such drives at all.`,
    remedy: 'Try it while it can still be returned, or take a PCIe 4 drive; nothing is lost in speed here.'
  }),
  'form-factor-mismatch': (f) => ({
    message: `${form(f.drive)} drive does not go into ${form(f.bay)} enclosure.`.replace(/^a/, 'A'),
    remedy: `Take ${form(f.drive)} enclosure.`
  }),
  'm2-length-unsupported': (f) => ({
    message: `The drive is ${mm(f.driveMm)} long; the enclosure takes ${list(f.takesMm.map(String), 'or')}\u202fmm${f.assumed ? ' (assumed)' : ''}.`,
    remedy: f.assumed ? 'Measure before you buy.' : 'Take an enclosure with a standoff for this length.'
  }),
  'm2-key-mismatch': (f) => ({
    message: `The drive's key ${f.drive} does not go into this slot, which takes ${list(f.takes, 'or')}${f.assumed ? ' (assumed)' : ''}.`,
    remedy: 'Look at the notch before you push; never force a module.'
  }),
  'protocol-unsupported': (f) => ({
    message: `The drive speaks ${f.drive === 'nvme' ? 'NVMe' : 'SATA'}, the enclosure only ${list(f.takes.map((p) => (p === 'nvme' ? 'NVMe' : 'SATA')))}: it may slide in and is then not recognised.`,
    remedy: `Take an enclosure that takes ${f.drive === 'nvme' ? 'NVMe' : 'SATA'}.`
  }),
  'bay-too-thin': (f) => ({
    message: `The drive is ${mm(f.driveMm)} thick, the bay takes ${mm(f.bayMm)}${f.assumed ? ' (assumed)' : ''}.`,
    remedy: f.assumed ? 'Measure before you buy.' : 'Take an enclosure with a deeper bay.'
  }),
  'known-bad-pair': (f) => ({
    message: `This drive behind the bridge ${f.bridge} is noted as a bad pair: ${withoutStop(f.reason)}${f.source ? ` (${withoutStop(f.source)})` : ''}.`,
    remedy: 'Take another enclosure, or find out first whether the reason still holds.'
  }),
  'known-good-pair': (f) => ({
    message: `This drive behind the bridge ${f.bridge} is noted to work well: ${withoutStop(f.reason)}${f.source ? ` (${withoutStop(f.source)})` : ''}.`
  }),
  'unit-suspect': (f) => ({
    message: `The drive is rated to ${f.what} ${mbps(f.value)}; its own interface carries ${mbps(f.ceiling)} at most.`,
    remedy:
      f.meant === 'bits'
        ? `Probably megabits were typed for megabytes: ${mbps(f.value / 8)}. Correct the rating or the interface.`
        : f.meant === 'kilo'
          ? `Probably a factor of a thousand slipped in: ${mbps(f.value / 1000)}. Correct the rating or the interface.`
          : 'Look at the data sheet again: the rating or the interface (generation, lanes) is wrong.'
  }),
  'capacity-above-limit': (f) => ({
    message: `The enclosure is stated up to ${capacity(f.limitTB)}, the drive has ${capacity(f.driveTB)}.`,
    remedy:
      'Such limits are often only what was tested. Check that the whole capacity shows before you trust it with data.'
  }),
  'double-sided-no-clearance': (f) => ({
    message: f.assumed
      ? `The drive has chips on both sides (or may have): it needs ${mm(f.neededMm)} under the board, and this enclosure's room there is not known.`
      : f.clearanceMm === undefined
        ? 'The drive has chips on both sides, and the enclosure takes single-sided drives only.'
        : `The drive has chips on both sides and needs ${mm(f.neededMm)} under the board; there are ${mm(f.clearanceMm)}.`,
    remedy: f.assumed
      ? 'Look at the underside of the drive, and measure under the board.'
      : 'Take a single-sided drive or another enclosure.'
  }),
  'heatsink-blocks-lid': (f) => ({
    message:
      f.clearanceMm === undefined
        ? `The drive carries a ${mm(f.heatsinkMm)} heatsink; whether the lid closes over it is not known.`
        : `The drive's ${mm(f.heatsinkMm)} heatsink does not fit under the lid (${mm(f.clearanceMm)}).`,
    remedy: 'Take the heatsink off (mind the warranty), or pick another enclosure.'
  }),
  'port-power-short': (f) => ({
    message: `${f.what === 'steady' ? 'While it writes' : 'For moments'} the build draws about ${quantity(f.need.typical, 'W')} (from ${figure(f.need.low)} to ${figure(f.need.high)}); the port gives ${f.portAssumed ? `at least ${quantity(f.portW, 'W')} (assumed for its kind)` : quantity(f.portW, 'W')}.`,
    remedy: `${
      f.usbA
        ? `Many USB-A ports give more than the ${quantity(4.5, 'W')} that they must; look up what this one gives, or use a Y lead. Otherwise: a`
        : f.portAssumed
          ? 'Look up what the port gives. Otherwise: a'
          : 'A'
    } port that gives more, a hub with a supply, or an enclosure with its own. Watch the first long write.`
  }),
  'shared-hub-power': (f) => ({
    message: `The hub in front of this port has no supply of its own: ${f.hubW.low === f.hubW.high ? quantity(f.hubW.low, 'W') : `${figure(f.hubW.low)} to ${quantity(f.hubW.high, 'W')}`} for all of its ports together, and this build alone draws about ${quantity(f.need.typical, 'W')}, for moments ${quantity(f.peakW, 'W')}.`,
    remedy:
      'Plug it into the computer itself, or into a hub with a supply; leave the hub’s other ports empty before that.'
  }),
  'external-supply-needed': (f) => ({
    message: f.stated
      ? 'A 3.5-inch disk needs 12 V from a supply of its own; this enclosure has none.'
      : 'A 3.5-inch disk needs 12 V from a supply of its own; whether this enclosure has one is not stated.',
    remedy: 'Take an enclosure with its own power supply. Never open the supply itself.'
  }),
  'sectors-4096': () => ({
    message:
      'This enclosure shows sectors of 4096 bytes: a drive that was formatted elsewhere looks empty in it, and one that was formatted in it looks empty elsewhere.',
    remedy: 'Format the drive in the case in which it will stay, and copy its data off before you move it.'
  }),
  'surface-implausible': (f) => ({
    message: `A surface of ${quantity(f.areaCm2, 'cm²')} cannot be: a case for this drive has at least ${quantity(f.leastCm2, 'cm²')}. The temperatures that follow from it are wrong.`,
    remedy:
      'Measure the case: all faces that air reaches, in square centimetres. Leave the field empty if you do not know.'
  }),
  'esata-needs-power': (f) => ({
    message: f.stated
      ? 'Plain eSATA carries no power, and this enclosure has no supply of its own.'
      : 'Plain eSATA carries no power; whether this enclosure has a supply of its own is not stated.',
    remedy:
      'Give the enclosure power of its own, from a supply or a second plug. Connect the data cable first, then the power; take the power away first, then the data cable.'
  }),
  'trim-not-passed': (f) => ({
    message: `TRIM does not reach the drive through this ${f.who === 'bridge' ? 'bridge' : 'transport'}: freed space stays occupied for the drive, and its cache shrinks with time.`,
    remedy: 'Leave a tenth of the drive unpartitioned, or trim it now and then behind a bridge that passes TRIM.'
  }),
  'drive-nearly-full': (f) => ({
    message: `At ${figure(f.percent)}\u202f% full, both the cache and the rate after it shrink.`,
    remedy: 'Keep a fifth free, and test again after freeing space.'
  }),
  'smr-rewrite-risk': (f) => ({
    message:
      f.recording === 'smr'
        ? 'The disk is shingled (SMR): first writes run well, rewrites can collapse to 3 – 60\u202fMB/s.'
        : 'Whether the disk is shingled (SMR) is not known; if it is, rewrites can collapse to 3 – 60\u202fMB/s.',
    remedy: 'Good for data that is written once. For daily rewriting take a CMR disk.'
  }),
  'pad-none-fits': (f) => ({
    message: `No pad at hand closes the ${mm(f.gapMm)} gap over the ${chipWord(f.role)} well.`,
    remedy: buy(f.buyMm)
  }),
  'pad-no-contact': (f) => ({
    message:
      f.padMm === 0
        ? `No pad lies over the ${chipWord(f.role)}: ${mm(f.gapMm)} of air, which conducts a hundred times worse than a pad.`
        : `A ${mm(f.padMm)} pad does not touch the ${chipWord(f.role)}: the gap is ${mm(f.gapMm)}${byHeightCode(f)}. Air conducts a hundred times worse than a pad.`,
    remedy: buy(f.buyMm)
  }),
  'pad-over-compressed': (f) => ({
    message: `A ${mm(f.padMm)} pad in the ${mm(f.gapMm)} gap over the ${chipWord(f.role)}${byHeightCode(f)} is compressed by ${figure(f.percent)}\u202f%: the board bends and contacts can lift.`,
    remedy: buy(f.buyMm)
  }),
  'chip-touches-lid': (f) => ({
    message: `The ${chipWord(f.role)} stands ${mm(f.heightMm)} over the board${byHeightCode(f)}; the lid leaves ${mm(f.roomMm)}.`,
    remedy: f.assumed
      ? 'Measure the tallest chip before you close the case.'
      : 'Take an enclosure with more room; never press a lid shut.'
  }),
  'board-bows': (f) => ({
    message: `The pads press the board down by about ${mm(f.bowMm)}; without support from below ${mm(f.limitMm)} is the limit.`,
    remedy: 'Take a thinner or softer pad, or support the board from below with a pad of its own.'
  }),
  'pad-pressure-high': (f) => ({
    message: `The pad presses on the ${chipWord(f.role)} with about ${quantity(f.pressureMPa, 'MPa')}; from ${quantity(f.limitMPa, 'MPa')} up solder joints suffer.`,
    remedy: 'Take a thinner or softer pad there.'
  }),
  'throttles-in-job': (f) => ({
    message: `After about ${duration(f.afterS)} the drive reaches ${figure(f.startC)}\u202f°C and throttles: the rate falls from ${rate(f.from)} to about ${mbps(f.to)}${f.form === 'saw-tooth' ? ' on average, up and down' : ''}.`,
    remedy: 'Better pads, a fan on the case, or a rest half way; see Pads and heat for what each of them does.'
  }),
  'case-too-hot-to-hold': (f) => ({
    message: `The case settles at about ${figure(f.caseC)}\u202f°C; bare ${f.material === 'plastic' ? 'plastic' : 'metal'} above ${figure(f.limitC)}\u202f°C burns within seconds${f.rule ? `, and it counts as a fault (${f.rule})` : ''}.`,
    remedy: 'Do not hold it, and keep it off paper and cloth; let it cool before you carry it, or cool it with a fan.'
  }),
  'disk-too-warm': (f) => ({
    message: `The disk settles at about ${figure(f.diskC)}\u202f°C; it is rated to ${figure(f.limitC)}\u202f°C.`,
    remedy: 'Stand the case upright in moving air, or take one with a fan; heat shortens the life of a disk.'
  }),
  'drive-shuts-down': (f) => ({
    message: `${f.afterS === null ? 'Once warmed through' : `After about ${duration(f.afterS)}`} the drive gets to ${figure(f.offC)}\u202f°C even at a quarter of its rate and switches itself off: the transfer breaks off.`,
    remedy:
      'Do not run long writes like this. Close the gap over the controller with a pad, use a larger case, or a fan.'
  }),
  'room-outside-drive-range': (f) => ({
    message: `The room has ${figure(f.roomC)}\u202f°C; the drive is made to work ${f.roomC < f.limitC ? 'from' : 'up to'} ${figure(f.limitC)}\u202f°C.`,
    remedy:
      f.roomC < f.limitC
        ? 'Let it warm up, and let no dew settle on it, before it is plugged in.'
        : 'Work in a cooler place, or take a drive that is made for it.'
  }),
  'bridge-too-hot': (f) => ({
    message: `The bridge chip gets to about ${figure(f.bridgeC)}\u202f°C; such chips are made for about ${figure(f.limitC)}\u202f°C.`,
    remedy: 'Look whether the bridge has a pad of its own; a fan or a larger case helps it too.'
  }),
  'filesystem-excludes-host': (f) => ({
    message: `${FILESYSTEMS[f.filesystem].label} is ${f.role === 'nearest' ? 'the nearest to what this job needs' : `what ${OS_LABEL[f.system]} ${f.role === 'boot' ? 'starts from' : 'makes its backups on'}`}; ${[
      ...(f.excluded.length > 0 ? [`${systems(f.excluded)} cannot use it`] : []),
      ...(f.readOnly.length > 0 ? [`${systems(f.readOnly)} can only read it`] : [])
    ].join(', and ')}.`,
    remedy: `Give ${systems([...f.excluded, ...f.readOnly])} a second volume on this drive (exFAT), another drive, or the way over the network.`
  }),
  'filesystem-no-common': (f) => ({
    message: `No filesystem is written by ${systems(f.writers)}${f.readers.length > 0 ? ` and read by ${systems(f.readers)}` : ''} within this job's limits.`,
    remedy: 'Drop one of the systems, smaller files, or add software on one of them.'
  }),
  'filesystem-read-only-on-host': (f) => ({
    message: `${systems(f.hosts)} can read ${FILESYSTEMS[f.filesystem].label} but not write it.`,
    remedy: `If ${systems(f.hosts)} should write too, name it in the job: the advice then looks for what both write.`
  }),
  'os-too-old': (f) => ({
    message: f.perhaps
      ? `${OS_LABEL[f.family]} knows ${FILESYSTEMS[f.filesystem].label} for certain from ${f.since} on; this one is ${f.version}.`
      : `${FILESYSTEMS[f.filesystem].label} needs ${OS_LABEL[f.family]} ${f.since}; this one is ${f.version}.`,
    remedy: f.perhaps ? 'Try it with a small drive first.' : 'Newer system software, or an add-on filesystem, can help.'
  }),
  'file-above-limit': (f) => ({
    message: `The largest file has ${quantity(f.fileGB, 'GB')}; ${FILESYSTEMS[f.filesystem].label} stops at ${quantity(f.limitGB, 'GB')}, and nothing else suits every system of this job.`,
    remedy: 'Split the files, or leave out the system that forces this filesystem.'
  }),
  'mbr-above-2tib': (f) => ({
    message:
      f.who === 'device'
        ? `${systems(f.families)}: such a device may know MBR only, which reaches 2.2\u202fTB of this ${capacity(f.capacityTB)} drive.`
        : `MBR (${f.who}) reaches 2.2\u202fTB of this ${capacity(f.capacityTB)} drive.`,
    remedy:
      f.who === 'device'
        ? 'Look up whether the device reads GPT; if not, take a drive of at most 2\u202fTB for it.'
        : 'Use GPT, or a smaller drive for such devices.'
  }),
  'cache-cliff-in-job': (f) => ({
    message: `After about ${quantity(f.atGB, 'GB')} the write cache is full and the write falls from ${rate(f.before)} to about ${mbps(f.after)}. That is how the drive works, not a fault.`,
    remedy: 'Split the transfer with a rest between, or take a drive with a larger cache or a faster rate after it.'
  }),
  'job-minimum-missed': (f) => ({
    message: `The job needs ${mbps(f.needs)}${f.assumed ? ' (what phones record at)' : ''}; this build gives about ${mbps(f.gives)} for as long as it writes.`,
    remedy: 'See which part is the slowest: a faster drive, connection or enclosure, or better cooling.'
  }),
  'job-does-not-fit': (f) => ({
    message: `The job needs ${quantity(f.needGB, 'GB')}; the drive has room for ${quantity(f.freeGB, 'GB')}.`,
    remedy: 'Take a larger drive, or fewer days on this one.'
  }),
  'endurance-short': (f) => ({
    message: `At ${quantity(f.gbPerDay, 'GB')} a day the rated endurance is used up in ${quantity(f.years, 'years')}, before the warranty of ${quantity(f.warrantyYears, 'years')} ends.`,
    remedy: 'Take a drive with more endurance; warranty ends at the earlier of the two.'
  })
};

/** Gives the sentence of a finding, why it matters, and its remedy where there is one. */
export function sentenceOf(finding: Finding): Sentence {
  const { message, remedy } = (WORDS[finding.code] as (f: Finding) => Words)(finding);
  return remedy === undefined
    ? { message, reason: REASONS[finding.code] }
    : { message, reason: REASONS[finding.code], remedy };
}
