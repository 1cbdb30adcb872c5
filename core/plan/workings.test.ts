import type { Band } from '../quantities/band';
import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import { plan } from './plan';

const DRIVE = '01ARZ3NDEKTSV4RRFFQ69G5FA1';
const CASE = '01ARZ3NDEKTSV4RRFFQ69G5FA2';
const workingsOf = (change: Parameters<typeof anInput>[0]) => {
  const { workings } = plan(anInput(change));
  return (figure: string) => workings.find((w) => w.figure === figure)!;
};

describe('each figure with its formula, the numbers put in, and its source', () => {
  it('the mode: what each part offers, and what is common', () => {
    const mode = workingsOf({ cable: aCable({ modes: ['usb-10g'], active: true }) })('link.mode');
    expect(mode.substituted).toBe(
      'port {USB4 40 Gb/s, USB4 20 Gb/s, USB 10 Gb/s, USB 5 Gb/s, USB 2.0} ∩ cable {USB 10 Gb/s, USB 5 Gb/s, USB 2.0} ∩ enclosure {USB4 40 Gb/s, Thunderbolt 3, USB4 20 Gb/s, Thunderbolt 3 at 20 Gb/s, USB 10 Gb/s, USB 5 Gb/s, USB 2.0}'
    );
    expect(mode.result).toBe('USB 10 Gb/s');
  });

  it('the numbers that are put in give the result: slot 4 x 1969 x 0.875', () => {
    const slot = workingsOf({})('stage.slot');
    expect(slot.substituted).toBe('4 × 1969 MB/s × 0.84 – 0.875 – 0.91');
    expect((slot.result as { typical: number }).typical).toBeCloseTo(4 * 1969 * 0.875, 9);
  });

  it('a stated rating and a class rating are told apart', () => {
    expect(workingsOf({})('stage.drive')).toMatchObject({
      formula: 'rating × 0.85 – 0.95 – 1',
      source: 'data sheet, “up to”'
    });
    const bare = {
      kind: 'drive' as const,
      name: 'd',
      media: 'nvme' as const,
      formFactor: 'm2' as const,
      capacityTB: 1
    };
    expect(workingsOf({ drive: bare })('stage.drive')).toMatchObject({
      formula: 'class rating × 0.5 – 0.95 – 1',
      source: 'class template (assumed)'
    });
  });

  it('read and write: the minimum over the stages, and which one it is', () => {
    const read = workingsOf({ cable: aCable({ modes: ['usb-10g'], active: true }) })('throughput.read');
    expect(read.substituted).toBe('min(port 3000, cable 1000, bridge 3400, slot 6890, drive 6650)');
    expect(read.source).toBe('cable is the slowest link');
  });

  it('the cliff and what follows; without a cliff it says so', () => {
    const at = workingsOf({});
    expect(at('cache.cliffAtGB').formula).toBe('cache / (1 − drain / ingress)');
    expect(at('cache.cliffAtGB').substituted).toContain('cache 200 GB; free 2000 GB; ingress 3400 MB/s; drain 0 MB/s');
    const steady = workingsOf({ cable: aCable({ modes: ['usb-10g'], active: true }) });
    expect(steady('cache.cliffAtGB')).toBeUndefined();
    expect(steady('throughput.sustainedWrite').formula).toContain('the cache outlasts this connection');
    expect(workingsOf({ drive: aDrive({ flash: { cell: 'tlc', dram: true } }) })('cache.cliffAtGB').formula).toContain(
      'bits per cell'
    );
  });

  it('power: (1.5 + 1.5 x 3.4)/0.88 + 2.2 = 9.7 W', () => {
    const power = workingsOf({})('power.steady');
    expect((power.result as Band).typical).toBeCloseTo((1.5 + 1.5 * 3.4) / 0.88 + 2.2, 9);
    // each part, and what of it is only assumed
    expect(power.substituted).toContain('drive at rest 1.5 W (assumed) + moving data 5.1 W (assumed)');
    expect(power.unit).toBe('W');
  });

  it('a hard disk by its edges, a SATA link by its table', () => {
    const drive = aDrive({
      media: 'hdd',
      formFactor: '2.5in',
      pcie: undefined,
      flash: undefined,
      thicknessMm: 7,
      disk: { outerMBps: 140, innerMBps: 70, recording: 'cmr' }
    });
    const enclosure = anEnclosure({
      formFactor: '2.5in',
      protocols: ['sata'],
      modes: ['usb-10g'],
      downstreamSataGbps: 6
    });
    const at = workingsOf({ drive, enclosure, host: aHost({ modes: ['usb-10g'] }) });
    expect(at('stage.drive').substituted).toBe('(140 + 70) / 2');
    expect(at('stage.drive').result).toEqual({ low: 70, typical: 105, high: 140 });
    expect(at('stage.slot').formula).toBe('table of SATA rates');
    expect(at('throughput.random4kRead').source).toContain('half a turn');
  });

  it('cost: each part with its vendor and day', () => {
    const quote = (partId: string, list: number) => ({
      partId,
      vendor: 'Marktgasse Teile',
      date: '2026-05-01',
      currency: 'EUR',
      list
    });
    const at = workingsOf({
      drive: aDrive({ id: DRIVE }),
      enclosure: anEnclosure({ id: CASE }),
      quotes: [quote(DRIVE, 139), quote(CASE, 84)]
    });
    expect(at('cost.total').substituted).toBe(
      'Test T4 2TB 139.00 (Marktgasse Teile, 1 May 2026) + Test 40 84.00 (Marktgasse Teile, 1 May 2026)'
    );
    expect(at('cost.total').source).toContain('no price for cable');
    expect(at('cost.perTB')).toMatchObject({ substituted: '223.00 / 2 TB', result: 111.5, unit: 'EUR/TB' });
  });

  it('the job: what is moved, at which rates, past which cliff, and the host’s own disk', () => {
    const job = { name: 'j', purposes: [], transferGB: 420, files: 10, direction: 'in' as const };
    const host = aHost({}, { internalDisk: { readMBps: 5000, writeMBps: 4000 } });
    expect(workingsOf({ job, host })('job.seconds').substituted).toBe(
      '420 GB, 10 files; write 3400 MB/s; the cache is full after 200 GB; Test host’s own disk reads 5000 and writes 4000 MB/s'
    );
    expect(workingsOf({ job: { ...job, direction: 'both' } })('job.seconds').substituted).toContain(
      'write 3400, then read 3400'
    );
  });

  it('every working is complete', () => {
    for (const w of plan(anInput()).workings) {
      expect(
        [w.figure, w.formula, w.substituted, w.source].every((text) => text.length > 2),
        JSON.stringify(w)
      ).toBe(true);
      expect(JSON.stringify(w)).not.toMatch(/undefined|NaN/);
    }
  });
});
