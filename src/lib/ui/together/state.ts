import type { Choice } from '#core/build/choice';
import type { MemberTask } from '#core/compare/together/together';

export type Named = { tag: string; name: string; choice: Choice };
/** One build on a port of the host, and what it does; `copy` names the tag of the build it is copied to. */
export type Seat = { tag: string; portId: string; does: 'write' | 'read' | 'idle' | `copy:${string}` };

export const MOST_SEATS = 12;

/** `AC-0001.c1.write~AC-0002.c2.copy:AC-0001`: what the address keeps. */
export const seatsToText = (seats: readonly Seat[]): string =>
  seats.map(({ tag, portId, does }) => [tag, portId, does].join('/')).join('~');

/** The tags in it. */
export const seatTags = (text: string): string[] =>
  text
    .split('~')
    .slice(0, MOST_SEATS)
    .flatMap((part) => part.split('/')[0] || []);

/** Reads it again; what is no build or makes no sense is left out. */
export function seatsFromText(text: string, builds: readonly Named[]): Seat[] {
  return text
    .split('~')
    .flatMap((part): Seat[] => {
      const [tag = '', port = '', does = ''] = part.split('/');
      if (!builds.some((build) => build.tag === tag) || !/^[\w.-]{1,40}$/.test(port)) return [];
      if (!/^(write|read|idle|copy:[\w-]{1,20})$/.test(does)) return [];
      return [{ tag, portId: port, does: does as Seat['does'] }];
    })
    .slice(0, MOST_SEATS);
}

/** The builds that were paired with this host, each on its own port; a port that is taken goes to the next free one. */
export function seatsOf(hostId: string, ports: readonly string[], builds: readonly Named[]): Seat[] {
  const seats: Seat[] = [];
  for (const { tag, choice } of builds) {
    if (choice.hostId !== hostId || seats.length >= ports.length) continue;
    const taken = (id: string) => seats.some((seat) => seat.portId === id);
    const portId = taken(choice.portId) ? ports.find((id) => !taken(id)) : choice.portId;
    if (portId) seats.push({ tag, portId, does: 'write' });
  }
  return seats;
}

/** What a seat does, by the place of the build it is copied to. */
export function taskOf(seat: Seat, seats: readonly Seat[]): MemberTask {
  if (!seat.does.startsWith('copy:')) return seat.does as MemberTask;
  const to = seats.findIndex(({ tag }) => tag === seat.does.slice(5));
  return to < 0 ? 'idle' : { copyTo: to };
}

/**
 * The computer that has most to say: one on which ports share something, then the one with the most builds.
 * @param builds how many each computer has
 */
export function busiestHost<H extends { id: string; shares: boolean }>(
  hosts: readonly H[],
  builds: ReadonlyMap<string, number>
): H | undefined {
  const count = ({ id }: H) => builds.get(id) ?? 0;
  return [...hosts].sort((a, b) => Number(b.shares) - Number(a.shares) || count(b) - count(a))[0];
}

/** The seats with one more build, on the first port that is free; on the first of all where none is. */
export function withAdded(seats: readonly Seat[], free: readonly Named[], ports: readonly string[]): Seat[] {
  const [build] = free;
  const portId = ports.find((id) => !seats.some((seat) => seat.portId === id)) ?? ports[0];
  return build && portId ? [...seats, { tag: build.tag, portId, does: 'write' }] : [...seats];
}
