import { toPayOf } from '#core/answers/of-build';
import type { LaidPlan } from '#core/answers/side-by-side';
import { assemble, type Library } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import { plan } from '#core/plan/plan';
import { choiceFromQuery, choiceToQuery } from '../pair/slots';

export type BuildOf = { tag: string; name: string; choice: Choice };
/** A plan that is laid beside others: what the address calls it, and the plan, or what is missing for one. */
export type PlanColumn = { key: string; name: string; href: string; plan: LaidPlan | null; missing: string };

/** So many columns can be read beside each other. */
export const MOST_COLUMNS = 4;

/** The keys in an address: tags of builds, or choices as the address of Pair keeps them; each once. */
export const columnKeys = (query: URLSearchParams): string[] =>
  [...new Set(query.getAll('plan').filter((key) => key !== '' && key.length <= 400))].slice(0, MOST_COLUMNS);

/** The address of a comparison. */
export const compareHref = (home: string, keys: readonly string[]): string =>
  `${home}/compare?${new URLSearchParams(keys.map((key) => ['plan', key]))}`;

/** The key of a choice that is no build, or no longer what the build holds. */
export const choiceKey = (choice: Partial<Choice>): string => choiceToQuery(choice);

/** Plans what a key stands for; letters tell apart what has no name of its own. */
export function columnOf(library: Library, builds: readonly BuildOf[], home: string, key: string): PlanColumn {
  const build = builds.find(({ tag }) => tag === key);
  const choice = build?.choice ?? choiceFromQuery(new URLSearchParams(key));
  const whole = assemble(library, choice);
  const href = build ? `/b/${build.tag}/pair` : `${home}/pair?${choiceToQuery(choice)}`;
  if (!whole.ok)
    return {
      key,
      name: build?.name ?? key.slice(0, 60),
      href,
      plan: null,
      missing: whole.missing.map((m) => m.message).join(' ')
    };
  const { input } = whole;
  const name = build ? `${build.tag} ${build.name}` : `${input.drive.name} in ${input.enclosure.name}`;
  const report = plan(input, { workings: false });
  const toPay = toPayOf(library, { input, report, tag: build?.tag });
  return { key, name, href, plan: { name, input, report, toPay }, missing: '' };
}

/** Says apart what would have one name: by its cable, its port, and then by a number. */
export function namedApart(columns: readonly PlanColumn[]): PlanColumn[] {
  const twice = (name: string, among: readonly string[]) => among.filter((other) => other === name).length > 1;
  const first = columns.map(({ name }) => name);
  const longer = columns.map(({ name, plan: laid }) =>
    laid && twice(name, first)
      ? `${name}, ${laid.input.cable?.name ?? 'cable assumed'} on ${laid.input.host.name}`
      : name
  );
  const names = longer.map((name, i) => (twice(name, longer) ? `${name} (${i + 1})` : name));
  return columns.map((column, i) => {
    const name = names[i] ?? column.name;
    return { ...column, name, plan: column.plan && { ...column.plan, name } };
  });
}
