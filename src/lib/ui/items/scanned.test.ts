import { describe, expect, it } from 'vitest';
import { tagIn } from './scanned';

describe('the tag in what was typed or scanned', () => {
  it.each([
    ['D-004', 'D-004'],
    ['d-4', 'D-004'],
    ['d2', 'D-002'],
    ['E 12', 'E-012'],
    ['d-1234', 'D-1234'],
    ['https://crate.example/c/x/u/D-004', 'D-004'],
    ['https://crate.example/c/x/u/A%2F1', 'A/1'],
    ['Nina', 'Nina'],
    ['', undefined],
    ['https://elsewhere.example/', undefined],
    ['https://crate.example/u/%E0%A4%A', undefined]
  ])('%j is %j', (text, tag) => {
    expect(tagIn(text)).toBe(tag);
  });
});
