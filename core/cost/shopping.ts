/* eslint-disable @typescript-eslint/no-non-null-assertion -- what is bought has one offer at least */
import type { ExchangeRate } from '../parts/exchange-rate.ts';
import type { Quote } from '../parts/quote.ts';
import type { UnitState } from '../parts/item.ts';
import { exchange } from './convert.ts';
import { deliveredPrice } from './delivered-price.ts';

/** One thing that a build needs. */
export type Need = {
  role: 'host' | 'cable' | 'enclosure' | 'drive' | 'pad';
  name: string;
  modelId?: string | undefined;
  /** What it comes in the box of. */
  inBoxOf?: string;
};
export type AtHand = {
  modelId: string;
  tag: string;
  state: UnitState;
  buildId?: string;
  location?: string;
  custodian?: string;
};
export type PriceOffer = {
  vendor: string;
  date: string;
  currency: string;
  /** In the crate's currency. */
  goods: number;
  shipping: number;
  landed: number;
  expired: boolean;
};
export type ShoppingLine = Need & {
  state: 'owned' | 'ordered' | 'in-the-box' | 'to-buy';
  unit?: AtHand;
  offers: PriceOffer[];
  /** Quotes in currencies for which no rate was entered: they cannot be compared. */
  unconverted: string[];
};
export type Parcel = { vendor: string; names: string[]; goods: number; shipping: number; total: number };
export type ShoppingList = {
  lines: ShoppingLine[];
  /** Every part from where it lands cheapest, each with its own shipping. */
  separate: { parcels: Parcel[]; total: number };
  /** The cheapest split when a vendor sends what it sells in one parcel, with the dearest of its shippings once. */
  together: { parcels: Parcel[]; total: number };
  /** To be bought, and nobody has quoted it. */
  unpriced: string[];
  currency: string;
};

/** Most assignments of parts to vendors that are tried; beyond it every part goes where it lands cheapest. */
const TRIES = 200_000;

/** Lists what a part costs at each vendor, from its newest price there, in the currency of the crate; expired ones last. */
function offersFor(
  modelId: string,
  { quotes, currency, rates, today }: Pick<ShoppingInput, 'quotes' | 'currency' | 'rates' | 'today'>
) {
  const newest = new Map<string, Quote>();
  for (const quote of quotes) {
    if (quote.partId !== modelId) continue;
    const known = newest.get(quote.vendor);
    if (
      !known ||
      quote.date > known.date ||
      (quote.date === known.date && deliveredPrice(quote) < deliveredPrice(known))
    )
      newest.set(quote.vendor, quote);
  }
  const offers: PriceOffer[] = [];
  const unconverted: string[] = [];
  for (const quote of newest.values()) {
    const landed = exchange(deliveredPrice(quote), quote.currency, currency, rates);
    const goods = exchange(deliveredPrice({ ...quote, shipping: 0 }), quote.currency, currency, rates);
    if (!landed || !goods) {
      unconverted.push(`${quote.vendor}, ${quote.currency}`);
      continue;
    }
    offers.push({
      vendor: quote.vendor,
      date: quote.date,
      currency: quote.currency,
      goods: goods.amount,
      shipping: landed.amount - goods.amount,
      landed: landed.amount,
      expired: quote.expires !== undefined && quote.expires < today
    });
  }
  offers.sort(
    (a, b) => Number(a.expired) - Number(b.expired) || a.landed - b.landed || a.vendor.localeCompare(b.vendor)
  );
  return { offers, unconverted };
}

function parcelsOf(
  picks: readonly { name: string; offer: PriceOffer }[],
  shippingOnce: boolean
): { parcels: Parcel[]; total: number } {
  const byVendor = new Map<string, Parcel>();
  for (const { name, offer } of picks) {
    const parcel = byVendor.get(offer.vendor) ?? { vendor: offer.vendor, names: [], goods: 0, shipping: 0, total: 0 };
    parcel.names.push(name);
    parcel.goods += offer.goods;
    parcel.shipping = shippingOnce ? Math.max(parcel.shipping, offer.shipping) : parcel.shipping + offer.shipping;
    parcel.total = parcel.goods + parcel.shipping;
    byVendor.set(offer.vendor, parcel);
  }
  const parcels = [...byVendor.values()].sort((a, b) => a.vendor.localeCompare(b.vendor));
  return { parcels, total: parcels.reduce((sum, parcel) => sum + parcel.total, 0) };
}

/** Cheapest assignment of parts to vendors with one shipping per vendor; exact while there are few enough. */
function cheapestTogether(lines: readonly ShoppingLine[]): { parcels: Parcel[]; total: number } {
  const choices = lines.map(({ name, offers }) => {
    const valid = offers.filter((offer) => !offer.expired);
    return (valid.length > 0 ? valid : offers).map((offer) => ({ name, offer }));
  });
  let count = 1;
  for (const options of choices) count *= options.length;
  if (count > TRIES)
    return parcelsOf(
      choices.map((options) => options[0]!),
      true
    );
  let best: { parcels: Parcel[]; total: number } | undefined;
  const picks: { name: string; offer: PriceOffer }[] = [];
  const walk = (at: number) => {
    if (at === choices.length) {
      const split = parcelsOf(picks, true);
      // A tie goes to fewer parcels.
      if (
        !best ||
        split.total < best.total - 1e-9 ||
        (split.total < best.total + 1e-9 && split.parcels.length < best.parcels.length)
      )
        best = split;
      return;
    }
    for (const option of choices[at]!) {
      picks.push(option);
      walk(at + 1);
      picks.pop();
    }
  };
  walk(0);
  return best!;
}

/** What a shopping list is made from. */
export type ShoppingInput = {
  needs: readonly Need[];
  units: readonly AtHand[];
  quotes: readonly Quote[];
  rates: readonly ExchangeRate[];
  currency: string;
  buildId?: string;
  today: string;
};

/**
 * Lists what a build needs, what of it is there, and where the rest costs least.
 * @param buildId units in this build count for it; units in another build do not, hosts aside: one host serves many builds
 * @param today ISO date; quotes that have run out are used only where there is no other
 * @example shoppingList({ needs: [], units: [], quotes: [], rates: [], currency: 'EUR', today: '2026-11-27' }).lines // []
 */
export function shoppingList(args: ShoppingInput): ShoppingList {
  const { needs, units, quotes, rates, currency, buildId, today } = args;
  const used = new Set<string>();
  const unitFor = (need: Need): AtHand | undefined => {
    const fitting = units.filter(
      (unit) =>
        unit.modelId === need.modelId &&
        !used.has(unit.tag) &&
        (unit.state === 'owned' || unit.state === 'ordered') &&
        (need.role === 'host' || unit.buildId === undefined || unit.buildId === buildId)
    );
    const rank = (unit: AtHand) =>
      (unit.buildId === buildId && buildId !== undefined ? 0 : 2) + (unit.state === 'owned' ? 0 : 1);
    return fitting.sort((a, b) => rank(a) - rank(b) || a.tag.localeCompare(b.tag))[0];
  };
  const lines = needs.map((need): ShoppingLine => {
    if (need.inBoxOf) return { ...need, state: 'in-the-box', offers: [], unconverted: [] };
    const unit = need.modelId === undefined ? undefined : unitFor(need);
    if (unit) used.add(unit.tag);
    const priced =
      need.modelId === undefined
        ? { offers: [], unconverted: [] }
        : offersFor(need.modelId, { quotes, currency, rates, today });
    return {
      ...need,
      ...priced,
      ...(unit ? { unit } : {}),
      // A computer is what one builds for; it is never bought for a build.
      state: unit ? (unit.state === 'owned' ? 'owned' : 'ordered') : need.role === 'host' ? 'owned' : 'to-buy'
    };
  });
  const buying = lines.filter((line) => line.state === 'to-buy' && line.offers.length > 0);
  return {
    lines,
    separate: parcelsOf(
      buying.map(({ name, offers }) => ({ name, offer: offers[0]! })),
      false
    ),
    together: cheapestTogether(buying),
    unpriced: lines.filter((line) => line.state === 'to-buy' && line.offers.length === 0).map(({ name }) => name),
    currency
  };
}
