import { LINK_MODES } from '../../facts/link-modes.ts';
import { powerNeed } from '../../chain/power-need.ts';
import type { Pairing } from '../../chain/rules/rule.ts';
import { negotiate } from '../../chain/negotiate.ts';
import { fillDrive, fillEnclosure, portPower } from '../../parts/fill/fill.ts';
import type { Host } from '../../parts/host.ts';
import { plan } from '../../plan/plan.ts';
import { portOf } from '../../plan/resolve-build.ts';
import type { PlanInput, PlanReport } from '../../plan/report.ts';
import type { Band } from '../../quantities/band.ts';
import { figure, quantity, rate, UNIT_SPACE } from '../../quantities/format.ts';

/** What each build does while the others work: takes data from the host, gives it to the host, or passes it on to another build. */
export type MemberTask = 'write' | 'read' | 'idle' | { copyTo: number };
export type Member = { name: string; input: PlanInput; task: MemberTask };

type Direction = 'read' | 'write';
/** Something that flows at once: which builds it goes through, and in which direction of each. */
type Flow = { legs: { member: number; direction: Direction }[]; host: Direction | null };

export type SharedLoad = {
  id: string;
  label: string;
  /** What its ports get together, and whether that was stated. */
  MBps: number;
  assumed: boolean;
  members: number[];
  read: number;
  write: number;
  full: boolean;
};
export type PowerLoad = {
  label: string;
  members: number[];
  steadyW: number;
  peakW: number;
  budgetW: number;
  enough: 'yes' | 'peak' | 'no';
};
export type Together = {
  members: {
    name: string;
    port: string;
    task: MemberTask;
    report: PlanReport;
    alone: Band | null;
    together: Band | null;
    heldBy: string[];
  }[];
  shared: SharedLoad[];
  power: PowerLoad[];
  findings: { severity: 'note' | 'limit' | 'check' | 'fail'; message: string; remedy: string }[];
};

/**
 * Shares capacities among flows so that none could have more without one that has less getting even less (max-min fairness, by
 * filling all of them at once until something is full).
 * @param demands what each flow could do alone, MB/s
 * @param resources what each resource carries, and which flows go through it
 * @returns rates, and for each flow the resource that ended its rise; undefined where it has all it wants
 */
export function fairShares(
  demands: readonly number[],
  resources: readonly { capacity: number; flows: readonly number[] }[]
): { rates: number[]; heldBy: (number | undefined)[] } {
  const rates = demands.map(() => 0);
  const heldBy: (number | undefined)[] = demands.map(() => undefined);
  const left = resources.map(({ capacity }) => capacity);
  const open = new Set(demands.map((_, i) => i).filter((i) => demands[i]! > 0));
  while (open.size > 0) {
    const users = resources.map(({ flows }) => flows.filter((f) => open.has(f)));
    let rise = Math.min(...[...open].map((f) => demands[f]! - rates[f]!));
    users.forEach((flows, r) => {
      if (flows.length > 0) rise = Math.min(rise, left[r]! / flows.length);
    });
    for (const f of open) rates[f]! += rise;
    users.forEach((flows, r) => (left[r]! -= rise * flows.length));
    const before = open.size;
    users.forEach((flows, r) => {
      if (left[r]! > 1e-9 * resources[r]!.capacity) return;
      for (const f of flows) if (open.delete(f)) heldBy[f] = r;
    });
    for (const f of [...open]) if (rates[f]! >= demands[f]! * (1 - 1e-12)) open.delete(f);
    // Rounding must never keep it going round.
    if (open.size === before) break;
  }
  return { rates, heldBy };
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

const ENDS = ['low', 'typical', 'high'] as const;

/** What several builds do on one host at once: each alone, all together, and whether controllers, hubs and power carry it. */
export function together(host: Host, given: readonly Member[]): Together {
  const plans = given.map(({ input }) => plan(input, { workings: false }));
  const ports = given.map(({ input }) => portOf(host, input.portId)!);
  const taskOf = (i: number): MemberTask => {
    const { task } = given[i]!;
    if (typeof task !== 'object') return task;
    // A copy needs another build to go to.
    return task.copyTo === i || !given[task.copyTo] ? 'idle' : task;
  };
  const flows: (Flow | null)[] = given.map((_, i) => {
    const task = taskOf(i);
    if (plans[i]!.throughput.write === null || task === 'idle') return null;
    if (typeof task === 'object') {
      if (plans[task.copyTo]!.throughput.write === null) return null;
      return {
        legs: [
          { member: i, direction: 'read' },
          { member: task.copyTo, direction: 'write' }
        ],
        host: null
      };
    }
    return { legs: [{ member: i, direction: task }], host: task };
  });
  const rateOf = (member: number, direction: Direction): Band => plans[member]!.throughput[direction]!;

  const groups = [...new Set(ports.flatMap((port) => port.shares ?? []))].map((id) => {
    const stated = host.shared?.find((s) => s.id === id);
    const own = host.ports.filter((port) => port.shares === id);
    const best = Math.max(...own.flatMap((port) => port.modes.map((mode) => LINK_MODES[mode].read.typical)));
    return {
      id,
      label: stated?.label ?? id,
      MBps: stated?.MBps ?? best,
      assumed: stated?.MBps === undefined,
      powerW: stated?.powerW,
      members: ports.flatMap((port, i) => (port.shares === id ? [i] : []))
    };
  });

  /** Both directions of a link run at once; each is a resource of its own, and so are the drives and the host's own disk. */
  type Resource = { label: string; capacity: (end: (typeof ENDS)[number]) => number; flows: number[] };
  const resources: Resource[] = [];
  const using = (test: (flow: Flow) => boolean) => flows.flatMap((flow, i) => (flow && test(flow) ? [i] : []));
  for (const group of groups)
    for (const direction of ['read', 'write'] as const)
      resources.push({
        label: group.label,
        capacity: () => group.MBps,
        flows: using((flow) =>
          flow.legs.some((leg) => leg.direction === direction && group.members.includes(leg.member))
        )
      });
  given.forEach(({ name }, member) => {
    if (plans[member]!.throughput.write === null) return;
    for (const direction of ['read', 'write'] as const)
      resources.push({
        label: name,
        capacity: (end) => rateOf(member, direction)[end],
        flows: using((flow) => flow.legs.some((leg) => leg.member === member && leg.direction === direction))
      });
  });
  const disk = host.internalDisk;
  if (disk)
    for (const [direction, capacity] of [
      ['write', disk.readMBps],
      ['read', disk.writeMBps]
    ] as const)
      resources.push({
        label: `the disk of ${host.name}`,
        capacity: () => capacity,
        flows: using((flow) => flow.host === direction)
      });

  const at = ENDS.map((end) => {
    const alone = flows.map((flow, i) =>
      flow ? Math.min(...resources.filter((r) => r.flows.includes(i)).map((r) => r.capacity(end))) : 0
    );
    const busy = resources.filter((r) => r.flows.length > 0);
    const { rates, heldBy } = fairShares(
      alone,
      busy.map((r) => ({ capacity: r.capacity(end), flows: r.flows }))
    );
    return { alone, rates, heldBy: heldBy.map((r) => (r === undefined ? undefined : busy[r]!.label)) };
  });
  /** Who shares gets less where the others are quick: the ends of the band are whichever of the three cases gives them. */
  const bandOf = (pick: (point: (typeof at)[number]) => number): Band => {
    const values = at.map(pick) as [number, number, number];
    return { low: Math.min(...values), typical: values[1], high: Math.max(...values) };
  };
  const typical = at[1]!;

  const members = given.map(({ name }, i) => {
    const flow = flows[i];
    const alone = flow ? bandOf((point) => point.alone[i]!) : null;
    const shared = flow ? bandOf((point) => point.rates[i]!) : null;
    const held = typical.heldBy[i];
    return {
      name,
      port: ports[i]!.label,
      task: taskOf(i),
      report: plans[i]!,
      alone,
      together: shared,
      heldBy: held !== undefined && shared!.typical < alone!.typical * 0.999 ? [held] : []
    };
  });

  const through = (list: readonly number[], direction: Direction) =>
    flows.reduce(
      (sum, flow, i) =>
        sum +
        (flow?.legs.some((leg) => list.includes(leg.member) && leg.direction === direction) ? typical.rates[i]! : 0),
      0
    );
  const shared = groups.map(({ powerW: _w, ...group }): SharedLoad => {
    const [read, write] = [through(group.members, 'read'), through(group.members, 'write')];
    return { ...group, read, write, full: Math.max(read, write) >= group.MBps * 0.999 };
  });

  // What does not connect, or does not go in, is not plugged in either.
  const plugged = (i: number) => plans[i]!.throughput.write !== null;
  const watts = given.map(({ input }, i): [number, number] =>
    plugged(i) ? wattsOf(input, Math.max(through([i], 'read'), through([i], 'write'))) : [0, 0]
  );
  const power = groups.flatMap(({ label, powerW, members: list }): PowerLoad[] => {
    if (powerW === undefined) return [];
    const [steadyW, peakW] = [0, 1].map((k) => list.reduce((sum, i) => sum + watts[i]![k]!, 0)) as [number, number];
    const enough = steadyW > powerW ? 'no' : peakW > powerW ? 'peak' : 'yes';
    return [{ label, members: list, steadyW, peakW, budgetW: powerW, enough }];
  });

  const findings: Together['findings'] = [];
  const taken = new Map<string, string[]>();
  given.forEach(({ name, input }) => taken.set(input.portId, [...(taken.get(input.portId) ?? []), name]));
  for (const names of taken.values())
    if (names.length > 1)
      findings.push({
        severity: 'fail',
        message: `${names.join(' and ')} are on the same port.`,
        remedy: 'Give each a port of its own, or put a hub in between and say so at the port.'
      });
  members.forEach(({ name, report }) => {
    if (report.verdict === 'fails')
      findings.push({
        severity: 'fail',
        message: `${name} does not work on its port: ${report.findings[0]!.message}`,
        remedy: report.findings[0]!.remedy ?? ''
      });
  });
  for (const load of shared) {
    const slowed = load.members.filter((i) => members[i]!.heldBy.includes(load.label));
    if (slowed.length > 0)
      findings.push({
        severity: 'limit',
        message: `${capital(load.label)} is full at ${rate(load.MBps)}${UNIT_SPACE}MB/s${load.assumed ? ' (assumed: its best port alone)' : ''}: ${slowed.map((k) => members[k]!.name).join(' and ')} ${slowed.length === 1 ? 'gets less than alone' : 'slow each other down'}.`,
        remedy: 'Put one of them on a port that does not share it, or let them work one after the other.'
      });
  }
  for (const load of power)
    if (load.enough !== 'yes')
      findings.push({
        // What builds draw is an estimate, so that it never says that they do not work; it says to look before long writes.
        severity: 'check',
        message: `${capital(load.label)} gives ${quantity(load.budgetW, 'W')} in all; ${load.members
          .filter(plugged)
          .map((i) => members[i]!.name)
          .join(
            ' and '
          )} want ${figure(load.enough === 'no' ? load.steadyW : load.peakW)}${UNIT_SPACE}W ${load.enough === 'no' ? 'in steady work' : 'at their peak'}.`,
        remedy: 'Use a hub with its own supply, or move one of them. Do not run long writes before that.'
      });
  const ownDisk = members.filter(({ heldBy }) => disk && heldBy.includes(`the disk of ${host.name}`));
  if (ownDisk.length > 0)
    findings.push({
      severity: 'limit',
      message: `The host’s own disk cannot feed them all: ${ownDisk.map(({ name }) => name).join(' and ')} wait for it.`,
      remedy: 'Copy one after the other; together they take as long.'
    });
  return { members, shared, power, findings };
}

/** Steady and peak power of a build that moves data at a rate, W; nothing where it has a supply of its own. */
function wattsOf(input: PlanInput, rateMBps: number): [number, number] {
  if (input.enclosure.externalSupply === true) return [0, 0];
  const port = portOf(input.host, input.portId)!;
  const negotiation = negotiate(port, input.cable, input.enclosure);
  const pairing: Pairing = {
    drive: fillDrive(input.drive),
    enclosure: fillEnclosure(input.enclosure),
    port,
    portWatts: portPower(port),
    negotiation,
    writeMBps: { low: rateMBps, typical: rateMBps, high: rateMBps },
    knownPairs: []
  };
  const { steady, peak } = powerNeed(pairing);
  return [steady.typical, peak.typical];
}
