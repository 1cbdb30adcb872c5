import type { CauseCode } from './causes.ts';

/** Short names of causes, as bars and buttons carry them. */
export const CAUSE_NAMES: Partial<Record<CauseCode, string>> = {
  'usb2-fallback': 'fell back to USB 2.0',
  '5g-port-or-cable': 'port or cable of 5 Gb/s',
  '10g-fallback': 'fell back to 10 Gb/s',
  'bulk-only': 'bulk-only transport',
  'write-cache-off': 'write cache is off',
  'slc-cliff': 'fast cache is full',
  'host-disk-cliff': 'the other disk is slow',
  'thermal-throttle': 'too hot',
  'pad-no-contact': 'pad without contact',
  'two-lane-limit': 'two lanes only',
  'host-write-ceiling': 'the computer writes slowly',
  'drive-nearly-full': 'drive nearly full',
  'smr-rewrite': 'shingled disk, rewriting',
  'weak-surface': 'weak places',
  'background-load': 'something else uses it',
  'encryption-cost': 'cost of encryption',
  'unstable-link': 'loose contact or cable',
  'no-power': 'too little power',
  'bridge-firmware': 'firmware of the bridge',
  'not-seated': 'not seated well',
  'power-saving': 'put to sleep',
  'lid-or-pad': 'lid or pads press',
  healthy: 'nothing is wrong'
};
