import type { Finding } from '../findings/finding.ts';
import { commonMode, plugs } from './connection.ts';
import { cableLength, esataPower, externalSupply, pcieGeneration, portPower } from './electrical.ts';
import {
  bayThickness,
  capacityLimit,
  doubleSided,
  formFactor,
  heatsink,
  m2Key,
  m2Length,
  protocol
} from './mechanical.ts';
import { knownPair } from './known.ts';
import { nearlyFull, shingled, trim } from './media.ts';
import type { Pairing, Rule } from './rule.ts';

/** In the order in which a person would look: does it go in, is it understood, does it connect, is there power, how will it do. */
export const FIT_RULES: readonly Rule[] = [
  formFactor,
  m2Length,
  m2Key,
  protocol,
  bayThickness,
  doubleSided,
  heatsink,
  plugs,
  commonMode,
  externalSupply,
  esataPower,
  portPower,
  pcieGeneration,
  cableLength,
  capacityLimit,
  knownPair,
  trim,
  nearlyFull,
  shingled
];

export function checkFit(pairing: Pairing): Finding[] {
  const findings: Finding[] = [];
  for (const rule of FIT_RULES) {
    const finding = rule(pairing);
    if (finding) findings.push(finding);
  }
  return findings;
}
