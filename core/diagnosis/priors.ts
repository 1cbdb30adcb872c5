import type { CauseCode } from './causes.ts';
import type { Symptom } from './question.ts';

/**
 * How often each cause stands behind a symptom before anything is asked, as weights that are made to add up to 1. Estimates from what
 * practitioners report of self-built drives; no survey is known.
 */
export const PRIORS: Record<Symptom, Partial<Record<CauseCode, number>>> = {
  'will-not-go-in': { 'not-seated': 45, 'upside-down': 15, 'wrong-part': 20, 'in-the-way': 20, 'heatsink-on': 10 },
  'will-not-close': {
    'lid-or-pad': 45,
    'not-seated': 20,
    'lid-turned': 15,
    'in-the-way': 15,
    'heatsink-on': 20,
    'bridge-faulty': 2
  },
  'no-power': {
    'no-power': 40,
    'not-detected-link': 28,
    'bridge-faulty': 12,
    'not-seated': 6,
    'supply-pin-3': 10,
    'drive-faulty': 5
  },
  'not-detected': {
    'not-initialised': 22,
    'not-detected-link': 22,
    'not-seated': 18,
    'no-power': 9,
    'lid-or-pad': 6,
    'not-detected-drive': 7,
    'not-allowed': 5,
    'read-only-format': 4,
    'bridge-faulty': 3,
    'drive-faulty': 3,
    'supply-pin-3': 4,
    encrypted: 1
  },
  'no-capacity': {
    'not-seated': 40,
    'not-detected-drive': 22,
    'lid-or-pad': 14,
    'drive-faulty': 14,
    'no-power': 6,
    'supply-pin-3': 4
  },
  'wrong-capacity': { healthy: 50, 'old-partition': 20, 'wrong-capacity': 14, 'sectors-4096': 8, 'false-capacity': 8 },
  disconnects: {
    'unstable-link': 34,
    'no-power': 22,
    'power-saving': 12,
    'bridge-firmware': 10,
    'thermal-throttle': 8,
    'not-seated': 8,
    'lid-or-pad': 6
  },
  'asks-to-initialise': {
    'not-initialised': 55,
    'read-only-format': 15,
    'sectors-4096': 14,
    encrypted: 8,
    'not-ejected': 5,
    'drive-faulty': 3
  },
  'read-only': { 'read-only-format': 50, 'not-ejected': 22, 'write-protected': 18, 'worn-out': 6 },
  slow: {
    'usb2-fallback': 14,
    '5g-port-or-cable': 12,
    '10g-fallback': 8,
    'slc-cliff': 16,
    'thermal-throttle': 10,
    'write-cache-off': 9,
    'host-disk-cliff': 7,
    'drive-nearly-full': 5,
    'smr-rewrite': 9,
    'background-load': 6,
    'bulk-only': 4,
    'pad-no-contact': 4,
    'weak-surface': 4,
    'encryption-cost': 3,
    'host-write-ceiling': 3,
    'two-lane-limit': 2,
    'unstable-link': 3
  }
};

/**
 * The same for a result that was measured, before it is looked at: most are sound. Causes that make a drive go away are there too, for a
 * series that stops. Estimates.
 */
export const MEASURED_PRIORS: Partial<Record<CauseCode, number>> = {
  healthy: 60,
  ...PRIORS.slow,
  'no-power': 1,
  'bridge-firmware': 0.7,
  'not-seated': 0.5
};
