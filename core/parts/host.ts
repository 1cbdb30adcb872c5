import { z } from 'zod';
import { OS_FAMILIES, OS_LABEL } from '../facts/filesystems.ts';
import { choice, id, measure, name, text, yesNo } from './form/field.ts';
import { linkModes, PLUG_LABELS } from './link-mode.ts';

export const osSchema = z
  .strictObject({
    family: choice('System', OS_FAMILIES, { labels: OS_LABEL }),
    version: z
      .string()
      .max(20)
      .regex(/^\d+(\.\d+)*$/, 'must be a version such as 14.2 or 6.1')
      .meta({ title: 'Version', description: 'Linux: the kernel' })
      .optional()
  })
  .meta({ title: 'Operating system', first: true });

export const portSchema = z.strictObject({
  id: z
    .string()
    .min(1)
    .max(40)
    .regex(/^[\w.-]+$/, 'may hold letters, digits, point, dash')
    .meta({ title: 'Short id' }),
  label: text('Label', 80),
  plug: choice('Plug', ['usb-a', 'usb-c', 'esata'], { labels: PLUG_LABELS }),
  modes: linkModes('Modes'),
  powerW: measure('Power it gives', 'W', 0, 240).optional(),
  tunnelMBps: measure('PCIe tunnel share', 'MB/s', 1, 20_000).optional(),
  writeCapMBps: measure('Write ceiling, measured', 'MB/s', 1, 20_000).optional(),
  uas: yesNo('UAS').optional(),
  tunnelsPcie: yesNo('Tunnels PCIe', { description: 'a USB4 port need not' }).optional(),
  via: choice('Reached through', ['hub', 'bus-powered-hub', 'adapter'], {
    labels: { hub: 'hub', 'bus-powered-hub': 'hub without a supply of its own', adapter: 'adapter' }
  }).optional(),
  shares: z
    .string()
    .max(40)
    .regex(/^[\w.-]+$/, 'may hold letters, digits, point, dash')
    .meta({ title: 'Shares a controller or hub', description: 'give the ports that share one the same short name' })
    .optional()
});

/** A controller or hub behind several ports: what they get together. */
export const sharedSchema = z.strictObject({
  id: z
    .string()
    .min(1)
    .max(40)
    .regex(/^[\w.-]+$/, 'may hold letters, digits, point, dash')
    .meta({ title: 'Short name' }),
  label: text('Label', 80).optional(),
  MBps: measure('All its ports together', 'MB/s', 1, 40_000).optional(),
  powerW: measure('Power for all its ports', 'W', 0.5, 500).optional()
});

export const hostSchema = z.strictObject({
  id: id().optional(),
  kind: z.literal('host'),
  name: name(),
  os: osSchema,
  runsHere: yesNo('Ash Crate runs here', {
    description: 'its attached disks are then read from this machine'
  }).optional(),
  ports: z
    .array(portSchema)
    .min(1)
    .max(40)
    .refine((ports) => new Set(ports.map((p) => p.id)).size === ports.length, 'two ports have the same short id')
    .meta({ title: 'Ports', first: true }),
  shared: z
    .array(sharedSchema)
    .max(20)
    .refine((list) => new Set(list.map((s) => s.id)).size === list.length, 'two have the same short name')
    .meta({ title: 'Shared controllers and hubs', group: 'Shared' })
    .optional(),
  memoryGB: measure('Memory', 'GB', 0.1, 16_384, { group: 'Internal disk' }).optional(),
  internalDisk: z
    .strictObject({
      readMBps: measure('Reads', 'MB/s', 1, 30_000),
      writeMBps: measure('Writes', 'MB/s', 1, 30_000),
      cacheGB: measure('Write cache', 'GB', 0.1, 10_000).optional(),
      postCacheWriteMBps: measure('Writes after the cache', 'MB/s', 1, 30_000).optional(),
      freeGB: measure('Free', 'GB', 0, 200_000).optional()
    })
    .meta({ title: 'Internal disk', group: 'Internal disk' })
    .optional()
});

export type Os = z.infer<typeof osSchema>;
export type Port = z.infer<typeof portSchema>;
export type Host = z.infer<typeof hostSchema>;
