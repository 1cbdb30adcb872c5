import { describe, expect, it } from 'vitest';
import { fromCsv, toCsv } from './csv';

describe('CSV', () => {
  it('is written with a byte order mark and CRLF; what is missing is an empty cell', () => {
    expect(
      toCsv(
        ['a', 'b'],
        [
          ['1', ''],
          ['x,y', 'say "so"']
        ]
      )
    ).toBe('\ufeffa,b\r\n1,\r\n"x,y","say ""so"""\r\n');
  });
  it.each([
    ['commas', 'a,b\n1,2\n'],
    ['semicolons', 'a;b\r\n1;2\r\n'],
    ['tabs', 'a\tb\n1\t2'],
    ['a byte order mark', '\ufeffa,b\n1,2'],
    ['empty lines between', 'a,b\n\n1,2\n\n\n'],
    ['quoted headings', '"a","b"\n"1","2"']
  ])('is read with %s', (_, text) => {
    expect(fromCsv(text)).toEqual({ headings: ['a', 'b'], rows: [['1', '2']] });
  });
  it('keeps separators, quotation marks and line ends inside quoted cells', () => {
    expect(fromCsv('a,b\n"1,5","line one\nline ""two"""').rows).toEqual([['1,5', 'line one\nline "two"']]);
  });
  it('comes back as it went', () => {
    const rows = [['ümlaut 😀', "it's\r\ntwo lines"]];
    expect(fromCsv(toCsv(['a', 'b'], rows)).rows).toEqual(rows);
  });
  it.each([
    ['nothing', ''],
    ['blank lines', '\n\n'],
    ['a quotation mark without end', 'a,b\n"1,2\n3,4']
  ])('%s is refused', (_, text) => {
    expect(() => fromCsv(text)).toThrow(expect.objectContaining({ code: 'bad-input' }) as Error);
  });
});
