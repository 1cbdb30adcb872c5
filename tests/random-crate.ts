import type { LinkMode, Plug } from '#core/facts/link-modes';
import { OS_FAMILIES } from '#core/facts/filesystems';
import { HEIGHT_CODES, type Drive } from '#core/parts/drive';
import type { Cable } from '#core/parts/cable';
import type { Enclosure } from '#core/parts/enclosure';
import type { Host, Port } from '#core/parts/host';
import type { Job } from '#core/parts/job';
import type { Quote } from '#core/parts/quote';
import type { RankInput } from '#core/compare/ranking/request';
import { seeded } from '#core/quantities/random';

const LENGTHS = [[80], [60, 80], [42, 60, 80], [110]] as const;

type Sizes = { hosts: number; portsEach: number; cables: number; enclosures: number; drives: number };

/**
 * An invented crate: parts that are stated in full and parts of which hardly anything is known, ports with several modes in any
 * order, every system, disks behind anything, drives from empty to full, things that fit and things that do not, prices in one
 * currency or two, and parts without a price.
 */
export function randomCrate(seed: number, sizes: Sizes, more: { plain?: boolean } = {}): RankInput {
  const random = seeded(seed);
  const some = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const chance = (share: number) => random() < share;
  const between = (low: number, high: number, step = 1) => Math.round((low + random() * (high - low)) / step) * step;
  const maybe = <K extends string, T>(key: K, share: number, value: () => T): { [key in K]?: T } =>
    (chance(share) ? { [key]: value() } : {}) as { [key in K]?: T };
  let serial = 0;
  const id = () => String((serial += 1)).padStart(26, '0');

  const usb: LinkMode[] = ['usb2', 'usb-5g', 'usb-10g', 'usb-20g'];
  const fast: LinkMode[] = ['usb4-20g', 'usb4-40g', 'tbt3-20g', 'tbt3-40g', 'tbt4-40g', 'tbt5-80g'];
  /** One to four of a list, in any order. */
  const several = <T>(list: readonly T[]): T[] => {
    const from = [...list];
    return Array.from({ length: Math.min(from.length, between(1, 4)) }, () =>
      from.splice(Math.floor(random() * from.length), 1)
    ).flat();
  };
  const portModes = (plug: Plug): LinkMode[] =>
    plug === 'esata'
      ? several(['esata-3g', 'esata-6g', ...(chance(0.2) ? (['usb-5g'] as const) : [])] as const)
      : plug === 'usb-a'
        ? several(usb)
        : several([...usb, ...fast]);

  const hosts = Array.from({ length: sizes.hosts }, (_, h): Host => ({
    kind: 'host',
    id: id(),
    name: `Host ${h}`,
    os: {
      family: some([...OS_FAMILIES, 'macos', 'windows', 'linux', 'linux'] as const),
      ...maybe('version', 0.5, () =>
        some(['4.19', '5.10', '6.1', '8', '10.12', '10.14', '11', '12', '13', '14.2', '16'])
      )
    },
    ...maybe('internalDisk', 0.6, () => ({
      readMBps: between(chance(0.3) ? 40 : 400, 7000),
      writeMBps: between(chance(0.3) ? 40 : 400, 6000),
      ...maybe('cacheGB', 0.5, () => between(10, 300)),
      ...maybe('postCacheWriteMBps', 0.5, () => between(100, 2500))
    })),
    ports: Array.from({ length: sizes.portsEach }, (_, p): Port => {
      const plug = some(['usb-c', 'usb-c', 'usb-c', 'usb-a', 'esata'] as const);
      return {
        id: `p${p}`,
        label: `port ${p}`,
        plug,
        modes: portModes(plug),
        ...maybe('powerW', 0.6, () => some([2.5, 4.5, 7.5, 15])),
        ...maybe('tunnelMBps', 0.2, () => between(2000, 3500, 100)),
        ...maybe('writeCapMBps', 0.15, () => between(700, 2000, 100)),
        ...maybe('uas', 0.3, () => chance(0.5)),
        ...maybe('tunnelsPcie', 0.1, () => chance(0.6)),
        ...maybe('via', 0.15, () => some(['hub', 'bus-powered-hub', 'adapter'] as const))
      };
    })
  }));
  const cables = Array.from({ length: sizes.cables }, (_, c): Cable => {
    const ends = some([
      ['usb-c', 'usb-c'],
      ['usb-c', 'usb-c'],
      ['usb-a', 'usb-c'],
      ['usb-a', 'usb-b'],
      ['esata', 'esata']
    ] as const);
    return {
      kind: 'cable',
      id: id(),
      name: `Cable ${c}`,
      ends: [...ends],
      modes:
        ends[0] === 'esata'
          ? ['esata-6g']
          : ends[0] === 'usb-a'
            ? [some(usb.slice(0, 3))]
            : several([...usb, 'usb4-40g', 'tbt3-20g', 'tbt3-40g', 'tbt5-80g'] as const),
      ...maybe('lengthM', 0.8, () => between(0.3, 3, 0.1)),
      ...maybe('active', 0.2, () => true),
      ...maybe('certified', 0.2, () => chance(0.7)),
      ...maybe('yLead', 0.1, () => true)
    };
  });
  const enclosures = Array.from({ length: sizes.enclosures }, (_, e): Enclosure => {
    const formFactor = more.plain ? 'm2' : some(['m2', 'm2', 'm2', '2.5in', '3.5in'] as const);
    const nvme = formFactor === 'm2';
    const plug = nvme ? 'usb-c' : some(['usb-c', 'usb-b', 'esata'] as const);
    const modes: LinkMode[] =
      plug === 'esata'
        ? ['esata-6g']
        : [some(nvme ? [...usb.slice(2), ...fast] : usb.slice(1)), ...(chance(0.5) ? (['usb-10g'] as const) : [])];
    return {
      kind: 'enclosure',
      id: id(),
      name: `Case ${e}`,
      formFactor,
      protocols: nvme ? some([['nvme'], ['nvme'], ['nvme', 'sata'], ['sata']] as const).slice() : ['sata'],
      modes: [...new Set(modes)],
      plug,
      ...maybe('captiveCable', 0.1, () => true),
      ...maybe('morePlugs', 0.05, () => ['usb-a'] as Plug[]),
      ...(nvme ? maybe('m2LengthsMm', 0.7, () => [...some(LENGTHS)]) : {}),
      ...(nvme
        ? maybe('downstreamPcie', 0.6, () => ({ generation: some([3, 4] as const), lanes: some([2, 4] as const) }))
        : {}),
      ...maybe('uas', 0.6, () => chance(0.8)),
      ...maybe('trim', 0.5, () => chance(0.7)),
      ...maybe('cooling', 0.5, () => ({
        kind: some(['passive', 'fan'] as const),
        ...maybe('areaCm2', 0.5, () => between(12, 250)),
        ...maybe('material', 0.3, () => some(['aluminium', 'plastic'] as const)),
        ...maybe('stands', 0.3, () => some(['flat', 'edge', 'cloth'] as const))
      })),
      ...maybe('bridgePowerW', 0.2, () => between(0.5, 4, 0.1)),
      ...maybe('idleW', 0.2, () => between(0.6, 4, 0.1)),
      ...maybe('sectorBytes', 0.1, () => some([512, 4096] as const)),
      ...maybe('clearanceBottomMm', 0.3, () => between(0.5, 2, 0.1)),
      ...maybe('includedCables', 0.3, () => [
        {
          kind: 'cable' as const,
          name: 'in the box',
          ends: some([
            ['usb-c', plug],
            ['usb-a', plug]
          ] as const).slice() as [Plug, Plug],
          modes: several(usb)
        },
        {
          kind: 'cable' as const,
          name: 'also in it',
          ends: ['usb-c', plug] as [Plug, Plug],
          modes: several([...usb, ...fast])
        }
      ]),
      ...maybe('clearanceTopMm', 0.5, () => between(1.5, 4, 0.5)),
      ...maybe('takesDoubleSided', 0.5, () => chance(0.5)),
      ...maybe('maxCapacityTB', 0.4, () => some([2, 4, 8, 16])),
      ...maybe('externalSupply', 0.3, () => chance(0.6)),
      ...maybe('bridge', 0.3, () => some(['B1', 'B2'])),
      ...maybe('includedPads', 0.3, () => [
        { kind: 'pad' as const, name: 'p', thicknessMm: some([0.5, 1, 1.5]), widthMm: 20, lengthMm: 70 }
      ])
    };
  });
  const drives = Array.from({ length: sizes.drives }, (_, d): Drive => {
    const media = more.plain ? 'nvme' : some(['nvme', 'nvme', 'nvme', 'sata-ssd', 'hdd'] as const);
    const formFactor =
      media === 'nvme' ? 'm2' : media === 'hdd' ? some(['2.5in', '3.5in'] as const) : some(['m2', '2.5in'] as const);
    return {
      kind: 'drive',
      id: id(),
      name: `Drive ${d}`,
      media,
      formFactor,
      capacityTB: some([0.25, 0.5, 1, 2, 4, 8]),
      ...(formFactor === 'm2' ? maybe('m2LengthMm', 0.7, () => some([42, 60, 80, 80, 80, 110] as const)) : {}),
      ...maybe('readMBps', 0.7, () => (media === 'nvme' ? between(1500, 14_000, 50) : between(100, 560, 10))),
      ...maybe('writeMBps', 0.7, () => (media === 'nvme' ? between(800, 12_000, 50) : between(100, 530, 10))),
      ...(media === 'nvme'
        ? maybe('pcie', 0.6, () => ({ generation: some([3, 4, 5] as const), lanes: some([2, 4] as const) }))
        : {}),
      ...(media === 'hdd'
        ? maybe('disk', 0.6, () => ({
            recording: some(['cmr', 'smr', 'unknown'] as const),
            outerMBps: between(100, 280),
            ...maybe('innerMBps', 0.5, () => between(40, 100))
          }))
        : maybe('flash', 0.7, () => ({
            cell: some(['tlc', 'qlc'] as const),
            dram: chance(0.5),
            ...maybe('cacheGB', 0.5, () => between(20, 500)),
            ...maybe('postCacheWriteMBps', 0.5, () => between(80, 2000, 10))
          }))),
      ...maybe('sides', 0.5, () => some(['single', 'double'] as const)),
      ...maybe('heatsinkMm', 0.08, () => 8),
      ...maybe('fillFraction', 0.3, () => some([0, 0.25, 0.6, 0.9, 0.97, 1])),
      ...(formFactor === 'm2' ? maybe('m2HeightCode', 0.3, () => some(HEIGHT_CODES)) : {}),
      ...maybe('label', 0.3, () => some(['paper', 'metal', 'none'] as const)),
      ...maybe('power', 0.4, () => ({
        ...maybe('idleW', 0.6, () => between(0.3, 2, 0.1)),
        ...maybe('activeW', 0.7, () => between(2, 14, 0.5)),
        ...maybe('peakW', 0.4, () => between(3, 15, 0.5))
      })),
      ...maybe('enduranceTBW', 0.4, () => between(100, 2400, 100)),
      ...(formFactor === 'm2'
        ? maybe('components', 0.4, () => [
            {
              role: 'controller' as const,
              side: 'top' as const,
              xMm: 5,
              yMm: 5,
              widthMm: 12,
              lengthMm: 12,
              heightMm: 1.2
            }
          ])
        : {})
    };
  });
  const job: Job = {
    name: 'job',
    purposes: several(['scratch', 'exchange', 'backup', 'boot', 'archive', 'camera'] as const),
    transferGB: some([20, 120, 420, 900]),
    direction: some(['in', 'out', 'both'] as const),
    ...maybe('files', 0.5, () => between(10, 200_000)),
    ...maybe('perDay', 0.4, () => between(1, 3)),
    ...maybe('largestFileGB', 0.3, () => between(1, 20)),
    ...maybe('minSustainedWriteMBps', 0.3, () => between(200, 2000, 100)),
    ...maybe('readHosts', 0.4, () => [{ family: some(OS_FAMILIES) }])
  };
  const pads =
    chance(0.5) && !more.plain
      ? [0.5, 1, 2].map((thicknessMm) => ({
          kind: 'pad' as const,
          id: id(),
          name: `Pad ${thicknessMm}`,
          thicknessMm,
          widthMm: 20,
          lengthMm: 70
        }))
      : undefined;
  const dollars = !more.plain && chance(0.4);
  const quote = (partId: string, list: number): Quote => ({
    partId,
    vendor: some(['Depot', 'Markt']),
    date: `2026-0${between(1, 9)}-01`,
    currency: dollars && chance(0.4) ? 'USD' : 'EUR',
    list,
    ...maybe('shipping', 0.3, () => between(0, 9, 0.1)),
    ...maybe('discountPercent', 0.2, () => between(0, 30))
  });
  const quotes = [
    ...drives.map((d) => quote(d.id!, Math.round(30 + d.capacityTB * between(40, 90)))),
    ...enclosures.map((e) => quote(e.id!, between(10, 180))),
    ...cables.map((c) => quote(c.id!, between(4, 60))),
    ...(pads ?? []).map((p) => quote(p.id, between(3, 12)))
  ].filter(() => more.plain || chance(0.9));
  const parts = [...drives, ...enclosures, ...cables];
  return {
    hosts,
    cables: more.plain || chance(0.9) ? cables : [],
    enclosures,
    drives,
    ...(pads ? { pads } : {}),
    job,
    quotes,
    ...(dollars
      ? {
          exchange: {
            currency: 'EUR',
            rates: chance(0.6) ? [{ from: 'USD', to: 'EUR', rate: 0.9, date: '2026-05-01' }] : []
          }
        }
      : {}),
    ...(chance(0.4)
      ? { houseRules: { 'gap-not-closed': 'stack', 'write-cache': some(['quick-removal', 'performance']) } }
      : {}),
    ...(chance(0.3)
      ? { knownPairs: [{ drive: 'Drive 1', bridge: 'B1', verdict: 'bad' as const, reason: 'drops out' }] }
      : {}),
    stock: Object.fromEntries(parts.filter(() => chance(0.4)).map((part) => [part.id!, 1]))
  };
}
