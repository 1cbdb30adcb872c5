import { z } from 'zod';
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import { listedDeviceSchema } from '../listing/device.ts';
import { quantity } from '../quantities/format.ts';

/** A disk that is plugged in now, with what its system knows of it. */
export const attachedDiskSchema = listedDeviceSchema.extend({
  linkGbps: z.number().optional().describe('negotiated'),
  lanes: z.number().optional().describe('of PCIe, negotiated'),
  transport: z.string().optional().describe('how commands travel: uas, usb-storage, nvme, ahci'),
  trim: z.boolean().optional(),
  sectorBytes: z.number().optional(),
  filesystem: z.string().optional()
});
export type AttachedDisk = z.infer<typeof attachedDiskSchema>;

export const attachedReportSchema = z.strictObject({
  source: z.enum(['system', 'simulated']),
  at: z.string(),
  devices: z.array(attachedDiskSchema),
  /** What was listed, in the form in which a person would paste it. */
  text: z.string(),
  showsSystem: z.boolean(),
  step: z.number().optional().describe('of the script of the stand-in'),
  event: z.string().optional().describe('what happened at this step'),
  note: z.string().optional().describe('why there is nothing, or not all')
});
export type AttachedReport = z.infer<typeof attachedReportSchema>;

/** What a device shows beside what its build is planned for. */
export type LinkRemark = { tone: 'as-planned' | 'slower' | 'unknown'; says: string };

/**
 * Holds the negotiated speed of a disk against the plan of its build.
 * @param mode what the plan expects
 * @example linkRemark('usb-10g', { linkGbps: 5 }).tone // 'slower'
 */
export function linkRemark(
  mode: LinkMode | null,
  { linkGbps, transport }: Pick<AttachedDisk, 'linkGbps' | 'transport'>
): LinkRemark {
  if (mode === null || linkGbps === undefined)
    return { tone: 'unknown', says: 'The system does not say how fast its connection runs.' };
  const { lineGbps, label, carrier } = LINK_MODES[mode];
  const planned = label.includes('Gb/s') ? label : `${label}, ${quantity(lineGbps, 'Gb/s')}`;
  const tunnel = carrier === 'usb4' || carrier === 'thunderbolt';
  // Through a tunnel the system shows the PCIe of the bridge and not the cable: 8 GT/s a lane, or USB where it fell back.
  if (linkGbps < lineGbps * 0.9 && !(tunnel && transport === 'nvme'))
    return {
      tone: 'slower',
      says: `The connection runs at ${quantity(linkGbps, 'Gb/s')}; this build should run at ${planned}: try another cable, then another port.`
    };
  if (transport === 'usb-storage' && carrier === 'usb3')
    return {
      tone: 'slower',
      says: `The connection runs at ${quantity(linkGbps, 'Gb/s')}, but commands travel one at a time (bulk-only instead of UAS).`
    };
  return { tone: 'as-planned', says: `The connection runs as planned: ${planned}.` };
}
