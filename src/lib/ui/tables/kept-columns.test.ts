import { describe, expect, it } from 'vitest';
import { assigned, withKept } from './kept-columns';

describe('columns that were assigned before', () => {
  it('count before what the program matches, in any order of the headings and beside new ones', () => {
    const kept = assigned(assigned({}, 'Rd', 'readMBps'), 'Colour', null);
    expect(withKept(['New', 'Rd', 'Colour'], ['name', null, 'notes'], kept)).toEqual(['name', 'readMBps', null]);
  });
  it('give a field to one column only', () => {
    // the program reads “Read” as the rate; the person has given that to “Rd”
    expect(withKept(['Read', 'Rd'], ['readMBps', null], { Rd: 'readMBps' })).toEqual([null, 'readMBps']);
    // both were once assigned to it, in two files
    expect(withKept(['A', 'B'], [null, null], { A: 'name', B: 'name' })).toEqual(['name', null]);
  });
  it('a field that moves leaves its old heading', () => {
    expect(assigned({ A: 'name' }, 'B', 'name')).toEqual({ A: null, B: 'name' });
  });
  it('a heading called like something every object has is an ordinary one', () => {
    expect(withKept(['constructor', '__proto__'], ['name', null], {})).toEqual(['name', null]);
  });
});
