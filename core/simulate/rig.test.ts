import { describe, expect, it } from 'vitest';
import { aDrive, aHost, anInput } from '../../tests/parts';
import { briefOf } from '../protocols/brief';
import { testedBuild } from '../protocols/tested';
import type { ProtocolPhase } from '../protocols/phase';
import { plan } from '../plan/plan';
import { PROTOCOL_IDS } from '../results/protocol-ids';
import { movedGB, seriesSchema } from '../series/series';
import { playRig, type RigSettings } from './rig';

const input = anInput({
  host: aHost({}, { internalDisk: { readMBps: 3000, writeMBps: 2500, cacheGB: 50, postCacheWriteMBps: 600 } })
});
const disk = anInput({
  drive: aDrive({
    media: 'hdd',
    formFactor: '2.5in',
    capacityTB: 1,
    thicknessMm: 7,
    disk: { outerMBps: 140, innerMBps: 70 }
  }),
  enclosure: {
    kind: 'enclosure',
    name: 'Bay',
    formFactor: '2.5in',
    protocols: ['sata'],
    modes: ['usb-10g'],
    plug: 'usb-c',
    maxThicknessMm: 15
  }
});
const play = (phases: ProtocolPhase[], settings: Partial<RigSettings> = {}, of = input) => {
  const run = playRig(of, phases, { seed: 7, ...settings }, 600);
  if (!run) throw new Error('it should run');
  return run;
};
const write = (GB: number): ProtocolPhase => ({ work: 'write', GB, label: 'Write' });
const read = (GB: number): ProtocolPhase => ({ work: 'read', GB, label: 'Read' });
const rest = (seconds: number): ProtocolPhase => ({ work: 'rest', seconds, label: 'Rest' });

describe('the rig', () => {
  it.each(PROTOCOL_IDS.filter((id) => id !== 'sweep'))(
    'plays %s to its end: every phase moves what it says, in rising time',
    (id) => {
      const brief = briefOf(id, {}, testedBuild(input, plan(input)));
      const run = playRig(
        input,
        brief.phases,
        { seed: 3, boundedGB: brief.settings.GB, other: { readMBps: 900, writeMBps: 800 } },
        brief.seconds?.typical ?? 600
      );
      expect(seriesSchema.safeParse(run?.series).error).toBeUndefined();
      expect(run?.phases.length).toBe(brief.phases.length);
      for (const [i, phase] of (run?.phases ?? []).entries()) {
        expect(phase.fromS).toBe(run?.phases[i - 1]?.toS ?? 0);
        if (phase.GB !== undefined) expect(phase.movedGB).toBe(phase.GB);
        else if (phase.work !== 'task') expect(phase.toS - phase.fromS).toBeCloseTo(phase.seconds ?? 0, 6);
      }
      // The noise of a sample is 1 to 2 %, of their sum far less.
      const wanted = (run?.phases ?? []).reduce((sum, { movedGB: moved }) => sum + moved, 0);
      expect(movedGB(run?.series ?? { t: [], MBps: [] }) / wanted).toBeGreaterThan(0.985);
      expect(movedGB(run?.series ?? { t: [], MBps: [] }) / wanted).toBeLessThan(1.015);
    }
  );
  it('the same seed is the same run, another seed another', () => {
    const rates = (seed: number) => play([write(50)], { seed }).series.MBps;
    expect(rates(1)).toEqual(rates(1));
    expect(rates(1)).not.toEqual(rates(2));
  });
  // The cache of 200 GB is fixed and drains nothing while it fills: 150 GB go in, then 50 of the next 150.
  it('phases share one cache, and a rest empties it', () => {
    const cliffs = (phases: ProtocolPhase[]) => play(phases).events.filter(({ kind }) => kind === 'cliff').length;
    expect(cliffs([write(150)])).toBe(0);
    expect(cliffs([write(150), read(10), write(150)])).toBe(1);
    // 150 GB at 0.6 of 1500 MB/s drain in 167 s
    expect(cliffs([write(150), rest(180), write(150)])).toBe(0);
  });
  it('at rest nothing moves and it cools', () => {
    const { series, phases } = play([write(400), rest(600)]);
    const from = series.t.findIndex((t) => t > (phases[1]?.fromS ?? 0) + 1);
    expect(Math.max(...series.MBps.slice(from))).toBe(0);
    expect(series.caseC?.at(-1)).toBeLessThan(series.caseC?.[from] ?? 0);
  });
  // Over a file of 10 GB again and again a dynamic cache of a free drive stays as large as it was: (2000 - 10) / 3 = 663 GB, at most 200
  it('a soak goes over a bounded file and does not fill the drive', () => {
    const dynamic = anInput({
      drive: aDrive({
        capacityTB: 0.5,
        flash: { cell: 'tlc', cacheGB: 100, cacheKind: 'dynamic', postCacheWriteMBps: 1500, drainMBps: 0 }
      })
    });
    const soak: ProtocolPhase[] = [{ work: 'write', seconds: 600, label: 'Write' }];
    const run = play(soak, { boundedGB: 10 }, dynamic);
    // 600 s at 1500 MB/s and more are 900 GB: nearly twice what the drive holds
    expect(run.phases[0]?.movedGB).toBeGreaterThan(500);
    expect(run.events.find(({ kind }) => kind === 'cliff')?.t).toBeGreaterThan(25);
  });
  it('copies into the computer fall off its own cache, and the drive is not blamed', () => {
    const { events } = play([{ work: 'copy-out', GB: 100, label: 'Copy' }]);
    expect(events.map(({ kind }) => kind)).toContain('host-cliff');
  });
  it('two externals leave the internal disk out: 900 and 800 MB/s are the other one', () => {
    const { phases } = play(
      [
        { work: 'copy-in', GB: 90, label: 'In' },
        { work: 'copy-out', GB: 80, label: 'Out' }
      ],
      { other: { readMBps: 900, writeMBps: 800 } }
    );
    expect(phases.map(({ fromS, toS }) => Math.round(toS - fromS))).toEqual([100, 100]);
  });
  it('a weak place of a disk is at the same place in every pass', () => {
    const { series, phases } = play([read(1000), read(1000)], { fault: 'weak-surface' }, disk);
    const weak = (of: (typeof phases)[number] | undefined) =>
      (series.positionFraction ?? []).filter((place, i) => {
        const t = series.t[i] ?? 0;
        return t > (of?.fromS ?? 0) + 2 && t < (of?.toS ?? 0) - 2 && place > 0.001 && (series.MBps[i] ?? 0) < 40;
      });
    const [first, second] = [weak(phases[0]), weak(phases[1])];
    expect(first.length).toBeGreaterThan(20);
    expect(Math.abs((first[0] ?? 0) - (second[0] ?? 1))).toBeLessThan(0.001);
  });
  it('a disk is slower inside: 140 MB/s at the edge, 70 at the hub', () => {
    const { series } = play([read(1000)], {}, disk);
    const mean = (from: number) => series.MBps.slice(from, from + 20).reduce((sum, value) => sum + value, 0) / 20;
    expect(mean(0) / mean(series.MBps.length - 25)).toBeCloseTo(2, 0);
  });
  it('refuses an internal disk that nothing is known of, and a build that does not connect', () => {
    expect(() => play([{ work: 'internal-read', GB: 1, label: 'Read' }], {}, anInput())).toThrow('internal disk');
    expect(
      playRig(
        anInput({
          enclosure: {
            kind: 'enclosure',
            name: 'T',
            formFactor: 'm2',
            protocols: ['nvme'],
            modes: ['tbt5-80g'],
            plug: 'usb-b'
          }
        }),
        [read(1)],
        { seed: 1 },
        60
      )
    ).toBeNull();
  });
});
