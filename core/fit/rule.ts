import type { Finding } from '../findings/finding.ts';
import type { Negotiation } from '../link/negotiate.ts';
import type { FilledDrive, FilledEnclosure } from '../parts/fill.ts';
import type { KnownPair } from '../parts/known-pair.ts';
import type { Port } from '../parts/host.ts';

/** What a fit rule may look at. */
export type Pairing = {
  drive: FilledDrive;
  enclosure: FilledEnclosure;
  port: Port;
  portWatts: { watts: number; stated: boolean };
  negotiation: Negotiation;
  /** Typical write of the chain, MB/s; undefined without a common mode. */
  writeMBps: number | undefined;
  knownPairs: readonly KnownPair[];
};

/**
 * One rule looks at one thing and says what it finds; no rule sees or stops another. A rule that rests on an assumed value
 * says "check", never "fail": the program does not reject a part for what it only supposed.
 */
export type Rule = (pairing: Pairing) => Finding | undefined;
