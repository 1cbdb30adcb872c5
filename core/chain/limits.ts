import type { LinkMode } from '../facts/link-modes.ts';
import { QUICK_REMOVAL_SHARE } from '../facts/flash.ts';
import { ruleName, chosenOption, type HouseRules } from '../house-rules/house-rules.ts';
import type { Finding } from '../findings/finding.ts';
import type { FilledDrive, FilledEnclosure } from '../parts/fill/fill.ts';
import type { Port } from '../parts/host.ts';
import type { MBps } from '../quantities/measures.ts';
import { hasMode, isTunnelled } from './modes.ts';
import { modeRank, type Negotiation } from './negotiate.ts';
import type { WriteCachePolicy } from './write-cache.ts';
import { bottleneckOf, chainStages, generationOf, linkRates, runsUas, type Bottleneck, type Stage } from './stages.ts';

/** A loss below this share is not worth a finding. */
const WORTH_SAYING = 0.1;

type Chain = {
  negotiation: Negotiation;
  mode: LinkMode;
  port: Port;
  enclosure: FilledEnclosure;
  drive: FilledDrive;
  /** Null on systems that always cache. */
  policy: WriteCachePolicy | null;
  stages: readonly Stage[];
  read: Bottleneck;
  write: Bottleneck;
};

/** The same enclosure and drive in a given mode, with an ideal port and cable on the same system, MB/s. */
function idealRates({ enclosure, drive, stages, policy }: Chain, mode: LinkMode): { read: MBps; write: MBps } {
  const slot = stages.find((s) => s.stage === 'slot')!;
  const link = linkRates(mode, generationOf(enclosure), enclosure.uas);
  const share = policy?.policy === 'quick-removal' && isTunnelled(mode) ? QUICK_REMOVAL_SHARE.typical : 1;
  return {
    read: Math.min(link.read.typical, slot.MBps.typical, drive.read.typical),
    write: Math.min(link.write.typical * share, slot.writeMBps.typical, drive.write.typical)
  };
}

/** The write of the chain with something of its port taken away, typical, MB/s. */
const writeWithout = ({ negotiation, mode, enclosure, drive }: Chain, port: Port, quickRemoval: boolean): MBps =>
  bottleneckOf(chainStages(negotiation, mode, port, enclosure, drive, quickRemoval), 'writeMBps').band.typical;

/**
 * Who limits whom. Port, cable and adapter are findings only where they cost more than a tenth against the same enclosure and
 * drive in its best mode, or miss what the job needs; what bridge and drive leave unused is a note.
 */
export function limitFindings(chain: Chain, neededWrite: MBps | undefined, rules: HouseRules | undefined): Finding[] {
  const { negotiation, mode, port, enclosure, drive, stages, read, write, policy } = chain;
  const quickRemoval = policy?.policy === 'quick-removal';
  const findings: Finding[] = [];
  const now = { read: read.band.typical, write: write.band.typical };

  const bestMode = negotiation.best.bridge ?? mode;
  const best = idealRates(chain, bestMode);
  const loss = (a: MBps, b: MBps) => 1 - a / b;
  const missesJob = neededWrite !== undefined && now.write < neededWrite && best.write > now.write * 1.001;
  const costs = loss(now.read, best.read) > WORTH_SAYING || loss(now.write, best.write) > WORTH_SAYING;
  if ((costs || missesJob) && modeRank(bestMode) > modeRank(mode)) {
    // The write is what most jobs wait for; the read is named where only it loses.
    const direction = loss(now.write, best.write) > WORTH_SAYING || missesJob ? 'write' : 'read';
    const parts = (['port', 'cable'] as const).filter((part) => negotiation.limiting.includes(part));
    const alone = parts.filter((part) => modeRank(negotiation.without[part]) > modeRank(mode));
    const lacking = (['port', 'cable'] as const).filter((part) => !hasMode(negotiation.sets[part], bestMode));
    const content =
      neededWrite !== undefined && now.write >= neededWrite && chosenOption('link', rules) === 'by-job'
        ? { enough: { needs: neededWrite, rule: ruleName('link', rules) } }
        : {};
    for (const part of alone.length > 0 ? alone : parts.slice(0, 1)) {
      const wanted = alone.length > 0 ? negotiation.without[part]! : bestMode;
      const other = alone.length > 0 ? undefined : lacking.find((p) => p !== part);
      const facts = {
        now: now[direction],
        best: idealRates(chain, wanted)[direction],
        direction,
        mode,
        wanted,
        ...(other ? { with: other } : {}),
        ...content
      } as const;
      if (part === 'cable') findings.push({ code: 'cable-limits-link', severity: 'limit', about: 'cable', ...facts });
      else if (port.via)
        findings.push({ code: 'adapter-limits-link', severity: 'limit', about: 'port', via: port.via, ...facts });
      else findings.push({ code: 'port-limits-link', severity: 'limit', about: 'port', ...facts });
    }
  }

  const uas = runsUas(port, enclosure);
  if (!uas) {
    const withUas = linkRates(mode, undefined, true).read.typical;
    const without = linkRates(mode, undefined, false).read.typical;
    if (without < withUas && drive.read.typical > without) {
      findings.push({
        code: 'bulk-only-transport',
        severity: 'limit',
        about: port.uas === false ? 'port' : 'enclosure',
        who: port.uas === false ? 'port' : 'enclosure',
        read: without,
        withUas
      });
    }
  }

  if (port.writeCapMBps !== undefined) {
    const free = writeWithout(chain, { ...port, writeCapMBps: undefined }, quickRemoval);
    if (loss(now.write, free) > WORTH_SAYING)
      findings.push({
        code: 'host-write-ceiling',
        severity: 'limit',
        about: 'port',
        cap: port.writeCapMBps,
        without: free
      });
  }

  if (quickRemoval && isTunnelled(mode)) {
    const better = writeWithout(chain, port, false);
    if (loss(now.write, better) > WORTH_SAYING)
      findings.push({
        code: 'write-cache-policy',
        severity: 'limit',
        about: 'host',
        from: policy!.from,
        now: now.write,
        better,
        of: 'rate',
        rule: ruleName('write-cache', rules)
      });
  }
  const link = Math.min(...stages.filter((s) => s.stage !== 'drive').map((s) => s.MBps.typical));
  if (read.at === 'bridge' || read.at === 'slot')
    findings.push({
      code: 'bridge-limits-link',
      severity: 'note',
      about: 'enclosure',
      mode,
      bridge: now.read,
      drive: drive.read.typical
    });
  if (read.at === 'drive')
    findings.push({ code: 'drive-limits-link', severity: 'note', about: 'drive', drive: drive.read.typical, link });
  else if (drive.rated > link * 1.1)
    findings.push({
      code: 'drive-faster-than-link',
      severity: 'note',
      about: 'drive',
      drive: drive.rated,
      link,
      percent: (100 * link) / drive.rated,
      keep: chosenOption('drive-class', rules) === 'headroom',
      rule: ruleName('drive-class', rules)
    });
  return findings;
}
