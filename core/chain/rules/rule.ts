import type { PowerNeed } from './power.ts';
import type { Finding } from '../../findings/finding.ts';
import type { Negotiation } from '../negotiate.ts';
import type { FilledDrive, FilledEnclosure, PortPower } from '../../parts/fill/fill.ts';
import type { KnownPair } from '../../parts/known-pair.ts';
import type { Port } from '../../parts/host.ts';
import type { Band } from '../../quantities/band.ts';
import type { MBps } from '../../quantities/measures.ts';

/** What a fit rule may look at. */
export type Pairing = {
  drive: FilledDrive;
  enclosure: FilledEnclosure;
  port: Port;
  portWatts: PortPower;
  negotiation: Negotiation;
  /** Write of the chain, MB/s; undefined without a common mode. */
  writeMBps: Band<MBps> | undefined;
  knownPairs: readonly KnownPair[];
  /** What the build draws, where somebody has worked it out already. */
  need?: PowerNeed | undefined;
};

/**
 * One rule looks at one thing and says what it finds; no rule sees or stops another. A rule that rests on an assumed value
 * says "check", never "fail": the program does not reject a part for what it only supposed.
 */
export type Rule = (pairing: Pairing) => Finding | undefined;
