import type { Knex } from 'knex';
import { needsOf } from '#core/cost/needs';
import { padsWanted } from '#core/plan/report-parts';
import { shoppingList, type ShoppingList } from '#core/cost/shopping';
import { buildNow, loadLibrary } from './planning';
import type { Crate } from '../repositories/crates';
import type { StoredBuild } from '../repositories/builds';
import { listUnits } from '../repositories/units';

/** What of a build is there and where the rest costs least, from its parts as they are now. */
export async function shoppingFor(
  db: Knex,
  args: { crate: Crate; build: StoredBuild; today: string }
): Promise<ShoppingList & { checks: string[] }> {
  const { crate, build, today } = args;
  const library = await loadLibrary(db, crate.id, [build.choice]);
  const { snapshot, report } = buildNow(library, build);
  const { needs, checks } = needsOf(
    {
      ...snapshot,
      padsMm: padsWanted(report),
      padMissing: report.findings.some(({ code }) => code === 'pad-none-fits')
    },
    library.pads
  );
  const ids = needs.flatMap((need) => need.modelId ?? []);
  const units = await listUnits(db, { crateId: crate.id, modelIds: ids });
  const list = shoppingList({
    needs,
    units: units.map(({ unit }) => unit),
    quotes: library.quotes.filter(({ partId }) => ids.includes(partId)),
    rates: library.exchange.rates,
    currency: library.exchange.currency,
    buildId: build.id,
    today
  });
  return { ...list, checks };
}
