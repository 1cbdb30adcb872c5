/** What tells one chain from another: a port of a host, a cable or none of one's own, an enclosure, a drive. */
export type ChainIds = {
  hostId: string;
  portId: string;
  cableId?: string | undefined;
  enclosureId: string;
  driveId: string;
};

/**
 * Names a chain in one word, for maps; no id holds a blank.
 * @example chainKey({ hostId: 'h', portId: 'p', enclosureId: 'e', driveId: 'd' }) // 'h p - e d'
 */
export const chainKey = ({ hostId, portId, cableId, enclosureId, driveId }: ChainIds): string =>
  `${hostId} ${portId} ${cableId ?? '-'} ${enclosureId} ${driveId}`;

/** Names a drive in an enclosure. */
export const pairKey = (driveId: string, enclosureId: string): string => `${driveId} ${enclosureId}`;
