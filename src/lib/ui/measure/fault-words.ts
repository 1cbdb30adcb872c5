import type { SimulatedFault } from '#core/simulate/faults';

/** What the rig can play, in words. */
export const FAULT_WORDS: Record<SimulatedFault, string> = {
  healthy: 'none',
  'usb2-fallback': 'the connection fell back to USB 2.0',
  '5g-port-or-cable': 'a port or cable of 5 Gb/s',
  '10g-fallback': 'a fall-back to 10 Gb/s',
  'bulk-only': 'bulk-only transfer instead of UAS',
  'write-cache-off': 'write cache switched off',
  'slc-cliff': 'the fast cache runs full',
  'host-disk-cliff': 'the computer’s own disk runs full',
  'thermal-throttle': 'covered case: it gets too hot',
  'pad-no-contact': 'a pad that does not touch the controller',
  'two-lane-limit': 'only two lanes',
  'host-write-ceiling': 'the computer writes at half',
  'drive-nearly-full': 'a drive that is nearly full',
  'smr-rewrite': 'shingled tracks are rewritten',
  'weak-surface': 'weak places on the surface',
  'background-load': 'something else reads at the same time',
  'encryption-cost': 'encryption by the processor',
  'unstable-link': 'a loose contact'
};
