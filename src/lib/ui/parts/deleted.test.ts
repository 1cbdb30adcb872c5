import { describe, expect, it } from 'vitest';
import { deletedWords } from './deleted';

describe('what is said of a deleted part', () => {
  it.each([
    [0, [], 'Deleted Karst.'],
    [1, [], 'Deleted Karst and its 1 price.'],
    [2, ['AC-0001'], 'Deleted Karst and its 2 prices. AC-0001 uses it and keeps its plan.'],
    [0, ['AC-0001', 'AC-0002'], 'Deleted Karst. AC-0001, AC-0002 use it and keep their plans.']
  ])('%i prices, builds %j: %s', (prices, builds, words) => {
    expect(deletedWords('Karst', prices, builds)).toBe(words);
  });
});
