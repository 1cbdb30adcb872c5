import { forPage, today } from '$lib/server/pages/page';
import { listModels } from '$lib/server/repositories/models';
import { listQuotes } from '$lib/server/repositories/quotes';
import { listRates } from '$lib/server/repositories/rates';

export async function load({ parent }) {
  const { crate } = await parent();
  return forPage(async (db) => {
    const [quotes, models, rates] = await Promise.all([
      listQuotes(db, { crateId: crate.id }),
      listModels(db, { crateId: crate.id }),
      listRates(db, crate.id)
    ]);
    return {
      quotes: quotes.map(({ quote }) => quote),
      parts: models.map(({ id, spec, target }) => ({ id, name: spec.name, kind: spec.kind, target })),
      rates,
      today: today()
    };
  });
}
