import { forPage, today } from '$lib/server/pages/page';
import { listJobs } from '$lib/server/repositories/jobs';
import { listSpecs } from '$lib/server/repositories/models';

export async function load({ parent }) {
  const { crate } = await parent();
  return forPage(async (db) => {
    const [parts, jobs] = await Promise.all([listSpecs(db, { crateId: crate.id }), listJobs(db, crate.id)]);
    const named = <K extends (typeof parts)[number]['kind']>(kind: K) =>
      parts.filter((part): part is Extract<typeof part, { kind: K }> => part.kind === kind);
    return {
      // Names, and what a row shows of a part: the ranking itself is computed elsewhere.
      parts: {
        host: named('host').map(({ id, name, ports }) => ({
          id,
          name,
          ports: ports.map((port) => ({ id: port.id, label: port.label }))
        })),
        cable: named('cable').map(({ id, name }) => ({ id, name })),
        enclosure: named('enclosure').map(({ id, name }) => ({ id, name })),
        drive: named('drive').map(({ id, name, capacityTB }) => ({ id, name, capacityTB })),
        pad: named('pad').map(({ id, name }) => ({ id, name }))
      },
      jobs: jobs.map(({ spec }) => spec),
      today: today()
    };
  });
}
