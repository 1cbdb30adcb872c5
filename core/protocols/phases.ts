import type { ProtocolPhase } from './phase.ts';
import type { ProtocolId } from '../results/protocol-ids.ts';
import type { Settings } from '../results/settings.ts';
import { protocolOf } from './protocols.ts';

/** What a subject is like, as far as phases ask. */
export type Tested = { capacityGB: number; freeGB: number; media: 'nvme' | 'sata-ssd' | 'hdd' };

/** Random blocks are measured this long each way, s. */
const RANDOM_S = 15;
/** A soak writes over a bounded stretch: a tenth of what is free, from 10 to 100 GB. */
const soakFile = (freeGB: number): number => Math.min(100, Math.max(10, Math.floor(freeGB / 10)));
/** How much of a disk a sweep fills with mixed files, and what of it is written anew. */
const MIXED_SHARE = 0.02;
const REWRITE_SHARE = 0.2;
const FILE_MB = 8;

/** Tells what a protocol is set to: what a person set, else what is usual for it and fits this drive. */
export function settled(id: ProtocolId, set: Settings, tested: Tested): Settings {
  const usual = protocolOf(id).usual;
  const made: Settings = { ...usual, ...set };
  if (id === 'soak' && made.GB === undefined) made.GB = soakFile(tested.freeGB);
  // A small drive is tested with what fits it, unless somebody asked for more: then the page says that it does not fit.
  if (set.GB === undefined && made.GB !== undefined && id !== 'baseline')
    made.GB = Math.max(0.1, Math.min(made.GB, Math.floor(tested.freeGB * 5) / 10));
  return made;
}

const rounds = (count: number, make: (round: number) => ProtocolPhase[]): ProtocolPhase[] =>
  Array.from({ length: count }, (_, i) => make(i + 1)).flat();
const times = (round: number, of: number): string => (of === 1 ? '' : `, ${round} of ${of}`);

function speedCheck({ GB = 5, rounds: count = 5 }: Settings): ProtocolPhase[] {
  return [
    ...rounds(count, (round) => [
      { work: 'write', GB, round, label: `Write${times(round, count)}` },
      { work: 'read', GB, round, label: `Read${times(round, count)}` }
    ]),
    { work: 'random-read', seconds: RANDOM_S, label: 'Random 4 KiB, read' },
    { work: 'random-write', seconds: RANDOM_S, label: 'Random 4 KiB, write' }
  ];
}

function copies({ GB = 40, files = 1, rounds: count = 3, restS = 0 }: Settings): ProtocolPhase[] {
  const rest: ProtocolPhase[] = restS > 0 ? [{ work: 'rest', seconds: restS, label: 'Rest' }] : [];
  const made = rounds(count, (round) => [
    { work: 'copy-in', GB, files, round, label: `Copy to the drive${times(round, count)}` },
    ...rest,
    { work: 'copy-out', GB, files, round, label: `Copy from the drive${times(round, count)}` },
    ...rest
  ]);
  // After the last copy nothing has to rest.
  return restS > 0 ? made.slice(0, -1) : made;
}

function sweep({ fillPercent = 0 }: Settings, { capacityGB }: Tested): ProtocolPhase[] {
  const whole: ProtocolPhase = { work: 'read', GB: capacityGB, label: 'Read the whole surface' };
  if (fillPercent > 0) return [whole];
  const mixed = capacityGB * MIXED_SHARE;
  return [
    whole,
    { work: 'write', GB: capacityGB * (1 - MIXED_SHARE), label: 'Write large files' },
    { work: 'write', GB: mixed, files: Math.round((mixed * 1000) / FILE_MB), label: 'Write mixed files' },
    { work: 'rewrite', GB: capacityGB * REWRITE_SHARE, label: 'Rewrite a fifth' }
  ];
}

/**
 * Lists what a protocol does on a drive, one stretch after the other.
 * @param set as `settled` gives it
 * @example phasesOf('baseline', { GB: 64, rounds: 1 }, { capacityGB: 2000, freeGB: 1800, media: 'nvme' }).length // 2
 */
// eslint-disable-next-line complexity -- one case for each protocol
export function phasesOf(id: ProtocolId, set: Settings, tested: Tested): ProtocolPhase[] {
  switch (id) {
    case 'pair-check':
      return speedCheck(set);
    case 'loop':
      return rounds(set.rounds ?? 12, (round) => [
        { work: 'write', GB: set.GB ?? 16, round, label: `Write, round ${round}` },
        { work: 'read', GB: set.GB ?? 16, round, label: `Read, round ${round}` }
      ]);
    case 'soak':
      return [{ work: 'write', seconds: set.seconds ?? 900, label: 'Write on and on' }];
    case 'copy':
    case 'cross-copy':
      return copies(set);
    case 'sweep':
      return sweep(set, tested);
    case 'baseline':
      return rounds(set.rounds ?? 3, (round) => [
        {
          work: 'internal-write',
          GB: set.GB ?? 64,
          round,
          label: `Write on the internal disk${times(round, set.rounds ?? 3)}`
        },
        {
          work: 'internal-read',
          GB: set.GB ?? 64,
          round,
          label: `Read from the internal disk${times(round, set.rounds ?? 3)}`
        }
      ]);
    case 'retest':
      return [...speedCheck(set), { work: 'write', seconds: set.seconds ?? 300, label: 'Write on and on' }];
    case 'acceptance':
      return [
        { work: 'write', GB: tested.freeGB, label: 'Write all of it' },
        { work: 'read', GB: tested.freeGB, label: 'Read all of it back' }
      ];
    case 'own-program':
      return rounds(set.rounds ?? 3, (round) => [
        {
          work: 'task',
          GB: set.GB ?? 40,
          seconds: set.taskS ?? 240,
          round,
          label: `The work${times(round, set.rounds ?? 3)}`
        }
      ]);
  }
}
