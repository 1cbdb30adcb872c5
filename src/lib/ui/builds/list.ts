import { STAGE_LABEL, STAGES, type BuildStage } from '#core/build/stages';
import { VERDICT_ORDER, type Verdict } from '#core/findings/finding';
import type { Band } from '#core/quantities/band';
import type { Comparison } from '#core/results/compare';

/** A build as the list shows it. */
export type ListedBuild = {
  id: string;
  tag: string;
  name: string;
  stage: BuildStage;
  verdict: Verdict;
  outdated: boolean;
  parts: { host: string; port: string; cable?: string | undefined; enclosure: string; drive: string };
  write: Band | null;
  perTB?: { amount: number; currency: string } | null | undefined;
  latest?: { date: string; simulated: boolean; comparisons: readonly Comparison[] } | null | undefined;
};

/** The newest measured write of a build, held against its forecast. */
export const measuredWrite = ({ latest }: Pick<ListedBuild, 'latest'>): Comparison | undefined =>
  latest?.comparisons.find(({ field }) => field === 'writeMBps');

/** What the list can be sorted by, in the order of its columns. */
export const BUILD_SORTS: Readonly<
  Record<string, { label: string; by: (row: ListedBuild) => number | string; number?: boolean }>
> = {
  tag: { label: 'Build', by: (row) => row.tag },
  stage: { label: 'Stage', by: (row) => STAGES.indexOf(row.stage) },
  verdict: { label: 'Verdict', by: (row) => -VERDICT_ORDER[row.verdict] },
  write: { label: 'Write, forecast', by: (row) => row.write?.typical ?? -1, number: true },
  measured: { label: 'Write, measured', by: (row) => measuredWrite(row)?.measured ?? -1, number: true },
  price: { label: 'Per TB', by: (row) => row.perTB?.amount ?? Infinity, number: true }
};

/**
 * Gives the builds that hold every word, in their name, tag, stage or parts, sorted; builds alike stand by their tags.
 * @param sort one of BUILD_SORTS; anything else sorts by tag
 */
export function listedBuilds<Row extends ListedBuild>(
  builds: readonly Row[],
  { find, sort, down }: { find: string; sort: string; down: boolean }
): Row[] {
  const by = (Object.hasOwn(BUILD_SORTS, sort) ? BUILD_SORTS[sort] : undefined)?.by ?? ((row: ListedBuild) => row.tag);
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const text = (row: Row) =>
    [row.tag, row.name, STAGE_LABEL[row.stage], ...Object.values(row.parts)].join(' ').toLowerCase();
  return builds
    .filter((row) => words.every((word) => text(row).includes(word)))
    .sort((a, b) => {
      const [x, y] = [by(a), by(b)];
      return (x < y ? -1 : x > y ? 1 : a.tag < b.tag ? -1 : 1) * (down ? -1 : 1);
    });
}
