/* eslint-disable @typescript-eslint/no-non-null-assertion -- members, plans, ports and flows are lists of the same length, and each member has a port that was looked up */
import type { Port, Host } from '../../parts/host.ts';
import { fairShares } from './fair-shares.ts';
import { LINK_MODES } from '../../facts/link-modes.ts';
import { powerNeed } from '../../chain/power-need.ts';
import type { Pairing } from '../../chain/rules/rule.ts';
import { negotiate } from '../../chain/negotiate.ts';
import { fillDrive } from '../../parts/fill/drive.ts';
import { fillEnclosure } from '../../parts/fill/enclosure.ts';
import { portPower } from '../../parts/fill/port.ts';
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

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

const ENDS = ['low', 'typical', 'high'] as const;

/** Several builds on one host, as they are planned alone. */
type Builds = { host: Host; given: readonly Member[]; plans: readonly PlanReport[]; ports: readonly Port[] };

/** What a member is at; a copy needs another build to go to. */
function taskOf({ given }: Builds, i: number): MemberTask {
  const { task } = given[i]!;
  if (typeof task !== 'object') return task;
  return task.copyTo === i || !given[task.copyTo] ? 'idle' : task;
}

/** What does not connect, or does not go in, is not plugged in either. */
const isPlugged = ({ plans }: Builds, i: number): boolean => plans[i]!.throughput.write !== null;

/** Lists what flows: for each member its legs through the host, and null where it moves nothing. */
const flowsOf = (set: Builds): (Flow | null)[] =>
  set.given.map((_, i) => {
    const task = taskOf(set, i);
    if (!isPlugged(set, i) || task === 'idle') return null;
    if (typeof task !== 'object') return { legs: [{ member: i, direction: task }], host: task };
    if (!isPlugged(set, task.copyTo)) return null;
    return {
      legs: [
        { member: i, direction: 'read' },
        { member: task.copyTo, direction: 'write' }
      ],
      host: null
    };
  });

/** Ports that share one controller or hub: what it carries, MB/s, and gives, W, and who is on it. */
type Group = {
  id: string;
  label: string;
  MBps: number;
  assumed: boolean;
  powerW: number | undefined;
  members: number[];
};

const groupsOf = ({ host, ports }: Builds): Group[] =>
  [...new Set(ports.flatMap((port) => port.shares ?? []))].map((id) => {
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

const diskLabel = (host: Host): string => `the disk of ${host.name}`;
const DIRECTIONS = ['read', 'write'] as const;
type End = (typeof ENDS)[number];

/** What flows go through, and how much of it, MB/s. */
type Resource = { label: string; capacity: (end: End) => number; flows: number[] };

/** Lists what is shared: both directions of a link run at once and are apart; so are the drives and the host's own disk. */
function resourcesOf(set: Builds, flows: readonly (Flow | null)[], groups: readonly Group[]): Resource[] {
  const { host, given, plans } = set;
  const using = (test: (flow: Flow) => boolean) => flows.flatMap((flow, i) => (flow && test(flow) ? [i] : []));
  const through = (members: readonly number[], direction: Direction) =>
    using(({ legs }) => legs.some((leg) => leg.direction === direction && members.includes(leg.member)));
  const resources: Resource[] = groups.flatMap(({ label, MBps, members }) =>
    DIRECTIONS.map((direction) => ({ label, capacity: () => MBps, flows: through(members, direction) }))
  );
  given.forEach(({ name }, member) => {
    if (!isPlugged(set, member)) return;
    for (const direction of DIRECTIONS)
      resources.push({
        label: name,
        capacity: (end) => plans[member]!.throughput[direction]![end],
        flows: through([member], direction)
      });
  });
  const disk = host.internalDisk;
  if (disk)
    for (const [direction, capacity] of [
      ['write', disk.readMBps],
      ['read', disk.writeMBps]
    ] as const)
      resources.push({
        label: diskLabel(host),
        capacity: () => capacity,
        flows: using((flow) => flow.host === direction)
      });
  return resources;
}

/** All flows at one end of the bands: what each could do alone, what it gets, MB/s, and what holds it back. */
type Point = { alone: number[]; rates: number[]; heldBy: (string | undefined)[] };

function shareAt(end: End, flows: readonly (Flow | null)[], resources: readonly Resource[]): Point {
  const alone = flows.map((flow, i) =>
    flow ? Math.min(...resources.filter((r) => r.flows.includes(i)).map((r) => r.capacity(end))) : 0
  );
  const busy = resources.filter((r) => r.flows.length > 0);
  const { rates, heldBy } = fairShares(
    alone,
    busy.map((r) => ({ capacity: r.capacity(end), flows: r.flows }))
  );
  return { alone, rates, heldBy: heldBy.map((r) => (r === undefined ? undefined : busy[r]!.label)) };
}

/** A share that is this near to what a build does alone is no loss. */
const AS_ALONE = 0.999;

function membersOf(set: Builds, flows: readonly (Flow | null)[], points: readonly Point[]): Together['members'] {
  /** Who shares gets less where the others are quick: the ends of the band are whichever of the three cases gives them. */
  const bandOf = (pick: (point: Point) => number): Band => {
    const values = points.map(pick) as [number, number, number];
    return { low: Math.min(...values), typical: values[1], high: Math.max(...values) };
  };
  return set.given.map(({ name }, i) => {
    const flow = flows[i];
    const alone = flow ? bandOf((point) => point.alone[i]!) : null;
    const shared = flow ? bandOf((point) => point.rates[i]!) : null;
    const held = points[1]!.heldBy[i];
    const slowed = held !== undefined && shared!.typical < alone!.typical * AS_ALONE;
    return {
      name,
      port: set.ports[i]!.label,
      task: taskOf(set, i),
      report: set.plans[i]!,
      alone,
      together: shared,
      heldBy: slowed ? [held] : []
    };
  });
}

/** Adds up what goes through some members in a direction, typical, MB/s. */
const throughOf =
  (flows: readonly (Flow | null)[], { rates }: Point) =>
  (members: readonly number[], direction: Direction): number =>
    flows.reduce((sum, flow, i) => {
      const goes = flow?.legs.some((leg) => members.includes(leg.member) && leg.direction === direction);
      return sum + (goes ? rates[i]! : 0);
    }, 0);
type Through = ReturnType<typeof throughOf>;

const sharedLoads = (groups: readonly Group[], through: Through): SharedLoad[] =>
  groups.map(({ powerW: _w, ...group }) => {
    const [read, write] = [through(group.members, 'read'), through(group.members, 'write')];
    return { ...group, read, write, full: Math.max(read, write) >= group.MBps * AS_ALONE };
  });

function powerLoads(set: Builds, groups: readonly Group[], through: Through): PowerLoad[] {
  const watts = set.given.map(({ input }, i): [number, number] =>
    isPlugged(set, i) ? wattsOf(input, Math.max(through([i], 'read'), through([i], 'write'))) : [0, 0]
  );
  return groups.flatMap(({ label, powerW, members }): PowerLoad[] => {
    if (powerW === undefined) return [];
    const [steadyW, peakW] = [0, 1].map((k) => members.reduce((sum, i) => sum + watts[i]![k]!, 0)) as [number, number];
    const enough = steadyW > powerW ? 'no' : peakW > powerW ? 'peak' : 'yes';
    return [{ label, members, steadyW, peakW, budgetW: powerW, enough }];
  });
}

type Found = Together['findings'][number];

/** Says which builds are on one port, and which do not work at all. */
function portFindings({ given, plans }: Builds): Found[] {
  const taken = new Map<string, string[]>();
  given.forEach(({ name, input }) => taken.set(input.portId, [...(taken.get(input.portId) ?? []), name]));
  const twice = [...taken.values()].filter((names) => names.length > 1);
  return [
    ...twice.map((names): Found => ({
      severity: 'fail',
      message: `${names.join(' and ')} are on the same port.`,
      remedy: 'Give each a port of its own, or put a hub in between and say so at the port.'
    })),
    ...given.flatMap(({ name }, i): Found[] => {
      const { verdict, findings } = plans[i]!;
      const [worst] = findings;
      return verdict === 'fails'
        ? [
            {
              severity: 'fail',
              message: `${name} does not work on its port: ${worst!.message}`,
              remedy: worst!.remedy ?? ''
            }
          ]
        : [];
    })
  ];
}

/** Says which controller or hub is full, and whom it slows down. */
const fullFinding = (load: SharedLoad, members: Together['members']): Found[] => {
  const slowed = load.members.filter((i) => members[i]!.heldBy.includes(load.label)).map((i) => members[i]!.name);
  if (slowed.length === 0) return [];
  const what = slowed.length === 1 ? 'gets less than alone' : 'slow each other down';
  const assumed = load.assumed ? ' (assumed: its best port alone)' : '';
  return [
    {
      severity: 'limit',
      message: `${capital(load.label)} is full at ${rate(load.MBps)}${UNIT_SPACE}MB/s${assumed}: ${slowed.join(' and ')} ${what}.`,
      remedy: 'Put one of them on a port that does not share it, or let them work one after the other.'
    }
  ];
};

/** Says where a hub gives less than its builds want. What builds draw is an estimate, so that it only says to look. */
const powerFinding = (set: Builds, load: PowerLoad): Found[] => {
  if (load.enough === 'yes') return [];
  const names = load.members.filter((i) => isPlugged(set, i)).map((i) => set.given[i]!.name);
  const want = load.enough === 'no' ? load.steadyW : load.peakW;
  const when = load.enough === 'no' ? 'in steady work' : 'at their peak';
  return [
    {
      severity: 'check',
      message: `${capital(load.label)} gives ${quantity(load.budgetW, 'W')} in all; ${names.join(' and ')} want ${figure(want)}${UNIT_SPACE}W ${when}.`,
      remedy: 'Use a hub with its own supply, or move one of them. Do not run long writes before that.'
    }
  ];
};

/** Says who waits for the host's own disk. */
function diskFinding(host: Host, members: Together['members']): Found[] {
  const waiting = members.filter(({ heldBy }) => host.internalDisk && heldBy.includes(diskLabel(host)));
  if (waiting.length === 0) return [];
  return [
    {
      severity: 'limit',
      message: `The computer’s own disk cannot feed them all: ${waiting.map(({ name }) => name).join(' and ')} wait for it.`,
      remedy: 'Copy one after the other; together they take as long.'
    }
  ];
}

/**
 * Forecasts what several builds do on one host at once: each alone, all together, MB/s, and whether controllers, hubs and power, W,
 * carry it.
 * @throws RangeError if a build stands on a port that the host has not
 * @example together(aHost(), [{ name: 'a', input: anInput(), task: 'write' }]).members.length // 1
 */
export function together(host: Host, given: readonly Member[]): Together {
  const plans = given.map(({ input }) => plan(input, { workings: false }));
  const set: Builds = { host, given, plans, ports: given.map(({ input }) => portOf(host, input.portId)!) };
  const flows = flowsOf(set);
  const groups = groupsOf(set);
  const resources = resourcesOf(set, flows, groups);
  const points = ENDS.map((end) => shareAt(end, flows, resources));
  const members = membersOf(set, flows, points);
  const through = throughOf(flows, points[1]!);
  const shared = sharedLoads(groups, through);
  const power = powerLoads(set, groups, through);
  return {
    members,
    shared,
    power,
    findings: [
      ...portFindings(set),
      ...shared.flatMap((load) => fullFinding(load, members)),
      ...power.flatMap((load) => powerFinding(set, load)),
      ...diskFinding(host, members)
    ]
  };
}

/** Gives the steady and peak power of a build that moves data at a rate, W; nothing where it has a supply of its own. */
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
