import { describe, expect, it } from 'vitest';
import { splitTerms } from './glossary';

const terms = (text: string) => splitTerms(text).flatMap(({ term }) => (term ? [term.term] : []));

describe('names with capitals or digits inside', () => {
  it('are themselves only as they stand: TRIM is a command, trim is a word', () => {
    expect(terms('TRIM gets through')).toHaveLength(1);
    expect(terms('Trim the pad')).toEqual([]);
    expect(terms('trim the pad')).toEqual([]);
  });
  it('a capital at the beginning alone is that of a sentence: other names hold whatever their case', () => {
    expect(terms('write amplification')).toEqual(['Write amplification']);
    expect(terms('Write amplification')).toEqual(['Write amplification']);
    // a name of two letters whose second is a capital is exact too
    expect(terms('nvme')).toEqual([]);
  });
});
