import { forPage } from '$lib/server/pages/page';
import { loadLibrary } from '$lib/server/planning/planning';
import { buildsPerHost, choicesByTag, choicesOnHost, findBuilds } from '$lib/server/repositories/builds';
import { listHosts } from '$lib/server/repositories/models';
import { busiestHost, MOST_SEATS, seatTags } from '$lib/ui/together/state';

/** More builds than this are looked for by their names. */
const PICKED_FROM = 60;
/** So many computers are offered. */
const HOSTS = 200;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const asked = url.searchParams.get('host') ?? '';
  const seated = seatTags(url.searchParams.get('with') ?? '');
  return forPage(async (db) => {
    const [hosts, counts] = await Promise.all([listHosts(db, crate.id), buildsPerHost(db, crate.id)]);
    const host = hosts.find(({ id }) => id === asked) ?? busiestHost(hosts, counts);
    const offered = await findBuilds(db, { crateId: crate.id, limit: PICKED_FROM, inUse: true });
    const whole = offered.total <= offered.builds.length;
    const [own, others] = await Promise.all([
      host ? choicesOnHost(db, { crateId: crate.id, hostId: host.id, limit: MOST_SEATS }) : [],
      // Of a large crate those that stand on a port are loaded; the others have their names alone.
      choicesByTag(db, crate.id, whole ? [...seated, ...offered.builds.map(({ tag }) => tag)] : seated)
    ]);
    const builds = [...new Map([...own, ...others].map((build) => [build.tag, build])).values()].sort((a, b) =>
      a.tag < b.tag ? -1 : 1
    );
    const library = await loadLibrary(db, crate.id, [
      ...builds.map(({ choice }) => choice),
      ...(host ? [{ hostId: host.id }] : [])
    ]);
    const shown = hosts.filter(({ id }) => (counts.get(id) ?? 0) > 0 || hosts.length <= HOSTS).slice(0, HOSTS);
    return {
      library,
      builds,
      offered: offered.builds,
      total: offered.total,
      hostId: host?.id ?? '',
      hosts: (host && !shown.includes(host) ? [host, ...shown] : shown).map(({ id, name }) => ({ id, name }))
    };
  });
}
