/**
 * The lane: a chain drawn as one channel on a floor line, each stage as high as the square root of its MB/s on one fixed
 * scale, so that a link four times as fast stands twice as high and USB 2.0 can still be seen.
 */

/** 6100 MB/s stands 106 px high; 2900: 73, 1000: 43, 38: 8. */
const PX_PER_ROOT = 106 / Math.sqrt(6100);
/** What is faster than this is cut off, with a torn edge. */
export const TOP_MBPS = 8000;

/** Height over the floor in px. @throws RangeError below 0 */
export function laneHeight(mbps: number): number {
  if (!(mbps >= 0)) throw new RangeError(`no rate: ${mbps}`);
  return PX_PER_ROOT * Math.sqrt(Math.min(mbps, TOP_MBPS));
}

export type LaneStep = { x: number; width: number; height: number; cut: boolean };

/** Equal columns over the width, one for each stage. */
export function laneSteps(rates: readonly number[], width: number): LaneStep[] {
  const column = rates.length > 0 ? width / rates.length : 0;
  return rates.map((rate, i) => ({ x: i * column, width: column, height: laneHeight(rate), cut: rate > TOP_MBPS }));
}

/**
 * The outline of the channel as an SVG path: flat over each stage, with a slope as wide as `slope` between two stages.
 * @param floor y of the floor line
 */
export function lanePath(steps: readonly LaneStep[], floor: number, slope: number): string {
  const [first] = steps;
  if (!first) return '';
  const y = (step: LaneStep) => round(floor - step.height);
  let path = `M${round(first.x)} ${floor}V${y(first)}`;
  for (const [i, step] of steps.entries()) {
    const next = steps[i + 1];
    const end = step.x + step.width;
    if (!next) {
      path += `H${round(end)}`;
      break;
    }
    const half = Math.min(slope, step.width) / 2;
    path += `H${round(end - half)}C${round(end)} ${y(step)} ${round(end)} ${y(next)} ${round(end + half)} ${y(next)}`;
  }
  return `${path}V${floor}Z`;
}

const round = (value: number) => Math.round(value * 10) / 10;

/** Share of a bar on the same square-root scale, 0..1. */
export function barShare(mbps: number): number {
  return Math.sqrt(Math.min(Math.max(mbps, 0), TOP_MBPS) / TOP_MBPS);
}
