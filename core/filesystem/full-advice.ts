import type { FilesystemId } from '../facts/filesystems.ts';
import { quantity } from '../quantities/format.ts';
import {
  systemsOf,
  type AdvisedFilesystem,
  type AdviceInput,
  type FilesystemAdvice,
  type FilesystemPick
} from './advise.ts';
import { clusterBytes, clusterText } from '../erase/allocation-unit.ts';
import { defaultCluster, expectedSlack, type Slack } from './clusters.ts';
import { lossesOf } from './losses.ts';
import { waysOut } from './ways.ts';

/** The advice with everything that is told of it. */
export type FullAdvice = Omit<FilesystemAdvice, 'others'> & {
  others: (FilesystemPick & { loses: string })[];
  ways?: string[];
  slack?: SlackAdvice;
};
export type SlackAdvice = Slack & { cluster: number; text: string };

/** Says how much room the ends of files take, where the job says how many there are. */
function slackFor(
  { filesystem, allocationUnit }: FilesystemPick,
  { job, capacityTB }: AdviceInput
): SlackAdvice | undefined {
  if (!job?.files) return undefined;
  const cluster = allocationUnit ? clusterBytes(allocationUnit) : defaultCluster(filesystem, capacityTB);
  const slack = expectedSlack(job.files, (job.transferGB * 1e9) / job.files, cluster);
  return {
    ...slack,
    cluster,
    text: `With units of ${clusterText(cluster)}, each of ${job.files} files leaves about ${quantity(slack.perFile / 1024, 'KiB')} unused: ${quantity(slack.bytes / 1e9, 'GB')} in all, ${quantity(slack.share * 100, '%')} of what is copied.`
  };
}

/** What was said of two filesystems for the same systems: lists plan hundreds of builds, of which few differ in this. */
const said = new Map<string, string>();
const MOST_SAID = 4000;

/** Says what is lost by another filesystem, once for all builds that are alike in it. */
function losesFor(id: FilesystemId, first: FilesystemId, asked: string, words: () => string): string {
  const key = `${id} ${first} ${asked}`;
  let known = said.get(key);
  if (known === undefined) {
    if (said.size > MOST_SAID) said.clear();
    known = words();
    said.set(key, known);
  }
  return known;
}

/**
 * Completes an advice: what is lost by each of the others, what the ends of files take, and the ways out where none does all.
 * @param advised what was advised for this input
 * @example fullAdvice(input, adviseFilesystem(input)).others[0]?.loses
 */
export function fullAdvice(input: AdviceInput, advised: AdvisedFilesystem): FullAdvice {
  const { advice } = advised;
  const systems = systemsOf(input.host, input.job);
  const first: FilesystemId = advice.first.filesystem;
  const slack = slackFor(advice.first, input);
  const encrypt = input.job?.encrypt === true;
  let asked = `${input.media} ${encrypt} ${systems.families.join()}`;
  for (const { family, version } of systems.writers) asked += ` ${family}${version ?? ''}`;
  return {
    ...advice,
    others: advice.others.map((pick) => ({
      ...pick,
      loses: losesFor(pick.filesystem, first, asked, () =>
        lossesOf(pick.filesystem, first, systems, input.media, encrypt)
      )
    })),
    ...(advice.none ? { ways: waysOut(input, advised, systems) } : {}),
    ...(slack ? { slack } : {})
  };
}
