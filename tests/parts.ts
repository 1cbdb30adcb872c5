import type { Cable } from '#core/parts/cable';
import type { Drive } from '#core/parts/drive';
import type { Enclosure } from '#core/parts/enclosure';
import type { Host, Port } from '#core/parts/host';
import type { PlanInput } from '#core/plan/report';

/** Parts with round figures for the tests; each takes what a case changes. */
export const aDrive = (change: Partial<Drive> = {}): Drive => ({
  kind: 'drive',
  name: 'Test T4 2TB',
  media: 'nvme',
  formFactor: 'm2',
  m2LengthMm: 80,
  m2Key: 'M',
  capacityTB: 2,
  pcie: { generation: 4, lanes: 4 },
  readMBps: 7000,
  writeMBps: 6000,
  flash: { cell: 'tlc', dram: true, cacheGB: 200, cacheKind: 'fixed', postCacheWriteMBps: 1500, drainMBps: 0 },
  sides: 'single',
  ...change
});

export const anEnclosure = (change: Partial<Enclosure> = {}): Enclosure => ({
  kind: 'enclosure',
  name: 'Test 40',
  formFactor: 'm2',
  protocols: ['nvme'],
  m2LengthsMm: [80],
  m2Keys: ['M'],
  modes: ['usb4-40g', 'tbt3-40g', 'usb-10g'],
  plug: 'usb-c',
  downstreamPcie: { generation: 4, lanes: 4 },
  uas: true,
  trim: true,
  clearanceTopMm: 2,
  // Large enough that nothing gets hot: heat has tests of its own.
  cooling: { kind: 'passive', areaCm2: 600, massG: 400 },
  takesDoubleSided: false,
  ...change
});

export const aCable = (change: Partial<Cable> = {}): Cable => ({
  kind: 'cable',
  name: 'Test C-C',
  ends: ['usb-c', 'usb-c'],
  lengthM: 0.8,
  modes: ['usb4-40g'],
  ...change
});

export const aPort = (change: Partial<Port> = {}): Port => ({
  id: 'p',
  label: 'port',
  plug: 'usb-c',
  modes: ['usb4-40g'],
  powerW: 15,
  ...change
});

export const aHost = (port: Partial<Port> = {}, change: Partial<Host> = {}): Host => ({
  kind: 'host',
  name: 'Test host',
  os: { family: 'linux', version: '6.1' },
  ports: [aPort(port)],
  ...change
});

export const anInput = (change: Partial<PlanInput> = {}): PlanInput => ({
  host: aHost(),
  portId: 'p',
  cable: aCable(),
  enclosure: anEnclosure(),
  drive: aDrive(),
  ...change
});
