import type { ObservationInput } from '#core/temperature-logs/observation';
import type { BuildStage } from '#core/build/stages';
import type { Fault } from '#core/simulate/pair-check';

/** Parts by name; `runs` are results of the simulated rig: day, seed, and the fault it plays. */
export type DemoBuild = {
  name: string;
  stage: BuildStage;
  planned: string;
  host: string;
  port: string;
  cable?: string;
  enclosure: string;
  drive: string;
  job?: string;
  runs?: readonly { date: string; seed: number; fault?: Fault }[];
  /** Pads that were laid in, by their names: which chip, and from which pad. */
  pads?: readonly { component: number; pad: string }[];
  seen?: readonly ObservationInput[];
};

/** Temperatures that somebody read off the case or had the drive report. */
const temperature = (
  date: string,
  place: 'controller' | 'nand' | 'case',
  ambientC: number,
  work: 'read' | 'write' | 'post',
  MBps: number,
  points: readonly [minutes: number, C: number][],
  idleC?: number
  // eslint-disable-next-line max-params -- a row of the demo data
): ObservationInput => ({
  kind: 'temperature',
  date,
  seen: {
    ambientC,
    place,
    work,
    MBps,
    points: points.map(([minutes, C]) => ({ minutes, C })),
    ...(idleC === undefined ? {} : { idleC })
  }
});

export const DEMO_BUILDS: readonly DemoBuild[] = [
  {
    name: 'Scan-day carrier',
    stage: 'planned',
    planned: '2026-11-18',
    host: 'Kiln',
    port: 'u4',
    cable: 'Rush C-C 10G',
    enclosure: 'Trivet 40',
    drive: 'Chert T4 2TB',
    job: 'Scan day'
  },
  {
    name: 'Curator’s project drive',
    stage: 'in service',
    planned: '2026-02-03',
    host: 'Moss',
    port: 't1',
    cable: 'Withy 0.8 40G',
    enclosure: 'Bellows 40',
    drive: 'Chert T4 4TB',
    runs: [
      { date: '2026-02-14', seed: 21 },
      { date: '2026-05-16', seed: 22 },
      { date: '2026-09-30', seed: 23 }
    ],
    seen: [
      {
        kind: 'imprint',
        date: '2026-02-05',
        seen: {
          chips: [
            { component: 0, role: 'controller', side: 'top', padsMm: [2], onChip: 'even', onCase: 'even' },
            { component: 1, role: 'nand', side: 'top', padsMm: [2], onChip: 'even', onCase: 'even' },
            { component: 2, role: 'nand', side: 'bottom', padsMm: [1], onChip: 'even', onCase: 'uneven' }
          ],
          note: 'dry fit, liners on'
        }
      },
      temperature(
        '2026-02-16',
        'case',
        21,
        'read',
        2900,
        [
          [5, 33],
          [10, 36],
          [15, 37.5],
          [20, 38.1],
          [25, 38.4]
        ],
        29
      ),
      temperature(
        '2026-02-16',
        'controller',
        21,
        'read',
        2900,
        [
          [5, 43],
          [15, 47.9],
          [25, 48.6]
        ],
        37
      ),
      temperature(
        '2026-05-18',
        'case',
        24,
        'post',
        1800,
        [
          [10, 43],
          [20, 45.5],
          [30, 46.2]
        ],
        32
      ),
      temperature('2026-05-18', 'controller', 24, 'post', 1800, [[30, 66.5]], 40)
    ]
  },
  {
    name: 'Field mirror',
    stage: 'formatted',
    planned: '2026-10-05',
    host: 'Drift',
    port: 'c1',
    cable: 'Rush C-C 10G',
    enclosure: 'Grate 10',
    drive: 'Marl Q4 4TB',
    job: 'Field mirror'
  },
  {
    name: 'Specimen archive',
    stage: 'in service',
    planned: '2026-01-12',
    host: 'Hedgerow',
    port: 'a1',
    cable: 'Rush A-B 5G',
    enclosure: 'Firedog Dock',
    drive: 'Gneiss H 8TB',
    job: 'Specimen archive',
    runs: [
      { date: '2026-01-20', seed: 41 },
      { date: '2026-07-21', seed: 42 }
    ]
  },
  {
    name: 'Bootable spare',
    stage: 'bought',
    planned: '2026-11-02',
    host: 'Moss',
    port: 't2',
    cable: 'Withy 0.8 40G',
    enclosure: 'Trivet 40',
    drive: 'Skarn T5 2TB',
    job: 'Bootable spare'
  },
  {
    name: 'Label photos',
    stage: 'benched',
    planned: '2026-08-09',
    host: 'Vasculum',
    port: 'c1',
    cable: 'Rush C-C 10G',
    enclosure: 'Hob Dual',
    drive: 'Silt M2S 500GB',
    job: 'Label photos',
    runs: [{ date: '2026-08-15', seed: 61 }]
  },
  {
    name: 'Imaging scratch',
    stage: 'benched',
    planned: '2026-10-20',
    host: 'Lantern',
    port: 't1',
    cable: 'Osier 0.8 80G',
    enclosure: 'Flue 80',
    drive: 'Skarn T5 2TB',
    runs: [
      { date: '2026-10-28', seed: 71 },
      { date: '2026-10-29', seed: 72 }
    ]
  },
  {
    name: 'Front desk exchange',
    stage: 'in service',
    planned: '2026-03-22',
    host: 'Hedgerow',
    port: 'a1',
    cable: 'Rush A-C 5G',
    enclosure: 'Brazier S',
    drive: 'Loam S6 1TB',
    runs: [
      { date: '2026-03-29', seed: 81 },
      { date: '2026-11-11', seed: 82, fault: 'usb2-fallback' }
    ]
  },
  {
    name: 'Two-lane trial',
    stage: 'assembled',
    planned: '2026-11-09',
    host: 'Kiln',
    port: 'u4',
    cable: 'Withy 2.0 20G',
    enclosure: 'Scuttle 20',
    drive: 'Chert T4 2TB'
  },
  {
    name: 'Second-hand case',
    stage: 'planned',
    planned: '2026-11-15',
    host: 'Drift',
    port: 'c1',
    cable: 'Withy 0.8 40G',
    enclosure: 'Cinderbox T3',
    drive: 'Chert T4 2TB'
  },
  {
    name: 'Old tower backup',
    stage: 'planned',
    planned: '2026-11-20',
    host: 'Hedgerow',
    port: 'e1',
    cable: 'Reed eSATA',
    enclosure: 'Bracken E',
    drive: 'Shale H 4TB'
  },
  {
    name: 'Bench spare',
    stage: 'benched',
    planned: '2026-06-01',
    host: 'Kiln',
    port: 'c1',
    cable: 'Rush C-C 10G',
    enclosure: 'Hob Dual',
    drive: 'Silt M2S 500GB',
    runs: [
      { date: '2026-06-04', seed: 121 },
      { date: '2026-06-05', seed: 122, fault: 'write-cache-off' },
      { date: '2026-06-06', seed: 123 }
    ]
  },
  {
    name: 'Pressed shut',
    stage: 'assembled',
    planned: '2026-09-14',
    host: 'Drift',
    port: 'c1',
    cable: 'Rush C-C 10G',
    enclosure: 'Grate 10',
    drive: 'Chert T4 2TB',
    // The thickest pad in the drawer: the lid had to be pressed shut, and the drive vanished under load.
    pads: [
      { component: 0, pad: 'Felt 2.0' },
      { component: 1, pad: 'Felt 2.0' }
    ]
  },
  {
    name: 'Quiet reader',
    stage: 'assembled',
    planned: '2026-10-11',
    host: 'Kiln',
    port: 'u4',
    cable: 'Withy 0.8 40G',
    enclosure: 'Trivet 40',
    drive: 'Skarn T5 2TB',
    pads: [
      { component: 0, pad: 'Felt 0.5' },
      { component: 1, pad: 'Felt 1.0' }
    ],
    seen: [
      {
        kind: 'imprint',
        date: '2026-10-12',
        seen: {
          chips: [
            { component: 0, role: 'controller', side: 'top', padsMm: [0.5], onChip: 'none', onCase: 'none' },
            { component: 1, role: 'nand', side: 'top', padsMm: [1], onChip: 'even', onCase: 'even' }
          ]
        }
      }
    ]
  },
  {
    name: 'Pocket copy',
    stage: 'planned',
    planned: '2026-11-21',
    host: 'Kiln',
    port: 'c2',
    cable: 'Rush C-C 10G',
    enclosure: 'Ingle P',
    drive: 'Chert T4 2TB',
    job: 'Scan day'
  },
  {
    name: 'Loan set',
    stage: 'bought',
    planned: '2026-11-23',
    host: 'Drift',
    port: 'c1',
    cable: 'Rush C-C 10G',
    enclosure: 'Hob Dual',
    drive: 'Silt M2S 500GB',
    job: 'Label photos'
  }
];
