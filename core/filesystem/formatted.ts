import { MBR_MAX_TB } from '../facts/filesystems.ts';
import { adviseFilesystem, type AdvisedFilesystem, type AdviceInput } from './advise.ts';
import { usableTiB } from './capacity.ts';

/**
 * Formats a drive as advised: filesystem and scheme with what speaks for them, and what is then usable of the drive, TiB. MBR holds
 * no more than 2.2 TB.
 * @param input capacity in TB (10^12 bytes)
 */
export function formattedDrive(input: AdviceInput): AdvisedFilesystem & { usable: number } {
  const { advice, findings, decisions } = adviseFilesystem(input);
  const { scheme, filesystem } = advice.first;
  const held = scheme === 'mbr' ? Math.min(input.capacityTB, MBR_MAX_TB) : input.capacityTB;
  return { advice, findings, decisions, usable: usableTiB(held, filesystem, input.host.family === 'macos') };
}
