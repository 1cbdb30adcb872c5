import type { FormatRecord } from '../format/record.ts';
import { conditionsFrom } from '../format/record.ts';
import { OS_LABEL } from '../facts/filesystems.ts';
import type { PlanInput } from '../plan/report.ts';
import type { Conditions } from '../results/conditions.ts';
import { dayToDay } from '../results/conditions.ts';

/** What the parts themselves say. */
function fromParts({ host, drive, enclosure }: PlanInput, lasting: Conditions): Conditions {
  const made: Conditions = {};
  if (host.memoryGB !== undefined) made.memoryGB = host.memoryGB;
  if (host.os.version !== undefined && lasting.osVersion === undefined)
    made.osVersion = `${OS_LABEL[host.os.family]} ${host.os.version}`;
  if (drive.fillFraction !== undefined) made.fillPercent = Math.round(drive.fillFraction * 100);
  if (enclosure.cooling?.kind === 'fan' && lasting.fan === undefined) made.fan = true;
  return made;
}

/**
 * Fills in what is known of the conditions of the next run, so that nobody is asked twice: what the parts say, how the drive was
 * formatted, and what the last run had, without what changes from day to day.
 * @param last conditions of the last run of the same subject
 * @example prefill(null, null, { power: 'mains', ambientC: 21 }) // { power: 'mains' }
 */
export function prefill(input: PlanInput | null, format: FormatRecord | null, last: Conditions | null): Conditions {
  const { notes: _notes, notKnown: _unknown, ...kept } = last ?? {};
  const lasting = Object.fromEntries(Object.entries(kept).filter(([id]) => !dayToDay(id))) as Conditions;
  return {
    ...lasting,
    ...(input ? fromParts(input, lasting) : {}),
    ...(format ? conditionsFrom(format) : {}),
    ...(format?.allocationUnit ? { allocationUnit: format.allocationUnit } : {})
  };
}
