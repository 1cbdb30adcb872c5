/* eslint-disable @typescript-eslint/no-non-null-assertion -- called for a chain that works: it has a mode, a load and what it needs */
import { AMBIENT_C, CASE_CLASS, SPECIFIC_HEAT, USUAL_CONDUCTIVITY } from '../facts/thermal.ts';
import { DRAIN_SHARE, POWER } from '../facts/flash.ts';
import { USUAL_SHORE } from '../facts/m2.ts';
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import type { Assumed } from '../findings/finding.ts';
import { livesOnPort } from '../chain/power-need.ts';
import { isTunnelled } from '../chain/modes.ts';
import { runsUas } from '../chain/stages.ts';
import { ratingsOf, sidesAssumed } from '../parts/fill/drive.ts';
import { caseClassOf } from '../thermal/model/geometry.ts';
import { cacheShareOf } from '../throughput/flash-cache.ts';
import type { Pad } from '../parts/pad.ts';
import type { PlanInput } from './report.ts';
import type { ResolvedBuild } from './resolve-build.ts';

/** Groups of figures, as the report names them where it says what rests on an assumed value. */
export type FigureGroup =
  | 'fit'
  | 'link'
  | 'read'
  | 'write'
  | 'sustained'
  | 'random'
  | 'cache'
  | 'job'
  | 'heat'
  | 'power'
  | 'pads'
  | 'filesystem';

// eslint-disable-next-line max-params -- a row of the list of assumptions
type Note = (
  part: Assumed['part'],
  field: string,
  value: Assumed['value'],
  from: string,
  ...figures: FigureGroup[]
) => void;

const CASE_WORD = {
  m2: 'usual surface of a case for M.2',
  'm2-tunnel': 'usual surface of a USB4 or Thunderbolt case for M.2',
  '2.5in': 'usual surface of a 2.5-inch case',
  '3.5in': 'usual surface of a 3.5-inch case'
} as const;

/** Systems whose support for filesystems hangs on their version. */
const VERSIONED: readonly string[] = ['macos', 'linux', 'ipados', 'ios', 'android'];
const is40g = (mode: LinkMode) => mode === 'usb4-40g' || mode === 'tbt4-40g';

/**
 * Lists what a plan assumed: every value that no part states and some figure used, and nothing else. A listed number or choice can be
 * stated in its field: the typical figures stay as they are, and no band gets wider.
 */
export function assumptionsOf(input: PlanInput, build: ResolvedBuild): Assumed[] {
  const list: Assumed[] = [];
  // eslint-disable-next-line max-params -- a row of the list of assumptions
  const note: Note = (part, field, value, from, ...figures) => void list.push({ part, field, value, from, figures });
  if (build.running) {
    ofCable(input, build, note);
    ofPort(build, note);
    ofSlot(build, note);
    if (input.drive.media === 'hdd') ofDisk(input, build, note);
    else {
      ofRatings(input, build, note);
      ofFlash(input, build, note);
      ofCache(input, build, note);
    }
    if (input.job) ofJob(input, build, note);
  }
  ofFit(input, build, note);
  ofPower(input, build, note);
  ofDriveHeat(input, build, note);
  ofCaseHeat(input, build, note);
  ofSurroundings(input, build, note);
  const { os } = input.host;
  if (os.version === undefined && VERSIONED.includes(os.family))
    note('host', 'os.version', 'current', 'older versions write fewer filesystems', 'filesystem');
  return list;
}

function ofCable({ cable }: PlanInput, { negotiation }: ResolvedBuild, note: Note): void {
  if (negotiation.cableFrom === 'box' && negotiation.cable)
    note('cable', 'name', negotiation.cable.name, 'the cable in the box with the best mode', 'link', 'read', 'write');
  else if (negotiation.cableFrom === 'assumed' && !cable)
    note(
      'cable',
      'modes',
      'everything the enclosure offers',
      'no cable was chosen and none in the box fits',
      'link',
      'read',
      'write'
    );
}

function ofPort({ negotiation, port, enclosure }: ResolvedBuild, note: Note): void {
  const { carrier } = LINK_MODES[negotiation.mode!];
  if (carrier === 'usb4' && port.tunnelsPcie === undefined)
    note('port', 'tunnelsPcie', true, 'usual for USB4 ports', 'link', 'read', 'write');
  if (carrier === 'usb3') {
    if (enclosure.enclosure.uas === undefined && port.uas !== false)
      note('enclosure', 'uas', true, 'usual for bridges of this class', 'read', 'write', 'random');
    if (port.uas === undefined && runsUas(port, enclosure))
      note('port', 'uas', true, 'usual for current systems', 'read', 'write', 'random');
  }
}

function ofSlot({ negotiation, drive, enclosure }: ResolvedBuild, note: Note): void {
  const mode = negotiation.mode!;
  const { downstreamPcie, downstreamSataGbps, protocols } = enclosure.enclosure;
  if (drive.protocol === 'nvme' && protocols.includes('nvme') && !downstreamPcie) {
    const { generation, lanes } = enclosure.pcie;
    const both = is40g(mode);
    note(
      'enclosure',
      'downstreamPcie',
      both ? `PCIe 3 or 4, x${lanes}` : `PCIe ${generation} x${lanes}`,
      both ? 'the band of the link holds both' : `usual behind a ${LINK_MODES[enclosure.best].label} bridge`,
      'read',
      'write'
    );
  }
  if (drive.protocol === 'sata') {
    if (protocols.includes('sata') && downstreamSataGbps === undefined)
      note('enclosure', 'downstreamSataGbps', 6, 'usual for SATA bridges', 'read', 'write');
    if (drive.drive.sataGbps === undefined) note('drive', 'sataGbps', 6, 'usual for SATA drives', 'read', 'write');
  }
}

function ofRatings({ drive: stated }: PlanInput, { drive }: ResolvedBuild, note: Note): void {
  const { pcie } = drive;
  if (pcie && !stated.pcie) {
    const [read, write] = [stated.readMBps ?? 0, stated.writeMBps ?? 0];
    const from =
      read + write === 0
        ? 'the most common class'
        : `the slowest generation that reaches its ${read >= write ? 'read' : 'write'} rate`;
    note('drive', 'pcie', `PCIe ${pcie.generation} x${pcie.lanes}`, from, 'read', 'write');
  }
  const ratings = ratingsOf(stated, pcie);
  const typical = `typical for ${ratings.className}`;
  if (stated.readMBps === undefined) note('drive', 'readMBps', ratings.read, typical, 'read', 'job');
  if (stated.writeMBps === undefined)
    note('drive', 'writeMBps', ratings.write, typical, 'write', 'sustained', 'cache', 'job');
}

function ofFlash({ drive: stated }: PlanInput, { drive, negotiation }: ResolvedBuild, note: Note): void {
  const flash = stated.flash;
  const { cell, postCache } = drive;
  if (flash?.cell === undefined)
    note('drive', 'flash.cell', 'tlc', 'the most common cells', 'sustained', 'cache', 'heat');
  if (postCache && flash?.postCacheWriteMBps === undefined)
    note(
      'drive',
      'flash.postCacheWriteMBps',
      postCache.typical,
      `estimate for ${cell.toUpperCase()} (${postCache.low} to ${postCache.high})`,
      'sustained',
      'cache',
      'job'
    );
  if (flash?.dram === undefined && !isTunnelled(negotiation.mode!))
    note('drive', 'flash.dram', 'unknown', 'both cases are inside the random band', 'random');
}

function ofCache({ drive: stated }: PlanInput, { drive, running, freeGB }: ResolvedBuild, note: Note): void {
  const { flash } = stated;
  if (!running!.cache.cliffAtGB) return;
  if (flash?.cacheGB === undefined)
    note(
      'drive',
      'flash.cacheGB',
      cacheShareOf(drive).typical * freeGB,
      'a share of the free space, by its cells and class',
      'cache',
      'job'
    );
  if (flash?.cacheKind === undefined)
    note('drive', 'flash.cacheKind', 'dynamic', 'the most common kind', 'cache', 'job');
  if (flash?.drainMBps === undefined)
    note(
      'drive',
      'flash.drainMBps',
      DRAIN_SHARE.typical * drive.postCache!.typical,
      'a tenth of the rate after the cache',
      'cache',
      'job'
    );
  if (stated.fillFraction === undefined) note('drive', 'fillFraction', 0, 'taken as empty', 'cache', 'job');
}

function ofDisk({ drive: stated, job }: PlanInput, { drive }: ResolvedBuild, note: Note): void {
  const { disk, readMBps, writeMBps } = stated;
  if (disk?.outerMBps === undefined && readMBps === undefined && writeMBps === undefined)
    note(
      'drive',
      'disk.outerMBps',
      drive.read.high,
      `typical for a ${stated.formFactor === '3.5in' ? '3.5' : '2.5'}-inch hard disk`,
      'read',
      'write',
      'sustained',
      'job'
    );
  if (disk?.innerMBps === undefined)
    note(
      'drive',
      'disk.innerMBps',
      drive.read.low,
      'inner tracks run at about 0.48 of the outer ones',
      'read',
      'write',
      'sustained',
      'job'
    );
  if (disk?.rpm === undefined) note('drive', 'disk.rpm', drive.rpm, 'usual for this size', 'random');
  if (job && stated.fillFraction === undefined)
    note('drive', 'fillFraction', 0, 'taken as empty; the band holds every place on the disk', 'job');
}

function ofJob({ host, job, drive }: PlanInput, { needs, running }: ResolvedBuild, note: Note): void {
  if (!host.internalDisk)
    note('host', 'internalDisk', 'keeps up', 'its own disk is not stated, so nothing is held back by it', 'job');
  if (job!.files === undefined) note('job', 'files', 1, 'one file', 'job');
  if (needs?.assumed) note('job', 'minSustainedWriteMBps', needs.MBps, 'what phones record at', 'job');
  if (drive.media !== 'hdd' && drive.fillFraction === undefined && !running!.cache.cliffAtGB)
    note('drive', 'fillFraction', 0, 'taken as empty', 'job');
}

function ofFit(input: PlanInput, build: ResolvedBuild, note: Note): void {
  const { formFactor } = input.drive;
  if (formFactor !== input.enclosure.formFactor) return;
  if (formFactor === 'm2') {
    ofModule(input, build, note);
    ofPads(input, build, note);
  } else ofBay(input, build, note);
}

function ofModule({ drive: stated, enclosure: own }: PlanInput, { drive, enclosure }: ResolvedBuild, note: Note): void {
  if (stated.m2LengthMm === undefined)
    note('drive', 'm2LengthMm', drive.m2LengthMm, 'most M.2 drives are 80 mm long', 'fit', 'pads');
  if (stated.m2Key === undefined)
    note('drive', 'm2Key', drive.m2Key, `usual for ${drive.protocol === 'sata' ? 'SATA' : 'NVMe'} modules`, 'fit');
  if (sidesAssumed(stated))
    note(
      'drive',
      'sides',
      drive.doubleSided ? 'double' : 'single',
      'from 4 TB on many drives carry chips on both sides',
      'fit',
      'pads'
    );
  if (own.m2LengthsMm === undefined)
    note('enclosure', 'm2LengthsMm', enclosure.m2LengthsMm.join(', '), 'usual for M.2 enclosures', 'fit');
  if (own.m2Keys === undefined)
    note(
      'enclosure',
      'm2Keys',
      enclosure.m2Keys.join(', '),
      `usual for ${own.protocols.includes('nvme') ? 'NVMe' : 'SATA'} enclosures`,
      'fit'
    );
}

function ofPads({ drive: stated, enclosure: own, pads }: PlanInput, { pads: stack }: ResolvedBuild, note: Note): void {
  const { board, rows } = stack;
  if (board?.from === 'template' && (rows.length > 0 || own.clearanceTopMm !== undefined))
    note(
      'drive',
      'components',
      `height code ${board.heightCode}`,
      `usual chips of a ${board.lengthMm} mm module; measure yours for pads that surely fit`,
      'fit',
      'pads',
      'heat'
    );
  if (rows.some(({ side }) => side === 'top') && stated.label === undefined)
    note('drive', 'label', 'none', 'a label would take 0.1 mm of the gap', 'pads', 'heat');
  if (stack.lost)
    note(
      'pad',
      'stack',
      'chosen anew',
      'a pad that was settled on is not in the box or at hand any more',
      'pads',
      'heat'
    );
  if (stack.fromShop)
    note('pad', 'thicknessMm', 'stock thicknesses', 'no pad is in the box or at hand; what to buy', 'pads', 'heat');
  const used = (name: string) => rows.some(({ padNames }) => padNames.includes(name));
  const unstated = (field: 'conductivityWmK' | 'shore00') => {
    const lacks = (pad: Pad) => pad[field] === undefined && used(pad.name);
    return (stack.fromShop && rows.length > 0) || own.includedPads?.some(lacks) === true || pads?.some(lacks) === true;
  };
  if (unstated('conductivityWmK'))
    note('pad', 'conductivityWmK', USUAL_CONDUCTIVITY, 'usual for pads without a figure', 'heat');
  if (unstated('shore00')) note('pad', 'shore00', USUAL_SHORE, 'usual for pads without a figure', 'pads');
}

function ofBay({ drive: stated, enclosure: own }: PlanInput, { drive, enclosure }: ResolvedBuild, note: Note): void {
  if (stated.thicknessMm === undefined)
    note('drive', 'thicknessMm', drive.thicknessMm, 'usual for this kind of drive', 'fit');
  if (own.maxThicknessMm === undefined)
    note('enclosure', 'maxThicknessMm', enclosure.maxThicknessMm, 'usual for such bays', 'fit');
}

function ofPower({ drive: stated, enclosure: own }: PlanInput, build: ResolvedBuild, note: Note): void {
  const { pairing, need, running, port } = build;
  if (!running || !livesOnPort(pairing)) return;
  if (port.powerW === undefined)
    note('port', 'powerW', pairing.portWatts.watts, 'the least that such a port gives', 'power');
  if (own.externalSupply === undefined)
    note('enclosure', 'externalSupply', false, 'what states no supply is taken to have none', 'power');
  if (stated.power?.peakW === undefined) {
    const { efficiency, bridgeRestW, bridgeGrowthW, fanW } = need!.draw;
    const peak = need!.peak.typical - bridgeRestW - bridgeGrowthW - fanW;
    note('drive', 'power.peakW', Math.round(peak * efficiency * 1e6) / 1e6, 'usual for such a drive', 'power');
  }
}

// eslint-disable-next-line complexity -- one line for each value that a sheet may leave out
function ofDriveHeat({ drive: stated, enclosure: own }: PlanInput, build: ResolvedBuild, note: Note): void {
  const { drive, thermal, negotiation, running } = build;
  const { draw, limits } = thermal;
  const disk = stated.media === 'hdd';
  const power = stated.power;
  if (disk) {
    if (power?.activeW === undefined && power?.idleW === undefined)
      note('drive', 'power.activeW', draw.idleW.typical, 'usual for such a disk', 'heat', 'power');
  } else {
    if (power?.idleW === undefined && !draw.stated.rest)
      note('drive', 'power.idleW', draw.idleW.typical, 'usual behind such a bridge', 'heat', 'power');
    if (power?.activeW === undefined && running)
      note(
        'drive',
        'power.activeW',
        draw.idleW.typical + (draw.write * drive.ratedWrite) / 1000,
        'its class’s joules for each GB, at its rated write',
        'heat',
        'power'
      );
    if (stated.throttle?.startC === undefined && limits && running)
      note('drive', 'throttle.startC', limits.startC, 'usual for such drives', 'heat', 'sustained', 'job');
  }
  if (own.bridgePowerW === undefined) {
    const { mode } = negotiation;
    const kind = mode === 'tbt5-80g' ? 'tunnel80' : mode !== null && isTunnelled(mode) ? 'tunnel' : 'usb';
    note('enclosure', 'bridgePowerW', POWER.bridgeW[kind].typical, 'usual for such a bridge', 'heat', 'power');
  }
}

// eslint-disable-next-line complexity -- one line for each value that a sheet may leave out
function ofCaseHeat(
  { enclosure: own }: PlanInput,
  { enclosure, thermal: { geometry } }: ResolvedBuild,
  note: Note
): void {
  const { cooling } = own;
  const measured = cooling?.measured !== undefined;
  const usual = CASE_CLASS[caseClassOf(enclosure)];
  if (cooling === undefined) note('enclosure', 'cooling.kind', 'passive', 'nothing is said of a fan', 'heat', 'power');
  if (cooling?.areaCm2 === undefined && !measured)
    note('enclosure', 'cooling.areaCm2', usual.areaCm2, CASE_WORD[caseClassOf(enclosure)], 'heat', 'sustained', 'job');
  if (cooling?.massG === undefined && own.weightG === undefined)
    note(
      'enclosure',
      'cooling.massG',
      Math.round((geometry.caseJK / SPECIFIC_HEAT[geometry.plastic ? 'plastic' : 'aluminium']) * 1000),
      'usual for such a case',
      'heat',
      'job'
    );
  if (cooling?.material === undefined)
    note('enclosure', 'cooling.material', 'aluminium', 'the most common material', 'heat');
  if (cooling?.finish === undefined && cooling?.kind !== 'fan' && !measured)
    note('enclosure', 'cooling.finish', 'coated', 'most cases are painted or anodised', 'heat');
  if (cooling?.stands === undefined) note('enclosure', 'cooling.stands', 'flat', 'on a desk', 'heat');
}

function ofSurroundings({ job }: PlanInput, { thermal: { geometry }, pads }: ResolvedBuild, note: Note): void {
  if (job?.ambientC === undefined) note('job', 'ambientC', AMBIENT_C.typical, 'a room', 'heat');
  if (geometry.kind === 'm2' && !pads.filled.some(({ chip }) => chip.role === 'controller'))
    note(
      'pad',
      'contact',
      'pads that fit',
      'no clearance is stated: what comes with an enclosure mostly fits it',
      'heat',
      'sustained'
    );
}
