import { assemble, type Library } from '#core/build/assemble';
import type { Member } from '#core/compare/together/together';
import { taskOf, type Named, type Seat } from './state';

/** Builds on their ports as the core takes them, which seat each is, and those whose parts are gone, in words. */
export type Seated = { members: Member[]; at: number[]; gone: string[] };

/** Puts builds on the ports of a computer; one of which a part is gone is left out, and said so. */
export function seatedOn(
  hostId: string,
  seats: readonly Seat[],
  { builds, library }: { builds: readonly Named[]; library: Library }
): Seated {
  const at: number[] = [];
  const gone: string[] = [];
  const inputs = seats.flatMap((seat, i) => {
    const build = builds.find(({ tag }) => tag === seat.tag);
    if (!build) return [];
    const { jobId: _job, ...choice } = build.choice;
    const whole = assemble(library, { ...choice, hostId, portId: seat.portId });
    if (!whole.ok) {
      gone.push(`${seat.tag}: ${whole.missing[0]?.message ?? 'a part is gone'}`);
      return [];
    }
    at.push(i);
    return [{ seat, name: `${build.tag} ${build.name}`, input: whole.input }];
  });
  const known = inputs.map(({ seat }) => seat);
  return { members: inputs.map(({ seat, name, input }) => ({ name, input, task: taskOf(seat, known) })), at, gone };
}
