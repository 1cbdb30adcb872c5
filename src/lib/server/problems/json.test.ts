import { describe, expect, it } from 'vitest';
import { checkedJson, DEEPEST, oddText, jsonShape } from './json';

const bytes = (text: string) => new TextEncoder().encode(text);

describe('a JSON text from outside', () => {
  it.each([
    ['{"a":[1,[2]],"b":{}}', 3, 4],
    ['"[[[["', 0, 0],
    ['["\\"[[",{"a\\\\":[]}]', 3, 3],
    ['', 0, 0]
  ])('%s is nested %d deep and holds %d lists and objects', (text, depth, containers) =>
    expect(jsonShape(bytes(text))).toEqual({ depth, containers })
  );

  it('is taken as deep as anything here is, and refused beyond, however deep', () => {
    const nested = (n: number) => bytes('['.repeat(n) + ']'.repeat(n));
    expect(checkedJson(nested(DEEPEST))).toBeInstanceOf(Array);
    for (const depth of [DEEPEST + 1, 5000, 200_000])
      expect(() => checkedJson(nested(depth))).toThrow(`nested more than ${DEEPEST} deep`);
  });

  it.each([
    ['{"name":"x\\ud800"}', 'name'],
    ['{"spec":{"ports":[{"label":"a\\u0000b"}]}}', 'spec.ports.0.label'],
    ['{"name":"\\u001b[31m"}', 'name'],
    ['{"a\\udc00":1}', '']
  ])('%s is refused at its path', (text, path) => {
    expect(() => checkedJson(bytes(text))).toThrow('characters that cannot be shown');
    expect(oddText(JSON.parse(text))?.path).toBe(path);
  });

  it('any script, emoji, line ends and tabs are text', () => {
    const value = { notes: 'Zeile 1\n\tZeile 2 \u00e9 \u77f3 \ud83e\udea8 \u0634' };
    expect(checkedJson(bytes(JSON.stringify(value)))).toEqual(value);
  });

  it('bytes that are no UTF-8, and half a document, are no JSON', () => {
    expect(() => checkedJson(new Uint8Array([0x22, 0xff, 0x22]))).toThrow('not valid JSON');
    expect(() => checkedJson(bytes('{"a":'))).toThrow('not valid JSON');
  });
});
