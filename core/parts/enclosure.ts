import { z } from 'zod';
import { cableSchema } from './cable.ts';
import { formFactor, M2_KEYS, M2_LENGTHS } from './drive.ts';
import { choice, id, measure, name, numberChoice, text, yesNo } from './form/field.ts';
import { linkModes, plug } from './link-mode.ts';
import { padSchema } from './pad.ts';

/** How a bay holds its drive. `tool-less` says only that no screw does. */
export const RETENTIONS = ['screw', 'screw-from-below', 'turning', 'rubber', 'tool-less', 'tray'] as const;
export type Retention = (typeof RETENTIONS)[number];
export const RETENTION_LABELS: Record<Retention, string> = {
  screw: 'screw',
  'screw-from-below': 'screw from below',
  turning: 'turning retainer',
  rubber: 'rubber retainer',
  'tool-less': 'without tools',
  tray: 'slide-in tray'
};

/** How a case is opened. */
export const OPENINGS = ['screws', 'slide', 'clips', 'lid', 'none'] as const;
export type Opening = (typeof OPENINGS)[number];
export const OPENING_LABELS: Record<Opening, string> = {
  screws: 'screws',
  slide: 'sliding it apart',
  clips: 'clips',
  lid: 'a lid that lifts or folds',
  none: 'nothing: the drive goes in from outside'
};
export const SCREW_HEAD_LABELS = { cross: 'cross', star: 'star', hex: 'hex socket' } as const;

export const enclosureSchema = z.strictObject({
  id: id().optional(),
  kind: z.literal('enclosure'),
  name: name(),
  formFactor: formFactor(),
  protocols: z
    .array(z.enum(['nvme', 'sata']))
    .min(1)
    .max(2)
    .meta({ title: 'Takes', first: true, labels: { nvme: 'NVMe', sata: 'SATA' } }),
  modes: linkModes('Link modes', {
    first: true,
    description: 'all that it offers; a Thunderbolt-only case has no USB fallback'
  }),
  plug: plug('Plug', { first: true }),
  morePlugs: z.array(plug('Plug')).max(4).meta({ title: 'Further sockets', group: 'Bridge' }).optional(),
  captiveCable: yesNo('Cable fixed to the case', { group: 'Bridge' }).optional(),
  bridge: text('Bridge chip or board', 120, { group: 'Bridge' }).optional(),
  downstreamPcie: z
    .strictObject({
      generation: numberChoice('PCIe generation', [2, 3, 4, 5]),
      lanes: numberChoice('Lanes', [1, 2, 4])
    })
    .meta({ title: 'PCIe to the drive', group: 'Bridge' })
    .optional(),
  downstreamSataGbps: numberChoice('SATA to the drive', [1.5, 3, 6], { unit: 'Gb/s', group: 'Bridge' }).optional(),
  uas: yesNo('UAS', { group: 'Bridge' }).optional(),
  trim: yesNo('Passes TRIM', { group: 'Bridge' }).optional(),
  bridgePowerW: measure('Bridge, own power at work', 'W', 0, 30, { group: 'Bridge' }).optional(),
  idleW: measure('Drawn at rest with its drive', 'W', 0, 60, {
    group: 'Bridge',
    description: 'as a USB power meter shows it'
  }).optional(),
  sectorBytes: numberChoice('Sectors shown to the computer', [512, 4096], { unit: 'B', group: 'Bridge' }).optional(),
  m2LengthsMm: z
    .array(z.literal([...M2_LENGTHS]))
    .min(1)
    .max(5)
    .meta({ title: 'M.2 lengths', unit: 'mm', group: 'Bay' })
    .optional(),
  m2Keys: z.array(z.enum(M2_KEYS)).min(1).max(3).meta({ title: 'M.2 keys that fit', group: 'Bay' }).optional(),
  maxThicknessMm: measure('Thickest drive', 'mm', 1, 80, { group: 'Bay' }).optional(),
  maxCapacityTB: measure('Largest drive, as stated', 'TB', 0.01, 200, { group: 'Bay' }).optional(),
  takesDoubleSided: yesNo('Takes double-sided drives', { group: 'Bay' }).optional(),
  clearanceTopMm: measure('Board to lid, inside', 'mm', 0.1, 60, { group: 'Bay' }).optional(),
  clearanceBottomMm: measure('Board to floor, inside', 'mm', 0, 60, { group: 'Bay' }).optional(),
  retention: choice('Drive held by', RETENTIONS, { group: 'Bay', labels: RETENTION_LABELS }).optional(),
  cooling: z
    .strictObject({
      kind: choice('Cooling', ['passive', 'fan']),
      areaCm2: measure('Surface', 'cm²', 1, 5_000, {
        description: 'that air reaches, without the face on the desk and without fins'
      }).optional(),
      stands: choice('Stands', ['flat', 'edge', 'cloth'], {
        labels: { flat: 'flat on a desk', edge: 'on edge', cloth: 'on cloth or paper' }
      }).optional(),
      finsCm2: measure('Extra surface of fins', 'cm²', 1, 10_000).optional(),
      massG: measure('Mass of the case', 'g', 1, 10_000).optional(),
      material: choice('Material', ['aluminium', 'plastic']).optional(),
      finish: choice('Finish', ['coated', 'bare'], {
        labels: { coated: 'painted or anodised', bare: 'bare and polished' }
      }).optional(),
      /** What temperature readings of such cases came to, as factors on what the model says. */
      measured: z
        .strictObject({
          caseFactor: z
            .number()
            .min(0.1)
            .max(10)
            .meta({ title: 'How much warmer the case gets than computed, as a factor' }),
          chipFactor: z
            .number()
            .min(0.1)
            .max(10)
            .meta({ title: 'How much warmer the chips get over the case than computed, as a factor' })
            .optional(),
          readings: z.number().int().min(1).max(10_000).meta({ title: 'Readings behind it' })
        })
        .meta({ title: 'Fitted to temperature readings' })
        .optional()
    })
    .meta({ title: 'Cooling', group: 'Case' })
    .optional(),
  opening: choice('Opened by', OPENINGS, { group: 'Case', labels: OPENING_LABELS }).optional(),
  screws: z
    .strictObject({
      head: choice('Head', ['cross', 'star', 'hex'], { labels: SCREW_HEAD_LABELS }),
      count: z.number().int().min(1).max(24).meta({ title: 'How many' })
    })
    .meta({ title: 'Screws of the case', group: 'Case' })
    .optional(),
  directionMark: yesNo('Lid or tray marked with its direction', { group: 'Case' }).optional(),
  externalSupply: yesNo('Own power supply', { group: 'Case' }).optional(),
  weightG: measure('Weight', 'g', 1, 20_000, { group: 'Case' }).optional(),
  includedPads: z.array(padSchema).max(12).meta({ title: 'Pads in the box', group: 'In the box' }).optional(),
  includedCables: z.array(cableSchema).max(6).meta({ title: 'Cables in the box', group: 'In the box' }).optional()
});

export type Enclosure = z.infer<typeof enclosureSchema>;
