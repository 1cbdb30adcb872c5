/* eslint-disable @typescript-eslint/no-non-null-assertion -- called for a chain that works: it has a mode */
import { runsUas } from '../chain/stages.ts';
import { fillOf, type CacheForecast } from '../throughput/flash-cache.ts';
import { randomRate } from '../throughput/random.ts';
import type { ThrottleTimeline } from '../thermal/throttling/timeline.ts';
import { describeLoad, sustainedWriteBand, endlessWritePhases, type DescribedLoad } from './load.ts';
import { forecastJob, jobWays, typicalJob } from './job-forecast.ts';
import type { PlanInput, PlanReport } from './report.ts';
import type { ResolvedBuild, RunningChain } from './resolve-build.ts';

/** The figures of a report that a forecast makes. */
export type ForecastFigures = Pick<PlanReport, 'throughput' | 'cache' | 'job'>;
/** A chain as it is forecast: its figures, the cache as the job fills it, the job through its throttling, and the load. */
export type ChainForecast = {
  figures: ForecastFigures;
  fed: CacheForecast | null;
  timeline: ThrottleTimeline | null;
  load: DescribedLoad;
};

/** Forecasts what a chain does that connects: rates, cache and job, with what throttling takes of them. */
export function forecastChain(
  { job, drive: { media } }: PlanInput,
  { drive, enclosure, port, negotiation, freeGB, thermal }: ResolvedBuild,
  { read, write, cache, chain }: RunningChain
): ChainForecast {
  const wanted = job ? typicalJob(job, chain) : null;
  const load = describeLoad(thermal, {
    endlessWrite: endlessWritePhases(write.band, cache, media === 'hdd' ? null : fillOf(drive, freeGB, 'typical')),
    job: wanted?.phases ?? null,
    perDay: job?.perDay,
    write: write.band,
    freeGB
  });
  const uas = runsUas(port, enclosure);
  const mode = negotiation.mode!;
  const figures: ForecastFigures = {
    throughput: {
      read: read.band,
      write: write.band,
      sustainedWrite: sustainedWriteBand(thermal, write.band, cache, load),
      random4kRead: randomRate(drive, mode, uas, 'read'),
      random4kWrite: randomRate(drive, mode, uas, 'write')
    },
    cache: { cliffAtGB: cache.cliffAtGB, recoverS: cache.recoverS }
  };
  if (!job || !wanted) return { figures, fed: null, timeline: null, load };
  const { forecast, timeline } = forecastJob(job, chain, wanted, {
    limits: load.neverThrottles ? null : thermal.limits,
    typical: thermal.typical,
    ...(load.neverThrottles ? {} : { ends: { slow: load.cases.hot, fast: load.cases.cool } })
  });
  figures.job = { ...forecast, ways: jobWays(job, chain, wanted.ways, forecast.seconds.typical) };
  return { figures, fed: wanted.fed, timeline, load };
}
