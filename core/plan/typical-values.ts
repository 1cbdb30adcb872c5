import type { Drive } from '../parts/drive.ts';
import type { Enclosure } from '../parts/enclosure.ts';
import { assumptionsOf } from './assumptions.ts';
import type { PlanInput } from './report.ts';
import { resolveBuild } from './resolve-build.ts';

const caseFor = ({ formFactor }: Drive): Enclosure => ({
  kind: 'enclosure',
  name: 'case',
  formFactor,
  protocols: ['nvme', 'sata'],
  modes: ['usb4-40g', 'usb-10g'],
  plug: 'usb-c'
});
const driveFor = ({ formFactor, protocols }: Enclosure): Drive => ({
  kind: 'drive',
  name: 'drive',
  media: formFactor === '3.5in' ? 'hdd' : protocols.includes('nvme') && formFactor === 'm2' ? 'nvme' : 'sata-ssd',
  formFactor,
  capacityTB: 1
});

/**
 * Says what a plan would assume for everything that a drive or an enclosure leaves open, by field: the value and where it comes from.
 * The other parts of the build are stand-ins that fit.
 * @example typicalValues({ kind: 'drive', name: 'd', media: 'nvme', formFactor: 'm2', capacityTB: 1 }).m2LengthMm // '80 – most M.2 drives are 80 mm long'
 */
export function typicalValues(part: Drive | Enclosure): Record<string, string> {
  const enclosure = part.kind === 'drive' ? caseFor(part) : part;
  const input: PlanInput = {
    host: {
      kind: 'host',
      name: 'host',
      os: { family: 'linux' },
      ports: [{ id: 'p', label: 'p', plug: enclosure.plug === 'esata' ? 'esata' : 'usb-c', modes: enclosure.modes }]
    },
    portId: 'p',
    enclosure,
    drive: part.kind === 'drive' ? part : driveFor(part)
  };
  const typical: Record<string, string> = {};
  for (const { part: about, field, value, from } of assumptionsOf(input, resolveBuild(input)))
    if (about === part.kind)
      typical[field] = `${typeof value === 'number' ? Number(value.toPrecision(4)) : String(value)} – ${from}`;
  return typical;
}
