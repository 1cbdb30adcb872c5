import { describe, expect, it } from 'vitest';
import { libraryOf } from '#core/build/assemble';
import { plan } from '#core/plan/plan';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../../../tests/parts';
import { figureRows } from './figures';
import { portOption, withPicked } from '#core/build/options';
import { choiceFromQuery, choiceToQuery, tilesOf } from './slots';

const library = libraryOf(
  [
    { ...aHost(), id: 'h' },
    { ...aCable(), id: 'c' },
    { ...anEnclosure(), id: 'e' },
    { ...aDrive(), id: 'd' }
  ],
  []
);
const full = { hostId: 'h', portId: 'p', cableId: 'c', enclosureId: 'e', driveId: 'd' };

describe('the choice in the address', () => {
  it('goes there and back', () => {
    expect(choiceToQuery(full)).toBe('host=h&port=p&cable=c&enclosure=e&drive=d');
    expect(choiceFromQuery(new URLSearchParams(choiceToQuery(full)))).toEqual(full);
  });
  it('leaves out what is overlong or unknown', () => {
    expect(choiceFromQuery(new URLSearchParams(`drive=${'x'.repeat(500)}&evil=1`))).toEqual({});
  });
});

describe('tiles', () => {
  it('show what is chosen, and nothing for an id that is not there', () => {
    expect(tilesOf(library, full).map((t) => t.selectedId)).toEqual([portOption('h', 'p'), 'c', 'e', 'd', undefined]);
    expect(tilesOf(library, { driveId: 'gone' }).find((t) => t.key === 'drive')!.selectedId).toBeUndefined();
  });
  it('picking a port sets host and port together; clearing removes both', () => {
    expect(withPicked({ driveId: 'd' }, 'port', 'h~p~q')).toEqual({ driveId: 'd', hostId: 'h', portId: 'p~q' });
    expect(withPicked(full, 'port', undefined)).toEqual({ cableId: 'c', enclosureId: 'e', driveId: 'd' });
    expect(withPicked(full, 'cable', undefined)).toEqual({ hostId: 'h', portId: 'p', enclosureId: 'e', driveId: 'd' });
  });
});

describe('the figures of a plan', () => {
  it('each has a working behind it and a unit', () => {
    const report = plan(anInput({ job: { name: 'j', purposes: [], transferGB: 100, direction: 'in' } }));
    const rows = figureRows(report);
    expect(rows.length).toBeGreaterThan(8);
    for (const row of rows) {
      expect(
        report.workings.some((w) => w.figure === row.key),
        row.key
      ).toBe(true);
      // what is said in words has no unit
      expect(row.words ? row.value : row.unit, row.key).not.toBe('');
    }
  });
});
