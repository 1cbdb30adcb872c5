import type { Draw } from '../../chain/power-draw.ts';
import { networkOf, type Network } from './network.ts';
import type { ThermalGeometry } from './geometry.ts';
import type { ThermalParameters } from './parameters.ts';

/** A build at one setting of its parameters, with the network that follows from it. */
export type Setting = { geometry: ThermalGeometry; draw: Draw; parameters: ThermalParameters; network: Network };

/** Puts a build at one setting of its parameters. */
export const settingAt = (geometry: ThermalGeometry, draw: Draw, parameters: ThermalParameters): Setting => ({
  geometry,
  draw,
  parameters,
  network: networkOf(geometry, parameters)
});
