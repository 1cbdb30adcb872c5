import { describe, expect, it } from 'vitest';
import { warmBuilds } from '../../tests/warm-builds';
import type { Drive } from '../parts/drive';
import { plan } from '../plan/plan';
import type { PlanInput, PlanReport } from '../plan/report';
import { simulate, type SimulateReport } from './simulate';

/** The drive with its limits moved, for "within 1 K". */
const shifted = (drive: Drive, kelvin: number): Drive => {
  const startC = drive.throttle?.startC ?? 80;
  const criticalC = drive.throttle?.criticalC ?? startC + 8;
  return { ...drive, throttle: { startC: startC + kelvin, criticalC: criticalC + kelvin } };
};
const within = (value: number, of: number, share = 0.03) => Math.abs(value / of - 1) <= share;

/** Whether a figure of the plan is within 3 % of the simulation, or of it with the limits 1 K lower and higher. */
function agrees(value: number, measure: (kelvin: number) => number): boolean {
  if (within(value, measure(0))) return true;
  const around = [measure(-1), measure(1)];
  return value >= Math.min(...around) * 0.97 && value <= Math.max(...around) * 1.03;
}

const HOURS = 10;
/** Builds of one seed, each with its plan. */
const planned = (seed: number, count: number) =>
  [...warmBuilds(seed, count)].map((input) => ({ input, report: plan(input, { workings: false }) }));
const soak = ({ job: _, ...input }: PlanInput, kelvin = 0): SimulateReport =>
  simulate({ ...input, drive: shifted(input.drive, kelvin), seconds: HOURS * 3600, everyS: 15 })!;

/** Mean rate over whole periods in the second half of a run. */
function settledRate({ samples, events }: SimulateReport): number {
  const half = (HOURS * 3600) / 2;
  const starts = events.filter((e) => (e.kind === 'throttle' || e.kind === 'critical') && e.t > half).map((e) => e.t);
  const [from, to] = starts.length > 2 ? [starts[0]!, starts.at(-1)!] : [half, HOURS * 3600];
  const at = (t: number) => samples.t.findIndex((x) => x >= t);
  const [a, b] = [at(from), at(to)];
  return ((samples.writtenGB[b]! - samples.writtenGB[a]!) * 1000) / (samples.t[b]! - samples.t[a]!);
}

const followed = { throttling: 0 };

describe('the plan, in closed form, against the simulation', () => {
  it.each([1, 2, 3, 4])('job time within 3 %% or 1 K, seed %i', (seed) => {
    let [throttling, off] = [0, 0];
    for (const { input, report } of planned(seed, 40)) {
      // What does not fit is never done; the simulation goes round and round.
      if (!report.job!.fits) continue;
      const { typical } = report.job!.seconds;
      if (report.job!.throttleReached) throttling += 1;
      const took = (kelvin: number) =>
        simulate({
          ...input,
          drive: shifted(input.drive, kelvin),
          seconds: Math.min(259_200, typical * 1.4 + 60),
          everyS: Math.max(1, typical / 500)
        })!.summary.doneS ?? Infinity;
      // A drive that switches itself off is never done; the plan says so.
      if (took(0) === Infinity && report.findings.some((f) => f.code === 'drive-shuts-down')) {
        off += 1;
        continue;
      }
      expect(agrees(typical, took), `${input.drive.name} ${typical} against ${took(0)}`).toBe(true);
    }
    followed.throttling += throttling - off;
  });

  it('and enough of them throttled on the way', () => expect(followed.throttling).toBeGreaterThan(10));
  const forms = new Map<string, number>();
  it.each([5, 6, 7])('sustained write, steady temperatures and the first throttling, seed %i', (seed) => {
    for (const { input } of planned(seed, 24)) {
      const { job: _, ...rest } = input;
      const report: PlanReport = plan(rest, { workings: false });
      const thermal = report.thermal!;
      const run = soak(input);
      const tag = `${JSON.stringify(input.enclosure.cooling)} ${thermal.form}`;
      forms.set(thermal.form, (forms.get(thermal.form) ?? 0) + 1);
      const last = { caseC: run.samples.caseC.at(-1)!, controllerC: run.samples.controllerC.at(-1)! };
      if (thermal.form === 'off') {
        expect(run.events.map((e) => e.kind)).toContain('off');
        expect(report.throughput.sustainedWrite!.typical).toBe(0);
        continue;
      }
      if (input.drive.media !== 'hdd')
        expect(
          agrees(report.throughput.sustainedWrite!.typical, (k) => settledRate(k === 0 ? run : soak(input, k))),
          tag
        ).toBe(true);
      if (thermal.form === 'saw-tooth') {
        const half = run.samples.caseC.slice(run.samples.caseC.length / 2);
        const mean = half.reduce((sum, c) => sum + c, 0) / half.length;
        expect(Math.abs(thermal.steadyCaseC.typical - mean), tag).toBeLessThan(1);
        expect(Math.max(...run.samples.controllerC.slice(-1000))).toBeLessThan(thermal.steadyControllerC.typical + 1);
      } else {
        expect(Math.abs(thermal.steadyCaseC.typical - last.caseC), tag).toBeLessThan(1);
        expect(Math.abs(thermal.steadyControllerC.typical - last.controllerC), tag).toBeLessThan(1);
      }
      const first = (k: number) =>
        (k === 0 ? run : soak(input, k)).events.find((e) => e.kind === 'throttle')?.t ?? Infinity;
      const said = thermal.throttleAfterS?.typical ?? Infinity;
      expect(
        said === first(0) || (said + 1 > first(-1) * 0.97 && said - 1 < first(1) * 1.03),
        `${tag} ${said} against ${first(0)}`
      ).toBe(true);
    }
  });
  it('and all three forms were among them', () => {
    for (const form of ['none', 'plateau', 'saw-tooth']) expect(forms.get(form), form).toBeGreaterThan(2);
  });

  it('the cliff, where nothing throttles before it, and the zone of a disk', () => {
    let [cliffs, disks] = [0, 0];
    for (const { input, report } of planned(8, 60)) {
      const { job: _, ...rest } = input;
      const run = simulate({ ...rest, seconds: 40_000, everyS: 20 })!;
      const [first] = run.events;
      if (first?.kind === 'cliff' && report.cache.cliffAtGB) {
        cliffs += 1;
        const at = run.samples.writtenGB[run.samples.t.findIndex((t) => t >= first.t)]!;
        // samples are 20 s apart
        const rate = report.throughput.write!.typical;
        expect(Math.abs(report.cache.cliffAtGB.typical - at)).toBeLessThan(0.03 * at + (rate * 20) / 1000);
      }
      if (input.drive.media === 'hdd') {
        disks += 1;
        const { outerMBps, innerMBps } = input.drive.disk!;
        const k = innerMBps! / outerMBps!;
        const x = input.drive.fillFraction ?? 0;
        // no faster than the link, whichever zone it is in
        const zone = Math.min(
          outerMBps! * Math.sqrt(1 - x * (1 - k * k)),
          ...report.link.stages.slice(0, -1).map((s) => s.writeMBps.typical)
        );
        expect(run.samples.MBps[1]! / zone).toBeCloseTo(1, 2);
      }
    }
    expect([cliffs > 5, disks > 4]).toEqual([true, true]);
  });

  it('bands hold the typical case and come from what is uncertain: a stated surface narrows them', () => {
    for (const { input, report } of planned(9, 40)) {
      const { steadyCaseC, steadyControllerC, throttleAfterS, influences } = report.thermal!;
      for (const band of [steadyCaseC, steadyControllerC, throttleAfterS]) {
        if (!band) continue;
        expect(band.low).toBeLessThanOrEqual(band.typical);
        expect(band.typical).toBeLessThanOrEqual(band.high);
      }
      expect(influences.length).toBeGreaterThan(3);
      if (input.enclosure.cooling?.areaCm2 === undefined) continue;
      const { areaCm2: __, ...unstated } = input.enclosure.cooling;
      const wide = plan({ ...input, enclosure: { ...input.enclosure, cooling: unstated } }, { workings: false });
      const area = (r: PlanReport) => r.thermal!.influences.find((i) => i.what === 'the surface of the case')!;
      expect(Math.abs(area(wide).hotK) / wide.thermal!.watts).toBeGreaterThan(0);
      expect(wide.assumed.map((a) => a.field)).toContain('cooling.areaCm2');
      expect(report.assumed.map((a) => a.field)).not.toContain('cooling.areaCm2');
    }
  });
});
