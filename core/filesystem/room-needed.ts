import { quantity } from '../quantities/format.ts';

/** What room is needed for: how much of what there is has to find room, and why. Factors are estimates of practice. */
export const ROOM_USES = {
  work: { label: 'Working on it', times: 1, why: '' },
  carry: { label: 'Carrying data', times: 1, why: '' },
  backup: { label: 'Backups that keep old states', times: 2, why: 'old states take about as much again' },
  archive: { label: 'Keeping data for years', times: 1, why: '' },
  camera: { label: 'Recording', times: 1.2, why: 'takes are kept until they are copied twice' }
} as const;
export type RoomUse = keyof typeof ROOM_USES;

/** What drives are sold with, TB. */
export const SOLD_TB = [0.25, 0.5, 1, 2, 4, 8, 12, 16, 20, 24] as const;

export type RoomQuestion = {
  use: RoomUse;
  /** There now, TB. */
  nowTB: number;
  /** Per cent a year. */
  growth: number;
  years: number;
  /** Per cent of the drive that stay free. */
  reserve: number;
};
/** TB that are needed, the size that is sold above it (null where no single drive has it), and how it comes to that. */
export type RoomNeeded = { needTB: number; soldTB: number | null; steps: string[] };

/** What stays free so that flash finds blank blocks and a disk its fast outer tracks. */
export const USUAL_RESERVE = 20;
/** How data grows where nobody knows, per cent a year, and how long a drive is kept, years. */
export const USUAL_GROWTH = 20;
export const USUAL_YEARS = 3;

const round = (tb: number) => Number(tb.toPrecision(3));

/**
 * Gives how much room is needed: need = now x (1 + growth)^years x times / (1 - reserve).
 * @throws RangeError where the reserve is the whole drive or more, or something is below nought
 * @example roomNeeded({ use: 'work', nowTB: 1, growth: 0, years: 3, reserve: 20 }).needTB // 1.25
 */
export function roomNeeded({ use, nowTB, growth, years, reserve }: RoomQuestion): RoomNeeded {
  if (reserve >= 100 || Math.min(nowTB, growth, years, reserve) < 0)
    throw new RangeError('room cannot be worked out from this');
  const { times, why } = ROOM_USES[use];
  const grown = nowTB * (1 + growth / 100) ** years;
  const kept = grown * times;
  const needTB = round(kept / (1 - reserve / 100));
  const said = (tb: number) => quantity(round(tb), 'TB');
  return {
    needTB,
    soldTB: SOLD_TB.find((size) => size >= needTB) ?? null,
    steps: [
      growth > 0 && years > 0
        ? `${said(nowTB)} now, ${said(grown)} after ${years} ${years === 1 ? 'year' : 'years'} of ${growth}\u202f% more each`
        : `${said(nowTB)}, and no more`,
      ...(times === 1 ? [] : [`times ${times}, for ${why}: ${said(kept)}`]),
      ...(reserve > 0 ? [`with ${reserve}\u202f% of the drive kept free: ${said(needTB)}`] : [])
    ]
  };
}
