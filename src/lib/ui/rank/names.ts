import type { Combination } from '#core/compare/ranking/request';
import { choiceToQuery } from '../pair/slots';

type Named = { id: string; name: string };
export type RankParts = {
  host: readonly (Named & { ports: readonly { id: string; label: string }[] })[];
  cable: readonly Named[];
  enclosure: readonly Named[];
  drive: readonly (Named & { capacityTB: number })[];
  pad: readonly Named[];
};

/** What the parts of a combination are called, and where its page of Pair is. */
export type RankNames = {
  nameOf: (id: string) => string;
  portOf: (row: Combination) => string;
  /** Computer with port, cable or nothing, enclosure, drive. */
  chainOf: (row: Combination) => string[];
  lineOf: (row: Combination) => string;
  hrefOf: (row: Combination) => string;
  capacityOf: (driveId: string) => number;
};

/**
 * Names combinations by a crate's parts.
 * @param home address of the crate
 * @param jobId the job that its page opens with
 */
export function namesOf(parts: RankParts, home: string, jobId: string | undefined): RankNames {
  const byId = new Map(Object.values(parts).flatMap((list) => list.map(({ id, name }: Named) => [id, name] as const)));
  const nameOf = (id: string) => byId.get(id) ?? 'gone';
  const portOf = (row: Combination) =>
    parts.host.find(({ id }) => id === row.hostId)?.ports.find(({ id }) => id === row.portId)?.label ?? row.portId;
  const chainOf = (row: Combination) => [
    `${nameOf(row.hostId)}, ${portOf(row)}`,
    row.cableId ? nameOf(row.cableId) : '',
    nameOf(row.enclosureId),
    nameOf(row.driveId)
  ];
  return {
    nameOf,
    portOf,
    chainOf,
    lineOf: (row) => {
      const [host, cable, enclosure, drive] = chainOf(row);
      return `${enclosure} · ${drive} on ${host}${cable ? ` with ${cable}` : ''}`;
    },
    hrefOf: ({ hostId, portId, cableId, enclosureId, driveId }) =>
      `${home}/pair?${choiceToQuery({
        hostId,
        portId,
        enclosureId,
        driveId,
        ...(cableId ? { cableId } : {}),
        ...(jobId ? { jobId } : {})
      })}`,
    capacityOf: (id) => parts.drive.find((drive) => drive.id === id)?.capacityTB ?? 1
  };
}
