import type { PlanInput } from '#core/plan/report';
import { seeded } from '#core/quantities/random';
import { aCable, aDrive, anEnclosure, aHost } from './parts';

/**
 * Builds that work, made to warm in every way: cases from a matchbox to a finned block, of metal and of plastic, with and without
 * a fan, lying, standing and on cloth, pads that fit, that do not, and none, rooms from cool to a car in the sun, drives of every kind
 * from empty to full, disks behind links and host disks of every speed, jobs long and short.
 */
export function* warmBuilds(seed: number, count: number): Generator<PlanInput> {
  const random = seeded(seed);
  const some = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const between = (low: number, high: number) => low + random() * (high - low);
  const maybe = <T>(share: number, value: () => T): T | undefined => (random() < share ? value() : undefined);
  const given = <T extends object>(object: T): T =>
    Object.fromEntries(Object.entries(object).filter(([, value]) => value !== undefined)) as T;
  for (let i = 0; i < count; i++) {
    const kind = some(['m2', 'm2', 'm2', 'm2', 'sata', 'disk'] as const);
    const mode =
      kind === 'm2'
        ? some(['usb4-40g', 'usb4-40g', 'usb-10g', 'usb-20g'] as const)
        : some(['usb-10g', 'usb-5g', 'usb2', 'usb4-40g'] as const);
    const formFactor = kind === 'm2' ? 'm2' : kind === 'sata' ? '2.5in' : some(['2.5in', '3.5in'] as const);
    const clearanceTopMm = maybe(0.7, () => some([1.6, 1.8, 2, 2.4, 3]));
    // Some hosts have a disk that is slower than anything behind them.
    const range: [number, number] = random() < 0.4 ? [60, 260] : [800, 7000];
    yield given({
      host: aHost(
        { modes: [mode] },
        given({
          internalDisk: maybe(0.4, () =>
            given({
              readMBps: between(...range),
              writeMBps: between(...range),
              cacheGB: maybe(0.5, () => between(5, 200)),
              postCacheWriteMBps: maybe(0.6, () => between(30, 2000))
            })
          )
        })
      ),
      portId: 'p',
      cable: aCable({ modes: [mode], ends: ['usb-c', 'usb-c'] }),
      enclosure: given({
        ...anEnclosure({ modes: [mode] }),
        formFactor,
        protocols: kind === 'm2' ? ['nvme' as const] : ['sata' as const],
        clearanceTopMm,
        externalSupply: formFactor === '3.5in' ? true : undefined,
        cooling: maybe(0.85, () =>
          given({
            kind: some(['passive', 'passive', 'passive', 'fan'] as const),
            areaCm2: maybe(0.9, () => between(16, 230)),
            stands: maybe(0.4, () => some(['flat', 'edge', 'cloth'] as const)),
            massG: maybe(0.8, () => between(30, 300)),
            finsCm2: maybe(0.2, () => between(50, 200)),
            material: maybe(0.4, () => some(['aluminium', 'plastic'] as const)),
            finish: maybe(0.2, () => some(['coated', 'bare'] as const))
          })
        )
      }),
      drive:
        kind === 'disk'
          ? {
              kind: 'drive' as const,
              name: 'disk',
              media: 'hdd' as const,
              formFactor,
              thicknessMm: formFactor === '3.5in' ? 26.1 : 9.5,
              capacityTB: some([1, 2, 4, 8]),
              fillFraction: maybe(0.6, () => some([0, 0.2, 0.55, 0.7, 0.98])),
              disk: { outerMBps: between(120, 260), innerMBps: between(50, 115), recording: 'cmr' as const }
            }
          : given({
              ...aDrive(),
              media: kind === 'm2' ? ('nvme' as const) : ('sata-ssd' as const),
              formFactor,
              m2LengthMm: kind === 'm2' ? (80 as const) : undefined,
              m2Key: kind === 'm2' ? ('M' as const) : undefined,
              pcie: kind === 'm2' ? { generation: some([3, 4, 5] as const), lanes: 4 as const } : undefined,
              thicknessMm: kind === 'm2' ? undefined : 7,
              capacityTB: some([0.5, 1, 2, 4]),
              readMBps: kind === 'm2' ? between(2500, 12000) : 560,
              writeMBps: kind === 'm2' ? between(1500, 11000) : between(300, 540),
              fillFraction: maybe(0.4, () => some([0, 0.3, 0.8, 0.97, 1])),
              m2HeightCode: kind === 'm2' ? maybe(0.2, () => some(['S1', 'S3', 'D2', 'D5'] as const)) : undefined,
              label: maybe(0.5, () => some(['paper', 'metal'] as const)),
              throttle: maybe(0.5, () => ({ startC: between(60, 82) })),
              power: maybe(0.2, () => ({ idleW: between(0.5, 2.5) })),
              flash: given({
                cell: some(['tlc', 'tlc', 'qlc', 'mlc'] as const),
                cacheKind: some(['fixed', 'dynamic'] as const),
                cacheGB: maybe(0.7, () => between(10, 400)),
                postCacheWriteMBps: maybe(0.7, () => between(80, 2400)),
                drainMBps: maybe(0.3, () => between(0, 300))
              })
            }),
      pads: maybe(0.7, () =>
        [0.5, 1, 1.5].map((thicknessMm) => ({
          kind: 'pad' as const,
          name: `pad ${thicknessMm}`,
          thicknessMm,
          widthMm: 20,
          lengthMm: 70,
          conductivityWmK: between(1.5, 12)
        }))
      ),
      stack: maybe(0.2, () => ({ pieces: [1, 3, 4].map((component) => ({ component, layers: [] })) })),
      job: {
        name: 'job',
        purposes: ['scratch' as const],
        transferGB: some([30, 120, 420, 900, 2400]) * between(0.6, 1),
        files: Math.round(between(1, 20000)),
        direction: some(['in', 'in', 'in', 'out', 'both'] as const),
        ambientC: some([18, 24, 30, 38, 45])
      }
    }) as PlanInput;
  }
}
