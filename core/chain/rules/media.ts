import { LINK_MODES } from '../../facts/link-modes.ts';
import { isTunnelled } from '../modes.ts';
import { runsUas } from '../stages.ts';
import type { ChainRule, PartsRule } from './rule.ts';

/** Notes where TRIM does not get through: it gets through a tunnel and eSATA; over USB only with UAS and a bridge that translates it. */
export const trim: ChainRule = ({ drive, enclosure, port, negotiation: { mode } }) => {
  if (drive.drive.media === 'hdd' || mode === null || isTunnelled(mode) || LINK_MODES[mode].carrier === 'esata')
    return undefined;
  if (enclosure.enclosure.trim === false)
    return { code: 'trim-not-passed', severity: 'note', about: 'enclosure', who: 'bridge' };
  return runsUas(port, enclosure)
    ? undefined
    : { code: 'trim-not-passed', severity: 'note', about: 'enclosure', who: 'transport' };
};

export const NEARLY_FULL_SHARE = 0.8;
/** Finds a flash drive that is nearly full, where writing gets slow. */
export const nearlyFull: PartsRule = ({ drive: { drive } }) =>
  drive.media !== 'hdd' && drive.fillFraction !== undefined && drive.fillFraction > NEARLY_FULL_SHARE
    ? { code: 'drive-nearly-full', severity: 'limit', about: 'drive', percent: drive.fillFraction * 100 }
    : undefined;

/** Points out shingled disks; and for 2.5-inch disks from 2 TB on, where it is common and often unstated. */
export const shingled: PartsRule = ({ drive: { drive } }) => {
  if (drive.media !== 'hdd') return undefined;
  const recording = drive.disk?.recording ?? 'unknown';
  if (recording === 'smr') return { code: 'smr-rewrite-risk', severity: 'check', about: 'drive', recording };
  return recording === 'unknown' && drive.formFactor === '2.5in' && drive.capacityTB >= 2
    ? { code: 'smr-rewrite-risk', severity: 'check', about: 'drive', recording }
    : undefined;
};

/** Points out a bridge that shows 4096-byte sectors: what is written behind it cannot be read behind another one. */
export const sectors: PartsRule = ({ enclosure: { enclosure } }) =>
  enclosure.sectorBytes === 4096 ? { code: 'sectors-4096', severity: 'check', about: 'enclosure' } : undefined;
