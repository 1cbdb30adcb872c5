import type { ComponentProps } from 'svelte';
import type { BuildStage } from '#core/build/stages';
import type { Verdict } from '#core/findings/finding';
import type { Comparison } from '#core/results/compare';
import type BuildLane from '../common/BuildLane.svelte';

/** What a list shows of a build that was judged. */
export type JudgedBuild = ComponentProps<typeof BuildLane>['build'] & {
  verdict: Verdict;
  outdated: boolean;
  parts: { host: string; port: string; cable?: string | undefined; enclosure: string; drive: string };
  perTB?: { amount: number; currency: string } | null | undefined;
  latest?: { date: string; simulated: boolean; comparisons: readonly Comparison[] } | undefined;
};
/** A build as the list shows it; `row` is null while it is being judged. */
export type ListedBuild = { id: string; tag: string; name: string; stage: BuildStage; row: JudgedBuild | null };

/** The newest measured write of a build, held against its forecast. */
export const measuredWrite = ({ latest }: Pick<JudgedBuild, 'latest'>): Comparison | undefined =>
  latest?.comparisons.find(({ field }) => field === 'writeMBps');

/** What the list can be sorted by, in the order of its columns. */
export const BUILD_COLUMNS: Readonly<Record<string, { label: string; number?: boolean }>> = {
  tag: { label: 'Build' },
  stage: { label: 'Stage' },
  verdict: { label: 'Verdict' },
  write: { label: 'Write, forecast', number: true },
  measured: { label: 'Write, measured', number: true },
  price: { label: 'Per TB', number: true }
};
