import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { cruise, type ICruiseOptions, type ICruiseResult } from 'dependency-cruiser';
import extractTSConfig from 'dependency-cruiser/config-utl/extract-ts-config';

const root = fileURLToPath(new URL('../..', import.meta.url));
const PAGE = join(root, 'docs/architecture.md');
const [BEGIN, END] = ['<!-- rooms: begin -->', '<!-- rooms: end -->'];

/** Reads what imports what, of the core and the sources, and holds it against the rules. */
export async function cruised(): Promise<ICruiseResult> {
  const { options, ...ruleSet } = createRequire(import.meta.url)(join(root, '.dependency-cruiser.cjs')) as {
    options: ICruiseOptions;
  };
  const { output } = await cruise(['core', 'src'], { ...options, ruleSet, validate: true, baseDir: root }, undefined, {
    tsConfig: extractTSConfig(join(root, 'tsconfig.rooms.json'))
  });
  return output as ICruiseResult;
}

/** Names the room of a file; undefined for what is no room of this house. */
function roomOf(path: string): string | undefined {
  const inside = /^core\/([^/]+)\/|^src\/lib\/(server\/[^/]+)\/|^src\/lib\/(client|ui)\/|^src\/(routes)\//.exec(path);
  return inside?.slice(1).find(Boolean);
}

/** Lists which room uses which, without what follows from the rest: where a uses b and b uses c, that a uses c is not drawn. */
export function roomEdges({ modules }: ICruiseResult): [string, string][] {
  const uses = new Map<string, Set<string>>();
  for (const { source, dependencies } of modules)
    for (const { resolved } of dependencies) {
      const [from, to] = [roomOf(source), roomOf(resolved)];
      if (from && to && from !== to) uses.set(from, (uses.get(from) ?? new Set()).add(to));
    }
  const reaches = (from: string, to: string, seen = new Set<string>()): boolean =>
    [...(uses.get(from) ?? [])].some((next) => {
      if (next === to) return true;
      if (seen.has(next)) return false;
      seen.add(next);
      return reaches(next, to, seen);
    });
  const direct = [...uses].flatMap(([from, tos]) => [...tos].map((to): [string, string] => [from, to]));
  return direct
    .filter(([from, to]) => ![...uses.get(from)!].some((other) => other !== to && reaches(other, to)))
    .sort(([a, b], [c, d]) => (a === c ? (b < d ? -1 : 1) : a < c ? -1 : 1));
}

/** Draws the rooms as a Mermaid chart. */
export function drawn(edges: readonly [string, string][]): string {
  const name = (room: string) => room.replace(/\W/g, '_');
  const rooms = [...new Set(edges.flat())].sort();
  const box = (room: string) => `    ${name(room)}["${room.replace('server/', '')}"]`;
  const isServer = (room: string) => room.startsWith('server/');
  const isOuter = (room: string) => ['client', 'ui', 'routes'].includes(room);
  return [
    '```mermaid',
    'flowchart BT',
    '  subgraph core',
    ...rooms.filter((room) => !isServer(room) && !isOuter(room)).map(box),
    '  end',
    '  subgraph server',
    ...rooms.filter(isServer).map(box),
    '  end',
    ...rooms.filter(isOuter).map(box),
    ...edges.map(([from, to]) => `  ${name(from)} --> ${name(to)}`),
    '```'
  ].join('\n');
}

const parts = (text: string) => {
  const [begin, end] = [text.indexOf(BEGIN) + BEGIN.length, text.indexOf(END)];
  return { before: text.slice(0, begin), picture: text.slice(begin, end).trim(), after: text.slice(end) };
};

/** Gives the picture as it stands in docs/architecture.md. */
export const pictureInDocs = (): string => parts(readFileSync(PAGE, 'utf8')).picture;

/** Draws the picture anew into docs/architecture.md. */
export async function drawRooms(): Promise<void> {
  const { before, after } = parts(readFileSync(PAGE, 'utf8'));
  writeFileSync(PAGE, `${before}\n\n${drawn(roomEdges(await cruised()))}\n\n${after}`);
}
