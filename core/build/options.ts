import { bestOf } from '../parts/fill/enclosure.ts';
import { LINK_MODES } from '../facts/link-modes.ts';
import type { Library } from './assemble.ts';
import type { Choice } from './choice.ts';

/** The places of a chain that one part each takes, from the host outwards. */
export const CHAIN_PLACES = ['port', 'cable', 'enclosure', 'drive'] as const;
export type ChainPlace = (typeof CHAIN_PLACES)[number];

/** What is picked when parts are paired: a computer for its ports, and the job that it is for. */
export const PICKED_KINDS = ['host', 'cable', 'enclosure', 'drive', 'job'] as const;
export type PickedKind = (typeof PICKED_KINDS)[number];

/** A host and its port are picked as one thing: their ids joined. */
const SEPARATOR = '~';
/**
 * Joins a host and its port to one option: they are picked as one thing.
 * @example portOption('host', 'left') // 'host~left'
 */
export const portOption = (hostId: string, portId: string) => `${hostId}${SEPARATOR}${portId}`;
/** Takes such an option apart again. */
export function fromPortOption(id: string): { hostId: string; portId: string } {
  const at = id.indexOf(SEPARATOR);
  return { hostId: id.slice(0, at), portId: id.slice(at + 1) };
}

const SLOT = { cable: 'cableId', enclosure: 'enclosureId', drive: 'driveId', job: 'jobId' } as const;

/**
 * Tells what is picked at a place.
 * @example pickedAt({ hostId: 'h', portId: 'p' }, 'port') // 'h~p'
 */
export function pickedAt(choice: Partial<Choice>, place: ChainPlace): string | undefined {
  if (place !== 'port') return choice[SLOT[place]];
  return choice.hostId && choice.portId ? portOption(choice.hostId, choice.portId) : undefined;
}

/**
 * Gives the choice after one place was picked or cleared.
 * @example withPicked({ cableId: 'c' }, 'cable', undefined) // {}
 */
export function withPicked(
  choice: Partial<Choice>,
  place: ChainPlace | 'job',
  id: string | undefined
): Partial<Choice> {
  const { hostId: _h, portId: _p, ...withoutPort } = choice;
  if (place === 'port') {
    if (id === undefined) return withoutPort;
    const port = fromPortOption(id);
    // How Windows treats a drive was looked up on one computer, and says nothing about another.
    const { writeCache: _policy, ...without } = choice;
    return { ...(port.hostId === choice.hostId ? choice : without), ...port };
  }
  const { [SLOT[place]]: _old, ...rest } = choice;
  return id === undefined ? rest : { ...rest, [SLOT[place]]: id };
}

/** Tells what could stand at a place: its id there, its name, and the model whose units are the stock. */
export function optionsAt(library: Library, place: ChainPlace): { id: string; name: string; modelId: string }[] {
  if (place === 'port')
    return [...library.host.values()].flatMap((host) =>
      host.ports.map((port) => ({
        id: portOption(host.id, port.id),
        name: `${host.name} · ${port.label}`,
        modelId: host.id
      }))
    );
  return [...library[place].values()].map(({ id, name }) => ({ id, name, modelId: id }));
}

/**
 * Gives the option before or after the one that is picked, round and round; the first or the last where none is.
 * @param step 1 or -1
 * @example stepAt([{ id: 'a' }, { id: 'b' }], 'b', 1) // 'a'
 */
export function stepAt(
  options: readonly { id: string }[],
  picked: string | undefined,
  step: 1 | -1
): string | undefined {
  if (options.length === 0) return undefined;
  const at = options.findIndex(({ id }) => id === picked);
  const next = at < 0 ? (step > 0 ? 0 : options.length - 1) : (at + step + options.length) % options.length;
  return options[next]?.id;
}

/**
 * Chooses what need not be asked: the part of which there is only one, of a computer its fastest port.
 * @example obviousChoice(libraryOf([], [])) // {}
 */
export function obviousChoice(library: Library): Partial<Choice> {
  const only = <T>(among: ReadonlyMap<string, T>): T | undefined =>
    among.size === 1 ? [...among.values()][0] : undefined;
  const [host, cable] = [only(library.host), only(library.cable)];
  const [enclosure, drive] = [only(library.enclosure), only(library.drive)];
  const port =
    host && [...host.ports].sort((a, b) => LINK_MODES[bestOf(b.modes)].rank - LINK_MODES[bestOf(a.modes)].rank)[0];
  return {
    ...(host && port ? { hostId: host.id, portId: port.id } : {}),
    // A cable that does not fit the port is no obvious one.
    ...(cable && port && cable.ends.includes(port.plug) ? { cableId: cable.id } : {}),
    ...(enclosure ? { enclosureId: enclosure.id } : {}),
    ...(drive ? { driveId: drive.id } : {})
  };
}
