import type { FilesystemId } from '../facts/filesystems.ts';
import { chosenOption } from '../house-rules/house-rules.ts';
import { makes } from '../erase/makers.ts';
import { planVolumes } from './volumes.ts';
import { suggestVolumeName, volumeNameProblem } from '../erase/volume-name.ts';
import type { Os } from '../parts/host.ts';
import type { PlanInput, PlanReport } from '../plan/report.ts';
import { FORMATTERS, looksLikeKey, type FormatChoices, type Formatter, type Volume } from '../sheets/format-choices.ts';
import type { Entry } from '../sheets/progress.ts';

/** Everything that is settled about formatting one drive: what was chosen, else what is advised. */
export type Settled = {
  system: { family: Formatter; version?: string | undefined };
  /** Whether the build's own computer formats no drive, so that another system is assumed. */
  elsewhere: boolean;
  filesystem: FilesystemId;
  scheme: 'gpt' | 'mbr';
  allocationUnit: string | undefined;
  variant: 'case-sensitive' | undefined;
  name: string;
  full: boolean;
  encryption: 'none' | 'system' | 'container';
  keyPlace: string | undefined;
  policy: 'performance' | 'quick-removal';
  volumes: readonly Volume[];
  shared: boolean;
  /** How much the drive has, GB (10^9 bytes). */
  diskGB: number;
};

const isFormatter = (family: Os['family']): family is Formatter & Os['family'] =>
  (FORMATTERS as readonly string[]).includes(family);

/** Which system stands in for one that formats nothing. */
const INSTEAD: Partial<Record<Os['family'], Formatter>> = { ipados: 'macos', ios: 'macos' };

const encryptionOf = (input: PlanInput, report: Pick<PlanReport, 'filesystem'>): Settled['encryption'] => {
  const { job, houseRules } = input;
  const wanted = job?.encrypt ?? (job?.carried === true && chosenOption('encrypt', houseRules) === 'yes');
  if (!wanted) return 'none';
  const said = report.filesystem.first.because.join(' ');
  // Where a simple device has to write, neither can be.
  return said.includes('encrypted container') ? 'container' : said.includes('own encryption') ? 'system' : 'none';
};

/**
 * Puts together what is settled about formatting the drive of a build.
 * @param title what the build is called, for a name of its volume
 * @example settle(anInput(), plan(anInput()), {}, 'Scan day').filesystem // 'ext4'
 */
// eslint-disable-next-line complexity -- one choice after the other, each with what is advised for it
export function settle(
  input: PlanInput,
  report: Pick<PlanReport, 'filesystem'>,
  choices: FormatChoices,
  title: string
): Settled {
  const { first } = report.filesystem;
  const { family, version } = input.host.os;
  const own = isFormatter(family);
  const filesystem = choices.filesystem ?? first.filesystem;
  const advised = filesystem === first.filesystem;
  return {
    system: choices.system ?? (own ? { family, version } : { family: INSTEAD[family] ?? 'windows' }),
    elsewhere: !own && choices.system === undefined,
    filesystem,
    scheme: choices.scheme ?? first.scheme,
    allocationUnit: (choices.allocationUnit ?? (advised ? first.allocationUnit : undefined)) || undefined,
    variant: advised ? first.variant : undefined,
    name: choices.name ?? suggestVolumeName(title, filesystem),
    full: choices.full ?? false,
    encryption: choices.encryption ?? encryptionOf(input, report),
    keyPlace: choices.keyPlace || undefined,
    policy:
      choices.policy ??
      input.writeCache ??
      (chosenOption('write-cache', input.houseRules) === 'quick-removal' ? 'quick-removal' : 'performance'),
    volumes: choices.volumes ?? [],
    shared: choices.shared ?? filesystem === 'apfs',
    diskGB: input.drive.capacityTB * 1000
  };
}

/**
 * Tells what of these choices cannot be, each at its field.
 * @example choiceProblems({ name: 'A B' }, settle(anInput(), plan(anInput()), { name: 'A B' }, ''))[0].path // 'name'
 */
export function choiceProblems(choices: FormatChoices, settled: Settled): { path: string; message: string }[] {
  const { filesystem, name, system, scheme } = settled;
  const problems: { path: string; message: string }[] = [];
  const wrong = volumeNameProblem(name, filesystem);
  if (wrong) problems.push({ path: 'name', message: wrong });
  if (choices.keyPlace !== undefined && looksLikeKey(choices.keyPlace))
    problems.push({ path: 'keyPlace', message: 'looks like the key itself: write only where it lies, never the key' });
  if (system.family !== 'chromeos' && !makes(system.family, filesystem))
    problems.push({ path: 'filesystem', message: 'is not made by that system with its own tools' });
  if (system.family === 'chromeos' && !['exfat', 'ntfs', 'fat32'].includes(filesystem))
    problems.push({ path: 'filesystem', message: 'is not made by ChromeOS' });
  if ((choices.volumes ?? []).length > 1)
    problems.push(...planVolumes(settled.volumes, { ...settled, system: system.family }).problems);
  if (filesystem === 'apfs' && scheme === 'mbr')
    problems.push({ path: 'scheme', message: 'is none for APFS, which lies in a GPT' });
  return problems;
}

/**
 * Gives the choices that were made on a sheet, the later over the earlier.
 * @example choicesMade([]) // {}
 */
export const choicesMade = (entries: readonly Pick<Entry, 'answer'>[]): FormatChoices =>
  entries.reduce<FormatChoices>(
    (choices, { answer }) => (answer?.question === 'format' ? { ...choices, ...answer.value } : choices),
    {}
  );
