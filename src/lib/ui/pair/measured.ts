import type { Choice } from '#core/build/choice';
import { portOption } from '#core/build/options';
import type { Measured } from './WhatIfPanel.svelte';

type Run = Measured & { hostId: string; portId: string; enclosureId: string; driveId: string };

/** What was measured of a drive in an enclosure, the newest result of each host and port. Runs come newest first. */
export function measuredByPort(runs: readonly Run[], choice: Partial<Choice>): Map<string, Measured> {
  const found = new Map<string, Measured>();
  for (const { hostId, portId, enclosureId, driveId, ...result } of runs) {
    const key = portOption(hostId, portId);
    if (enclosureId === choice.enclosureId && driveId === choice.driveId && !found.has(key)) found.set(key, result);
  }
  return found;
}
