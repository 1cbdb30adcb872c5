import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import { modesOf } from '../chain/modes.ts';
import { negotiate, modeRank } from '../chain/negotiate.ts';
import { plan } from './plan.ts';
import { portOf } from './resolve-build.ts';
import type { PlanInput, PlanReport } from './report.ts';

/** What the chain does when it comes up in a lower mode than it could, and when that happens. */
export type Fallback = { mode: LinkMode; label: string; when: string; report: PlanReport };

function whenOf(mode: LinkMode): string {
  const { carrier, lineGbps } = LINK_MODES[mode];
  if (mode === 'usb2') return 'a charging cable, a worn or dirty plug, an old active cable';
  if (carrier === 'usb3')
    return lineGbps <= 5 ? 'a USB-A port, an old hub' : 'an adapter, a hub, a cable without a mark';
  return 'a cable of the older standard, a port that shares its lanes';
}

/**
 * Gives the lower modes that port, cable and enclosure share: what a bad cable, an adapter or a hub makes of this build. A build that
 * measures like one of these fell back to it.
 */
export function fallbacks(input: PlanInput): Fallback[] {
  const port = portOf(input.host, input.portId);
  if (!port) return [];
  const { mode, sets } = negotiate(port, input.cable, input.enclosure);
  if (mode === null) return [];
  const seen = new Set([modeRank(mode)]);
  const lower = modesOf(sets.port & sets.cable & sets.bridge).filter((id) => {
    if (modeRank(id) >= modeRank(mode) || seen.has(modeRank(id))) return false;
    seen.add(modeRank(id));
    return true;
  });
  return lower.flatMap((id): Fallback[] => {
    // The port stands for whatever held the chain down: its own list ends there.
    const ports = input.host.ports.map((p) => (p.id === port.id ? { ...p, modes: [id] } : p));
    const report = plan({ ...input, host: { ...input.host, ports } }, { workings: false });
    return report.link.mode === id && report.throughput.write
      ? [{ mode: id, label: LINK_MODES[id].label, when: whenOf(id), report }]
      : [];
  });
}
