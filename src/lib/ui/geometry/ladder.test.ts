import { describe, expect, it } from 'vitest';
import { capacityLadder } from '#core/format/ladder';
import { ladderDrawing } from './ladder';

describe('the ladder, drawn to scale', () => {
  const { steps } = capacityLadder({ capacityTB: 2, filesystem: 'exfat', scheme: 'gpt', os: 'macos', media: 'nvme' });
  const drawing = ladderDrawing(steps);
  it('each bar is as long as what is left of the label', () =>
    drawing.bars.forEach(({ left }, i) => expect(left).toBeCloseTo((steps[i]?.bytes ?? 0) / 2e12, 9)));
  it('0.03 % of exFAT is the largest small one: 6 x 10^8 / 2 x 10^12 = 0.0003, times 1000 is 0.3', () => {
    expect(drawing.times).toBe(1000);
    expect(drawing.bars.find(({ code }) => code === 'filesystem')?.magnified).toBeCloseTo(0.3, 2);
  });
  it('ext4 on 1 TB: 5 % x 10 is 0.5', () => {
    expect(
      ladderDrawing(capacityLadder({ capacityTB: 1, filesystem: 'ext4', scheme: 'gpt', os: 'linux' }).steps).times
    ).toBe(10);
  });
  it('2 TB end between 1.5 and 2 TiB: 2 x 10^12 / 2^40 = 1.819', () => {
    // a sixth of 1.819 is 0.30: the step is 0.5
    expect(drawing.binary.map(({ label }) => label)).toEqual(['0', '0.5 TiB', '1 TiB', '1.5 TiB']);
    expect(drawing.binary.at(-1)?.at).toBeCloseTo(1.5 / 1.819, 3);
    expect(drawing.decimal.at(-1)).toEqual({ at: 1, label: '2 TB' });
  });
});
