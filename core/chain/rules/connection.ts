import { modesOf, THUNDERBOLT } from '../modes.ts';
import { plugsOf } from '../negotiate.ts';
import type { LinkRule } from './rule.ts';

/** Finds a cable whose ends do not meet port and enclosure. */
export const plugs: LinkRule = ({ port, enclosure: { enclosure }, negotiation: { plugsMeet, cable } }) =>
  plugsMeet
    ? undefined
    : {
        code: 'plug-mismatch',
        severity: 'fail',
        about: 'cable',
        port: port.plug,
        enclosure: plugsOf(enclosure),
        ...(cable ? { ends: cable.ends } : {})
      };

/** Finds a chain that has no mode in common. */
export const commonMode: LinkRule = ({ negotiation: { mode, sets } }) =>
  mode !== null
    ? undefined
    : {
        code: 'no-common-link-mode',
        severity: 'fail',
        about: 'port',
        port: modesOf(sets.port),
        bridge: modesOf(sets.bridge),
        thunderboltOnly: sets.bridge !== 0 && (sets.bridge & ~THUNDERBOLT) === 0
      };
