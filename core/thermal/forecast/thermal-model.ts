import { drawOf, type Draw } from '../../chain/power-draw.ts';
import type { LinkMode } from '../../facts/link-modes.ts';
import type { HouseRules } from '../../house-rules/house-rules.ts';
import { thermalGeometry, type BuildParts, type Stands, type ThermalGeometry } from '../model/geometry.ts';
import { typicalParameters, type ParameterSources } from '../model/parameters.ts';
import { settingAt, type Setting } from '../model/setting.ts';
import { throttleLimits, type ThrottleLimits } from '../throttling/throttle.ts';

/** Geometry, heat and typical parameters of a build; uncertain parameters are resolved later, by `likelyCases()`. */
export type ThermalModel = {
  geometry: ThermalGeometry;
  draw: Draw;
  sources: ParameterSources;
  limits: ThrottleLimits | null;
  typical: Setting;
};

export type Circumstances = {
  ambientC?: number | undefined;
  /** Instead of what the enclosure has. */
  fan?: boolean | undefined;
  /** Without any pads. */
  bare?: boolean | undefined;
  /** Instead of how it stands by its enclosure. */
  stands?: Stands | undefined;
};

/**
 * Makes the thermal model of a build in a mode of its bridge.
 * @param mode null without a common mode: the bridge then rests
 * @param circumstances what differs from the parts; ambient in °C
 */
export function thermalModel(
  parts: BuildParts,
  mode: LinkMode | null,
  rules: HouseRules | undefined,
  circumstances: Circumstances = {}
): ThermalModel {
  const { drive, enclosure } = parts;
  const { cooling } = enclosure.enclosure;
  const { ambientC, bare } = circumstances;
  const fan = circumstances.fan ?? cooling?.kind === 'fan';
  const stands = circumstances.stands ?? cooling?.stands ?? 'flat';
  const geometry = thermalGeometry(parts, { fan, bare: bare === true, stands });
  const draw = drawOf(drive, enclosure, mode, fan);
  const sources: ParameterSources = { drive, enclosure, draw, rules, ambientC, fan, desk: geometry.deskM2 > 0 };
  return {
    geometry,
    draw,
    sources,
    limits: throttleLimits(drive.drive),
    typical: settingAt(geometry, draw, typicalParameters(sources))
  };
}

/** Makes the model of the same build behind a bridge in another mode: it draws otherwise, and nothing else of it changes. */
export function thermalModelInMode(
  mode: LinkMode,
  { geometry, sources: of, limits, typical }: ThermalModel
): ThermalModel {
  const draw = drawOf(of.drive, of.enclosure, mode, of.fan);
  const other: ParameterSources = { ...of, draw };
  // Bodies, paths and surface hang on nothing that a mode moves.
  return {
    geometry,
    draw,
    sources: other,
    limits,
    typical: { ...typical, draw, parameters: typicalParameters(other) }
  };
}
