import { z } from 'zod';
import { LINK_MODE_IDS, LINK_MODES, PLUGS, type LinkMode } from '../facts/link-modes.ts';
import type { FieldMeta } from './form/field.ts';

const modeIds = LINK_MODE_IDS as [LinkMode, ...LinkMode[]];
const modeLabels = Object.fromEntries(LINK_MODE_IDS.map((id) => [id, LINK_MODES[id].label]));

/** Makes a field for a list of link modes. */
export const linkModes = (title: string, more: Partial<FieldMeta> = {}) =>
  z
    .array(z.enum(modeIds))
    .min(1)
    .max(modeIds.length)
    .meta({ title, labels: modeLabels, ...more });

export const PLUG_LABELS = {
  'usb-c': 'USB-C',
  'usb-a': 'USB-A',
  'usb-b': 'USB-B',
  'micro-b': 'Micro-B',
  esata: 'eSATA'
} as const;
/** Makes the field for a plug. */
export const plug = (title: string, more: Partial<FieldMeta> = {}) =>
  z.enum(PLUGS).meta({ title, labels: PLUG_LABELS, ...more });
