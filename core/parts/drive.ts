import { z } from 'zod';
import { choice, id, measure, name, numberChoice, yesNo } from './form/field.ts';

export const MEDIA = ['nvme', 'sata-ssd', 'hdd'] as const;
export const FORM_FACTORS = ['m2', '2.5in', '3.5in'] as const;
export const M2_LENGTHS = [30, 42, 60, 80, 110] as const;
export const M2_KEYS = ['M', 'B', 'B+M'] as const;

export const HEIGHT_CODES = ['S1', 'S2', 'S3', 'D1', 'D2', 'D3', 'D4', 'D5'] as const;

export type FormFactor = (typeof FORM_FACTORS)[number];

/** What a form factor is called, on screens and in sentences. */
export const FORM_FACTOR_LABELS = { m2: 'M.2', '2.5in': '2.5-inch', '3.5in': '3.5-inch' } as const;

/** Makes the field for a form factor. */
export const formFactor = () => choice('Form factor', FORM_FACTORS, { first: true, labels: FORM_FACTOR_LABELS });

const component = z.strictObject({
  role: choice('Chip', ['controller', 'nand', 'dram', 'power']),
  side: choice('Side', ['top', 'bottom']),
  xMm: measure('From the connector', 'mm', 0, 150),
  yMm: measure('From the left edge', 'mm', 0, 110),
  widthMm: measure('Width', 'mm', 0.1, 110),
  lengthMm: measure('Length', 'mm', 0.1, 150),
  heightMm: measure('Height over the board', 'mm', 0.05, 20)
});

/** A bare drive, as its data sheet describes it. What is not known is left out. */
export const driveSchema = z.strictObject({
  id: id().optional(),
  kind: z.literal('drive'),
  name: name(),
  media: choice('Media', MEDIA, {
    first: true,
    labels: { nvme: 'NVMe SSD', 'sata-ssd': 'SATA SSD', hdd: 'hard disk' }
  }),
  formFactor: formFactor(),
  capacityTB: measure('Capacity', 'TB', 0.001, 200, { first: true }),
  pcie: z
    .strictObject({
      generation: numberChoice('PCIe generation', [2, 3, 4, 5]),
      lanes: numberChoice('Lanes', [1, 2, 4])
    })
    .meta({ title: 'PCIe', group: 'Interface' })
    .optional(),
  sataGbps: numberChoice('SATA', [1.5, 3, 6], { unit: 'Gb/s', group: 'Interface' }).optional(),
  readMBps: measure('Sequential read, “up to”', 'MB/s', 1, 20_000, { group: 'Speed', first: true }).optional(),
  writeMBps: measure('Sequential write, “up to”', 'MB/s', 1, 20_000, { group: 'Speed', first: true }).optional(),
  random4kReadMBps: measure('Random 4 KiB read, queue depth 1', 'MB/s', 0.01, 5_000, { group: 'Speed' }).optional(),
  random4kWriteMBps: measure('Random 4 KiB write, queue depth 1', 'MB/s', 0.01, 5_000, { group: 'Speed' }).optional(),
  flash: z
    .strictObject({
      cell: choice('Cells', ['tlc', 'qlc', 'mlc', 'slc'], {
        labels: { tlc: 'TLC', qlc: 'QLC', mlc: 'MLC', slc: 'SLC' }
      }).optional(),
      dram: yesNo('Own DRAM').optional(),
      cacheGB: measure('Write cache, drive empty', 'GB', 0.1, 10_000).optional(),
      cacheKind: choice('Kind of cache', ['fixed', 'dynamic']).optional(),
      postCacheWriteMBps: measure('Write after the cache', 'MB/s', 1, 15_000).optional(),
      drainMBps: measure('Cache drains while writing', 'MB/s', 0, 15_000).optional()
    })
    .meta({ title: 'Flash', group: 'Flash' })
    .optional(),
  disk: z
    .strictObject({
      rpm: measure('Speed', 'rpm', 3_000, 16_000).optional(),
      recording: choice('Recording', ['cmr', 'smr', 'unknown'], {
        labels: { cmr: 'CMR', smr: 'SMR', unknown: 'unknown' }
      }).optional(),
      outerMBps: measure('Rate at the outer edge', 'MB/s', 5, 1_000).optional(),
      innerMBps: measure('Rate at the inner edge', 'MB/s', 5, 1_000).optional(),
      seekMs: measure('Average seek', '', 0.1, 50, { description: 'in ms' }).optional()
    })
    .refine((d) => d.outerMBps === undefined || d.innerMBps === undefined || d.innerMBps <= d.outerMBps, {
      path: ['innerMBps'],
      message: 'must not be faster than the outer edge'
    })
    .meta({ title: 'Hard disk', group: 'Hard disk' })
    .optional(),
  m2LengthMm: numberChoice('M.2 length', M2_LENGTHS, { unit: 'mm', group: 'Size' }).optional(),
  m2Key: choice('M.2 key', M2_KEYS, { group: 'Size' }).optional(),
  thicknessMm: measure('Thickness', 'mm', 1, 60, { group: 'Size' }).optional(),
  sides: choice('Chips on', ['single', 'double'], {
    labels: { single: 'one side', double: 'both sides' },
    group: 'Size'
  }).optional(),
  m2HeightCode: choice('M.2 height code', HEIGHT_CODES, {
    group: 'Size',
    description: 'the end of the module’s name, such as S3 or D5'
  }).optional(),
  heatsinkMm: measure('Glued-on heatsink, height', 'mm', 0, 60, { group: 'Size' }).optional(),
  label: choice('Label', ['metal', 'paper', 'none'], { group: 'Size' }).optional(),
  components: z.array(component).max(40).meta({ title: 'Chips on the board', group: 'Size' }).optional(),
  power: z
    .strictObject({
      idleW: measure('Idle', 'W', 0, 60).optional(),
      activeW: measure('Active', 'W', 0, 100).optional(),
      peakW: measure('Peak', 'W', 0, 150).optional()
    })
    .meta({ title: 'Power', group: 'Power and heat' })
    .optional(),
  throttle: z
    .strictObject({
      startC: measure('Throttles from', '°C', 30, 120).optional(),
      criticalC: measure('Critical at', '°C', 30, 130).optional()
    })
    .meta({ title: 'Throttle', group: 'Power and heat' })
    .optional(),
  operating: z
    .strictObject({
      minC: measure('Works from', '°C', -60, 40).optional(),
      maxC: measure('Works up to', '°C', 20, 130).optional()
    })
    .meta({ title: 'Operating temperature', group: 'Power and heat' })
    .optional(),
  enduranceTBW: measure('Endurance', 'TBW', 0.1, 1_000_000, { group: 'Warranty' }).optional(),
  warrantyYears: measure('Warranty', 'years', 0, 50, { group: 'Warranty' }).optional(),
  fillFraction: z.number().min(0).max(1).meta({ title: 'Filled, as a share of 1', group: 'Warranty' }).optional()
});

export type Drive = z.infer<typeof driveSchema>;
