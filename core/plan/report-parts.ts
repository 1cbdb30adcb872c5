/* eslint-disable @typescript-eslint/no-non-null-assertion -- called for a chain that works: it has a mode */
import { trimAnswer } from '../filesystem/trim.ts';
import { worstFirst, type Finding } from '../findings/finding.ts';
import { sentenceOf } from '../findings/words.ts';
import { buildCost } from '../cost/build-cost.ts';
import { budgetOf, livesOnPort } from '../chain/power-need.ts';
import { drawParts } from '../chain/power-draw.ts';
import type { Stage } from '../chain/stages.ts';
import type { FilledDrive } from '../parts/fill/drive.ts';
import { isRejected, stockPadsFor } from '../pads/gap.ts';
import type { StackPlan } from '../pads/plan-pads.ts';
import type { PlanInput, PlanReport } from './report.ts';
import type { OsFamily } from '../facts/filesystems.ts';
import type { ResolvedBuild, RunningChain } from './resolve-build.ts';

/**
 * Gives advertised against reachable: the share of the drive's rating that the stages before it can carry, percent; 100 where the link
 * is the faster one. Null for a hard disk, whose rate is no promise of a data sheet.
 */
export function reachableOf({ drive }: FilledDrive, stages: readonly Stage[]): PlanReport['reachable'] {
  const link = stages.filter(({ stage }) => stage !== 'drive');
  const share = (rated: number | undefined, of: 'MBps' | 'writeMBps') =>
    rated === undefined ? null : Math.min(100, (100 * Math.min(...link.map((stage) => stage[of].typical))) / rated);
  return { readPercent: share(drive.readMBps, 'MBps'), writePercent: share(drive.writeMBps, 'writeMBps') };
}

/**
 * Pads that the stack takes from the crate: one of each thickness, unless such a one is in the box. Where the chips are only
 * assumed nobody cuts anything yet, and nothing is counted.
 */
export function padsToPay(
  { pads, enclosure, quotes }: Pick<PlanInput, 'pads' | 'enclosure' | 'quotes'>,
  { rows, board, chosen }: Pick<StackPlan, 'rows' | 'board' | 'chosen'>
): { role: string; id: string | undefined }[] {
  if (!pads || rows.length === 0 || (board?.from === 'template' && !chosen)) return [];
  const used = new Set(rows.flatMap((row) => row.pads));
  for (const pad of enclosure.includedPads ?? []) used.delete(pad.thicknessMm);
  return [...used].flatMap((thickness) => {
    const among = pads.filter((pad) => pad.thicknessMm === thickness);
    const quoted = among.find((pad) => quotes?.some((quote) => quote.partId === pad.id));
    return among.length > 0 ? [{ role: 'pads', id: (quoted ?? among[0])?.id }] : [];
  });
}

/** Reports what a build draws, part by part, and what its port gives; null without a chain that writes. */
export function powerReport({ pairing, need, broken, running, thermal }: ResolvedBuild): PlanReport['power'] {
  const rate = pairing.writeMBps;
  if (broken || !running || !rate || !need) return null;
  const { draw, steady, peak } = need;
  const { idleW, efficiency, bridgeRestW, fanW } = thermal.draw;
  const fromPort = livesOnPort(pairing);
  return {
    steadyW: steady,
    peakW: peak,
    idleW: idleW.typical / efficiency + bridgeRestW + fanW,
    portW: fromPort ? budgetOf(pairing) : null,
    portStated: pairing.portWatts.stated,
    parts: drawParts(draw, rate).filter(({ W }) => W.high > 0)
  };
}

/** A build on which nothing can be measured. */
export const NO_THROUGHPUT: PlanReport['throughput'] = {
  read: null,
  write: null,
  sustainedWrite: null,
  random4kRead: null,
  random4kWrite: null
};

/** Adds up what the parts of a build cost; null without a quote for drive and enclosure. */
export function costOf(input: PlanInput, { negotiation, pads, usable }: ResolvedBuild): PlanReport['cost'] {
  const { drive, enclosure, quotes, exchange } = input;
  if (!quotes || quotes.length === 0) return null;
  const parts = [
    { role: 'drive', id: drive.id },
    { role: 'enclosure', id: enclosure.id }
  ];
  if (negotiation.cableFrom === 'chosen' && negotiation.cable) parts.push({ role: 'cable', id: negotiation.cable.id });
  parts.push(...padsToPay(input, pads));
  return buildCost(parts, quotes, { capacityTB: drive.capacityTB, usableTiB: usable }, exchange);
}

/** Writes a chain as a report shows it. */
export const linkReport = (mode: PlanReport['link']['mode'], running: RunningChain | null): PlanReport['link'] => ({
  mode,
  stages: running ? running.stages.map(({ stage, label, MBps, writeMBps }) => ({ stage, label, MBps, writeMBps })) : [],
  bottleneck: running?.read.at ?? null,
  alsoLimits: running?.read.also ?? [],
  writeBottleneck: running?.write.at ?? null
});

/** Tells whether deleted blocks get back to the drive; null where nothing runs. */
export function trimReport(
  { port, enclosure, drive, negotiation, advice }: ResolvedBuild,
  os: OsFamily,
  works: RunningChain | null
): PlanReport['trim'] {
  return (
    works &&
    trimAnswer({
      mode: negotiation.mode!,
      port,
      enclosure,
      drive,
      filesystem: advice.first.filesystem,
      os,
      cache: works.cache,
      write: works.write.band
    })
  );
}

/** Puts findings into words, the worst first. */
export const findingsReport = (findings: readonly Finding[]): PlanReport['findings'] =>
  worstFirst(findings).map((finding) => {
    const { code, severity, about } = finding;
    const { message, reason, remedy } = sentenceOf(finding);
    return remedy === undefined
      ? { code, severity, about, message, reason }
      : { code, severity, about, message, reason, remedy };
  });

/**
 * Lists the thicknesses that a build needs, mm: the pads of its plan that sit well, and in the place of one that does not, the stock
 * thickness, or the two layers, that close the gap well. Where none do, what the plan lays stays.
 * @example padsWanted(plan(anInput())).length > 0 // true
 */
export const padsWanted = ({ stack }: Pick<PlanReport, 'stack'>): number[] =>
  stack.components.flatMap(({ verdict, gapMm, pads }) => {
    const right = isRejected(verdict, gapMm) ? stockPadsFor(gapMm) : [];
    return right.length > 0 ? right : pads;
  });
