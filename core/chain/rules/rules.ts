import type { Finding } from '../../findings/finding.ts';
import { commonMode, plugs } from './connection.ts';
import {
  cableLength,
  cableLikely,
  esataPower,
  externalSupply,
  pcieGeneration,
  portPowerSuffices,
  portPowerFails
} from './power.ts';
import {
  bayThickness,
  capacityLimit,
  chipHeight,
  doubleSided,
  formFactorFits,
  heatsink,
  m2Key,
  m2Length,
  protocol,
  surface
} from './mechanical.ts';
import { knownPair } from './known-combination.ts';
import { nearlyFull, sectors, shingled, trim } from './media.ts';
import type { ChainRule, LinkRule, Pairing, PartsRule } from './rule.ts';
import { unitSuspect } from './unit-suspect.ts';

/** A rule and what it looks at: drive and enclosure only; port, cable and enclosure only; or the whole chain. */
export type FitRule =
  | { sees: 'parts'; check: PartsRule }
  | { sees: 'link'; check: LinkRule }
  /** Whether it fails is told by `fails`, in less time than it takes to write the finding; left out where it never does. */
  | { sees: 'chain'; check: ChainRule; fails?: (pairing: Pairing) => boolean };

/** In the order in which a person would look: does it go in, is it understood, does it connect, is there power, how will it do. */
export const FIT_RULES: readonly FitRule[] = [
  { check: formFactorFits, sees: 'parts' },
  { check: m2Length, sees: 'parts' },
  { check: m2Key, sees: 'parts' },
  { check: protocol, sees: 'parts' },
  { check: bayThickness, sees: 'parts' },
  { check: doubleSided, sees: 'parts' },
  { check: heatsink, sees: 'parts' },
  { check: chipHeight, sees: 'parts' },
  { check: plugs, sees: 'link' },
  { check: commonMode, sees: 'link' },
  { check: externalSupply, sees: 'parts' },
  { check: esataPower, sees: 'link' },
  { check: portPowerSuffices, sees: 'chain', fails: portPowerFails },
  { check: pcieGeneration, sees: 'chain' },
  { check: cableLength, sees: 'link' },
  { check: cableLikely, sees: 'link' },
  { check: capacityLimit, sees: 'parts' },
  { check: sectors, sees: 'parts' },
  { check: surface, sees: 'parts' },
  { check: unitSuspect, sees: 'parts' },
  { check: knownPair, sees: 'parts' },
  { check: trim, sees: 'chain' },
  { check: nearlyFull, sees: 'parts' },
  { check: shingled, sees: 'parts' }
];

/** Findings about power: they say what to look after, and take no figure away. */
const ABOUT_POWER: readonly Finding['code'][] = [
  'port-power-short',
  'shared-hub-power',
  'external-supply-needed',
  'esata-needs-power'
];
/** Tells whether a finding means that nothing can be measured on these parts. */
export const stops = ({ code, severity }: Finding): boolean => severity === 'fail' && !ABOUT_POWER.includes(code);

/** Asks every rule in turn. */
export function checkFit(pairing: Pairing): Finding[] {
  const findings: Finding[] = [];
  for (const { check } of FIT_RULES) {
    const finding = check(pairing);
    if (finding) findings.push(finding);
  }
  return findings;
}
