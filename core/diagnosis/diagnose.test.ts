import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BUILDS } from '../../bench/judge/builds';
import { CASES } from '../../bench/judge/cases';
import { diagnoseCase } from '../../bench/judge/diagnosis';
import { analyse } from '../analysis/analyse';
import { QUESTIONS, UnknownAnswer } from './asking';
import { CAUSES } from './causes';
import { diagnose, diagnosisSchema } from './diagnose';
import { CAUSE_NAMES } from './names';
import { MEASURED_PRIORS } from './priors';
import { MEASURED_QUESTIONS } from './questions/measured';
import { situationOf } from './situation';
import { readSystemLog } from './system-log';

const u4 = situationOf(BUILDS.u4);
const u10 = situationOf(BUILDS.u10);
const rw = (readMBps: number, writeMBps: number) => ({ results: { readMBps, writeMBps } });

describe('the hand-written cases', () => {
  it('are eighty, and the true cause comes first in at least 68 and among three in at least 76', () => {
    expect(CASES).toHaveLength(80);
    const found = CASES.map((one) => {
      const causes = diagnoseCase(one).causes.map(({ cause }) => cause);
      const right = [one.is].flat();
      return { first: right.includes(causes[0]!), among: causes.slice(0, 3).some((cause) => right.includes(cause)) };
    });
    expect(found.filter(({ first }) => first).length).toBeGreaterThanOrEqual(68);
    expect(found.filter(({ among }) => among).length).toBeGreaterThanOrEqual(76);
  });
});

describe('the tables', () => {
  it('add up to 1 in every row, with one question of each code', () => {
    for (const { code, outcomes, usual, given } of MEASURED_QUESTIONS)
      for (const row of [usual, ...Object.values(given)]) {
        expect(row, code).toHaveLength(outcomes.length);
        expect(row.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
      }
    const codes = [...QUESTIONS, ...MEASURED_QUESTIONS].map(({ code }) => code);
    expect(new Set(codes).size).toBe(codes.length);
  });

  it('have a short name for every cause that a result can have', () => {
    for (const cause of Object.keys(MEASURED_PRIORS))
      expect(CAUSE_NAMES[cause as keyof typeof CAUSE_NAMES], cause).toBeTruthy();
  });
});

describe('a diagnosis', () => {
  it('takes the next test in, up to an end: writes at half, the policy is looked up, and a second computer settles it', () => {
    const at = situationOf(BUILDS.u4win);
    const tried: { test: string; outcome: string }[] = [];
    let report = diagnose(at, { ...rw(3300, 850), tried });
    for (let step = 0; report.next && step < 6; step++) {
      const { test, outcomes } = report.next;
      const outcome =
        test === 'policy' ? 'quick' : outcomes.find(({ points }) => points === 'write-cache-off')?.outcome;
      tried.push({ test, outcome: outcome ?? outcomes[0]!.outcome });
      report = diagnose(at, { ...rw(3300, 850), tried });
    }
    expect(report.state).toBe('proven');
    expect(report.causes[0]?.cause).toBe('write-cache-off');
    expect(report.next).toBeNull();
  });

  it('tells what contradicts it: 40 Gb/s shown, and 38 MB/s measured', () => {
    const { contradictions, state, causes } = diagnose(u4, { ...rw(39, 37), negotiatedGbps: 40 });
    expect(contradictions.length).toBeGreaterThan(0);
    expect(causes[0]?.evidence.length).toBeGreaterThan(0);
    // The sure one of the rest is no proof then.
    expect(state).not.toBe('proven');
  });

  it('says that it cannot be told once nothing is left to try', () => {
    const tried = [
      ...QUESTIONS.filter((q) => q.for.includes('slow') || q.for.includes('disconnects')),
      ...MEASURED_QUESTIONS
    ]
      .filter(({ applies }) => applies?.(u10) ?? true)
      .map(({ code }) => ({ test: code, outcome: 'cannot-tell' }));
    const { state, next, causes } = diagnose(u10, { ...rw(700, 640), tried });
    expect(next).toBeNull();
    expect(state).toBe('cannot-tell');
    expect(causes.length).toBeGreaterThan(1);
  });

  it('refuses a test that this build is not asked, with its place', () => {
    const wrong = (test: string, outcome: string) => () => diagnose(u4, { ...rw(39, 37), tried: [{ test, outcome }] });
    expect(wrong('policy', 'quick')).toThrow(UnknownAnswer); // Linux has no such policy
    expect(wrong('nonsense', 'yes')).toThrow('answers.0.test');
    expect(wrong('listed-speed', 'nonsense')).toThrow('answers.0.outcome');
  });

  it('without anything known leaves what is usual, and asks', () => {
    const { causes, state, known } = diagnose(u4, {});
    expect([causes[0]?.cause, state, known]).toEqual(['healthy', 'open', []]);
  });

  it('holds what was measured against the best, so that a known ceiling keeps its name', () => {
    const host = { ...BUILDS.u4.host, ports: BUILDS.u4.host.ports.map((port) => ({ ...port, writeCapMBps: 1700 })) };
    const capped = situationOf({ ...BUILDS.u4, host });
    expect(capped.report.throughput.write?.typical).toBeLessThan(1800);
    // Read 3400, written 1700 in a test of 5 GB: half of what the chain can do, as the port is known to.
    const { causes } = diagnose(capped, { ...rw(3400, 1700), conditions: { testGB: 5, repeats: 1 } });
    expect(causes[0]?.cause).toBe('host-write-ceiling');
  });

  it('adds up to no more than 1, is sorted, and fits its schema, whatever is measured', () => {
    const rate = fc.double({ min: 0.001, max: 1e6, noNaN: true });
    const results = fc.record(
      { readMBps: rate, writeMBps: rate, random4kReadMBps: rate, copyInMBps: rate },
      { requiredKeys: [] }
    );
    fc.assert(
      fc.property(fc.constantFrom(u4, u10), results, (at, measured) => {
        const report = diagnose(at, { results: measured });
        expect(diagnosisSchema.safeParse(report).success).toBe(true);
        const shares = report.causes.map(({ confidence }) => confidence);
        expect(shares.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(1.001);
        expect([...shares].sort((a, b) => b - a)).toEqual(shares);
        for (const { cause } of report.causes) expect(CAUSES).toContain(cause);
      }),
      { numRuns: 60 }
    );
  });

  it('of a series says its shape, and keeps to what happened', () => {
    const t = Array.from({ length: 300 }, (_, i) => i + 1);
    const analysis = analyse({
      series: { t, MBps: t.map((s) => (s <= 60 ? 3300 : 1490)), controllerC: t.map(() => 50) },
      direction: 'write'
    });
    const { causes, state } = diagnose(u4, { analysis, direction: 'write', conditions: { source: 'memory' } });
    expect([state, causes[0]?.cause]).toEqual(['proven', 'slc-cliff']);
    expect(causes[0]?.evidence.join(' ')).toContain('198'); // 60 s at 3300 MB/s
  });
});

describe('lines of a system log', () => {
  it.each([
    ['usb 2-1: reset SuperSpeed Plus Gen 2x1 USB device number 4 using xhci_hcd', 'reset'],
    ['Reset to device, \\Device\\RaidPort2, was issued.', 'reset'],
    ['usb 1-2: new high-speed USB device number 9 using xhci_hcd', 'speed-480'],
    ['usb 2-1: new SuperSpeed USB device number 3 using xhci_hcd', 'speed-5g'],
    ['usb 2-1: UAS is ignored for this device, using usb-storage instead', 'bulk-only'],
    ['usb usb2-port1: over-current condition', 'over-current'],
    ['kernel: disk4s2: I/O error.', 'medium-error'],
    ['The device, \\Device\\Harddisk2\\DR2, has a bad block.', 'medium-error'],
    ['Disk 2 has been surprise removed.', 'disconnect'],
    ['usb 2-1: device descriptor read/64, error -71', 'transport-error']
  ] as const)('%s is a sign of %s', (line, sign) => {
    expect([...readSystemLog(line).signs.keys()]).toEqual([sign]);
  });

  it('of other matters say nothing', () => {
    const other = 'systemd[1]: Started Daily apt download activities.\naudit: type=1400 apparmor="ALLOWED"\n\n';
    expect(readSystemLog(other)).toEqual({ signs: new Map(), lines: 4, said: [] });
  });

  it('count the last speed only: it may have been plugged in twice', () => {
    const log = 'usb 1-2: new high-speed USB device number 9\nusb 2-1: new SuperSpeed USB device number 3';
    expect([...readSystemLog(log).signs.keys()]).toEqual(['speed-5g']);
  });

  it('of five million characters, or of one endless line, are read to their end', () => {
    const noise = 'kernel: something else happened here and nobody cares\n'.repeat(95_000);
    const { signs, lines } = readSystemLog(`${noise}usb 2-1: USB disconnect, device number 4`);
    expect(lines).toBe(95_001);
    expect(signs.get('disconnect')).toBe(1);
    expect(readSystemLog(`${'IOUSB '.repeat(400_000)}reset device`).signs.size).toBe(0);
  });
});
