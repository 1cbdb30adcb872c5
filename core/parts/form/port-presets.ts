import type { LinkMode } from '../../facts/link-modes.ts';
import type { Draft } from './form.ts';

/** Ports as computers print them, with what such a port carries and gives. Slower modes follow by themselves. */
export type PortPreset = {
  label: string;
  plug: 'usb-a' | 'usb-c' | 'esata';
  modes: readonly LinkMode[];
  powerW?: number;
};

export const PORT_PRESETS: readonly PortPreset[] = [
  { label: 'Thunderbolt 5 port', plug: 'usb-c', modes: ['tbt5-80g'], powerW: 15 },
  { label: 'Thunderbolt 4 port', plug: 'usb-c', modes: ['tbt4-40g'], powerW: 15 },
  { label: 'Thunderbolt 3 port', plug: 'usb-c', modes: ['tbt3-40g', 'usb-10g'], powerW: 15 },
  { label: 'USB4 port, 40 Gb/s', plug: 'usb-c', modes: ['usb4-40g'], powerW: 7.5 },
  { label: 'USB4 port, 20 Gb/s', plug: 'usb-c', modes: ['usb4-20g'], powerW: 7.5 },
  { label: 'USB-C, 20 Gb/s (Gen 2x2)', plug: 'usb-c', modes: ['usb-20g'], powerW: 7.5 },
  { label: 'USB-C, 10 Gb/s', plug: 'usb-c', modes: ['usb-10g'], powerW: 4.5 },
  { label: 'USB-C, 5 Gb/s', plug: 'usb-c', modes: ['usb-5g'], powerW: 4.5 },
  { label: 'USB-A, 10 Gb/s', plug: 'usb-a', modes: ['usb-10g'], powerW: 4.5 },
  { label: 'USB-A, 5 Gb/s (blue)', plug: 'usb-a', modes: ['usb-5g'], powerW: 4.5 },
  { label: 'USB-A, USB 2.0', plug: 'usb-a', modes: ['usb2'], powerW: 2.5 },
  { label: 'eSATA port, 6 Gb/s', plug: 'esata', modes: ['esata-6g'] }
];

/**
 * Tells what a preset puts into the inputs of a port; a label or short id that was typed stays.
 * @param at path of the port in the form, `ports.0`
 * @example portDraft({ label: 'USB 10 Gb/s port', plug: 'usb-c', modes: ['usb-10g'] }, 'ports.0', {})['ports.0.plug'] // 'usb-c'
 */
export function portDraft(preset: PortPreset, at: string, draft: Draft): Draft {
  const row = Number(at.split('.').at(-1)) + 1;
  const typed = (key: string) => typeof draft[`${at}.${key}`] === 'string' && draft[`${at}.${key}`] !== '';
  return {
    ...(typed('id') ? {} : { [`${at}.id`]: `p${row}` }),
    ...(typed('label') ? {} : { [`${at}.label`]: preset.label.split(/ port|,/)[0] ?? preset.label }),
    [`${at}.plug`]: preset.plug,
    [`${at}.modes`]: [...preset.modes],
    [`${at}.powerW`]: preset.powerW === undefined ? '' : String(preset.powerW)
  };
}
