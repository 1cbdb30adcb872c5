import type { Knex } from 'knex';
import { shoppingList, type Need, type ShoppingList } from '#core/cost/shopping';
import type { Crate } from './repositories/crates';
import type { StoredBuild } from './repositories/builds';
import { listSpecs } from './repositories/models';
import { listQuotes } from './repositories/quotes';
import { listRates } from './repositories/rates';
import { listUnits } from './repositories/units';

/** What a build needs, from its chosen parts, the boxes they come in and the pads its plan asks for. */
export function needsOf(
  build: StoredBuild,
  pads: readonly { id: string; name: string; thicknessMm: number }[]
): { needs: Need[]; checks: string[] } {
  const { host, cable, enclosure, drive } = build.snapshot;
  const needs: Need[] = [
    { role: 'host', name: host.name, modelId: host.id },
    { role: 'drive', name: drive.name, modelId: drive.id },
    { role: 'enclosure', name: enclosure.name, modelId: enclosure.id }
  ];
  const checks: string[] = [];
  if (cable) needs.push({ role: 'cable', name: cable.name, modelId: cable.id });
  else if (enclosure.captiveCable) needs.push({ role: 'cable', name: 'Fixed cable', inBoxOf: enclosure.name });
  else if (enclosure.includedCables?.[0])
    needs.push({ role: 'cable', name: enclosure.includedCables[0].name, inBoxOf: enclosure.name });
  else needs.push({ role: 'cable', name: 'A cable that fits: none is chosen and none is in the box' });
  const wanted = new Set(build.report.stack.components.flatMap((component) => component.pads));
  for (const thicknessMm of wanted) {
    const boxed = enclosure.includedPads?.find((pad) => pad.thicknessMm === thicknessMm);
    const stock = pads.find((pad) => pad.thicknessMm === thicknessMm);
    if (boxed) needs.push({ role: 'pad', name: boxed.name, inBoxOf: enclosure.name });
    else
      needs.push({
        role: 'pad',
        name: stock?.name ?? `Pad of ${thicknessMm} mm`,
        ...(stock ? { modelId: stock.id } : {})
      });
  }
  if (build.report.findings.some((finding) => finding.code === 'pad-none-fits'))
    checks.push('No pad at hand closes the gap: see the pad finding of the plan for the thickness to buy.');
  if (enclosure.retention === 'screw')
    checks.push(
      'A small screwdriver; the screw for the drive is usually in the box of the enclosure. Look before you start.'
    );
  if (enclosure.retention === undefined && enclosure.formFactor === 'm2')
    checks.push('Whether the drive is held by a screw is not noted: have a small screwdriver ready.');
  if (enclosure.formFactor === '2.5in' && enclosure.retention !== 'tool-less')
    checks.push('Four screws for a 2.5-inch drive, and their driver.');
  if (enclosure.externalSupply)
    checks.push('The power supply of the enclosure, and a free socket near the desk. Never open a supply.');
  checks.push('Bare metal to touch before the drive: static harms it.');
  return { needs, checks };
}

export async function shoppingFor(
  db: Knex,
  args: { crate: Crate; build: StoredBuild; today: string }
): Promise<ShoppingList & { checks: string[] }> {
  const { crate, build, today } = args;
  const pads = (await listSpecs(db, { crateId: crate.id, kind: 'pad' })).flatMap((spec) =>
    spec.kind === 'pad' ? [{ id: spec.id, name: spec.name, thicknessMm: spec.thicknessMm }] : []
  );
  const { needs, checks } = needsOf(build, pads);
  const ids = needs.flatMap((need) => (need.modelId ? [need.modelId] : []));
  const [units, quotes, rates] = await Promise.all([
    listUnits(db, { crateId: crate.id }),
    listQuotes(db, { crateId: crate.id, partIds: ids }),
    listRates(db, crate.id)
  ]);
  const list = shoppingList({
    needs,
    units: units.map(({ unit }) => unit).filter((unit) => ids.includes(unit.modelId)),
    quotes: quotes.map(({ quote }) => quote),
    rates: rates.map(({ rate }) => rate),
    currency: crate.currency,
    buildId: build.id,
    today
  });
  return { ...list, checks };
}
