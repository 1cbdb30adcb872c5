import { describe, expect, it } from 'vitest';
import { libraryOf } from '#core/build/assemble';
import { aCable, aDrive, aHost, anEnclosure } from '../../../../tests/parts';
import { choiceKey, compareHref, namedApart, columnKeys, columnOf } from './laid';

const CHOICE = { hostId: 'h', portId: 'p', cableId: 'c', enclosureId: 'e', driveId: 'd' };
const library = libraryOf(
  [
    { ...aHost(), id: 'h' },
    { ...aCable(), id: 'c' },
    { ...aCable({ name: 'Other lead' }), id: 'c2' },
    { ...anEnclosure(), id: 'e' },
    { ...aDrive(), id: 'd' }
  ],
  []
);
const builds = [{ tag: 'AC-0001', name: 'Carrier', choice: CHOICE }];
const column = (key: string) => columnOf(library, builds, '/c/x', key);

describe('what an address lays side by side', () => {
  it('each once, four at most, nothing overlong', () => {
    const query = new URLSearchParams('plan=A&plan=A&plan=&plan=B&plan=C&plan=D&plan=E');
    query.append('plan', 'x'.repeat(500));
    expect(columnKeys(query)).toEqual(['A', 'B', 'C', 'D']);
    expect(columnKeys(new URL(`http://x${compareHref('/c/x', ['AC-0001', choiceKey(CHOICE)])}`).searchParams)).toEqual([
      'AC-0001',
      choiceKey(CHOICE)
    ]);
  });
  it('a build by its tag, a choice by its parts, and what is gone says so', () => {
    expect(column('AC-0001')).toMatchObject({ name: 'AC-0001 Carrier', href: '/b/AC-0001/pair', missing: '' });
    expect(column('AC-0001').plan?.report.verdict).toBe('works');
    expect(column(choiceKey(CHOICE))).toMatchObject({ name: 'Test T4 2TB in Test 40' });
    expect(column('host=h&port=p&enclosure=e&drive=gone')).toMatchObject({ plan: null });
    expect(column('host=h&port=p&enclosure=e&drive=gone').missing).toContain('drive');
    expect(column('<img src=x>').plan).toBeNull();
  });
  it('two of one name are told apart by cable and computer, else by a number', () => {
    const [a, b] = [column(choiceKey(CHOICE)), column(choiceKey({ ...CHOICE, cableId: 'c2' }))];
    expect(namedApart([a, b]).map(({ name }) => name)).toEqual([
      'Test T4 2TB in Test 40, Test C-C on Test host',
      'Test T4 2TB in Test 40, Other lead on Test host'
    ]);
    expect(namedApart([a, a]).map(({ plan: laid }) => laid?.name.slice(-3))).toEqual(['(1)', '(2)']);
    expect(namedApart([a]).map(({ name }) => name)).toEqual(['Test T4 2TB in Test 40']);
  });
});
