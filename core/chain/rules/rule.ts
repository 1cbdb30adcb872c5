import type { PowerNeed } from '../power-need.ts';
import type { Finding } from '../../findings/finding.ts';
import type { Negotiation } from '../negotiate.ts';
import type { FilledDrive } from '../../parts/fill/drive.ts';
import type { FilledEnclosure } from '../../parts/fill/enclosure.ts';
import type { PortPower } from '../../parts/fill/port.ts';
import type { KnownPair } from '../../parts/known-pair.ts';
import type { Port } from '../../parts/host.ts';
import type { Band } from '../../quantities/band.ts';
import type { MBps } from '../../quantities/measures.ts';

/** What a rule about drive and enclosure may look at. */
export type PartsPairing = {
  drive: FilledDrive;
  enclosure: FilledEnclosure;
  knownPairs: readonly KnownPair[];
};

/** What a rule about port, cable and enclosure may look at. */
export type LinkPairing = {
  enclosure: FilledEnclosure;
  port: Port;
  portWatts: PortPower;
  negotiation: Negotiation;
};

/** What a rule about the whole chain may look at. */
export type Pairing = PartsPairing &
  LinkPairing & {
    /** Write of the chain, MB/s; undefined without a common mode. */
    writeMBps: Band<MBps> | undefined;
    /** What the build draws, where somebody has worked it out already. */
    need?: PowerNeed | undefined;
  };

/**
 * One rule looks at one thing and says what it finds; no rule sees or stops another. A rule that rests on an assumed value
 * says "check", never "fail": the program does not reject a part for what it only supposed.
 */
export type PartsRule = (pairing: PartsPairing) => Finding | undefined;
export type LinkRule = (pairing: LinkPairing) => Finding | undefined;
export type ChainRule = (pairing: Pairing) => Finding | undefined;
