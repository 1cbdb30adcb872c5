import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { ROOM_USES, roomNeeded, SOLD_TB, type RoomUse } from './room-needed';

describe('how much room is needed', () => {
  it('1.2 TB, a fifth more each year for 3 years, a fifth kept free: 1.2 x 1.728 / 0.8 = 2.592', () => {
    const room = roomNeeded({ use: 'work', nowTB: 1.2, growth: 20, years: 3, reserve: 20 });
    expect(room).toMatchObject({ needTB: 2.59, soldTB: 4 });
    expect(room.steps.join('; ')).toBe(
      '1.2\u202fTB now, 2.07\u202fTB after 3 years of 20\u202f% more each; with 20\u202f% of the drive kept free: 2.59\u202fTB'
    );
  });
  it('backups keep old states: twice as much, 0.5 x 2 / 0.8 = 1.25', () => {
    const room = roomNeeded({ use: 'backup', nowTB: 0.5, growth: 0, years: 3, reserve: 20 });
    expect(room).toMatchObject({ needTB: 1.25, soldTB: 2 });
    expect(room.steps[1]).toContain('old states');
  });
  it('what no single drive has is said', () => {
    expect(roomNeeded({ use: 'archive', nowTB: 40, growth: 0, years: 1, reserve: 0 }).soldTB).toBeNull();
  });
  it('refuses a reserve of the whole drive, and what is below nought', () => {
    expect(() => roomNeeded({ use: 'work', nowTB: 1, growth: 0, years: 1, reserve: 100 })).toThrow(RangeError);
    expect(() => roomNeeded({ use: 'work', nowTB: -1, growth: 0, years: 1, reserve: 0 })).toThrow(RangeError);
  });
  it('never less for more data, growth, years or reserve, and never a size below the need', () => {
    const uses = fc.constantFrom(...(Object.keys(ROOM_USES) as RoomUse[]));
    const part = (max: number) => fc.double({ min: 0, max, noNaN: true });
    fc.assert(
      fc.property(
        uses,
        part(5),
        part(50),
        fc.integer({ min: 0, max: 10 }),
        part(90),
        (use, nowTB, growth, years, reserve) => {
          const question = { use, nowTB, growth, years, reserve };
          const { needTB, soldTB } = roomNeeded(question);
          for (const more of [
            { nowTB: nowTB + 1 },
            { growth: growth + 1 },
            { years: years + 1 },
            { reserve: Math.min(95, reserve + 1) }
          ])
            expect(roomNeeded({ ...question, ...more }).needTB).toBeGreaterThanOrEqual(needTB);
          expect(soldTB === null ? needTB > SOLD_TB[SOLD_TB.length - 1]! : soldTB >= needTB).toBe(true);
        }
      ),
      { seed: 27 }
    );
  });
});
