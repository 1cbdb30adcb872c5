import { counted } from '#core/quantities/format';

/**
 * Says what went with a part that was deleted, and which builds use it.
 * @param usedBy tags of builds
 * @example deletedWords('Karst', 1, ['AC-0001']) // 'Deleted Karst and its 1 price. AC-0001 uses it and keeps its plan.'
 */
export function deletedWords(name: string, prices: number, usedBy: readonly string[]): string {
  const all = usedBy.join(', ');
  const used =
    usedBy.length === 0
      ? ''
      : usedBy.length === 1
        ? ` ${all} uses it and keeps its plan.`
        : ` ${all} use it and keep their plans.`;
  return `Deleted ${name}${prices > 0 ? ` and its ${counted(prices, 'price')}` : ''}.${used}`;
}
