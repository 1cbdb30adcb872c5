import { describe, expect, it } from 'vitest';
import { listedBuilds, type ListedBuild } from './list';

const build = (tag: string, change: Partial<ListedBuild> = {}): ListedBuild => ({
  id: tag,
  tag,
  name: `Build ${tag}`,
  stage: 'planned',
  verdict: 'works',
  outdated: false,
  parts: { host: 'Desk', port: 'front', cable: 'Short', enclosure: 'Case', drive: 'Drive' },
  write: null,
  perTB: null,
  ...change
});
const builds = [
  build('AC-0001', { verdict: 'works', perTB: { amount: 90, currency: 'EUR' } }),
  build('AC-0002', { verdict: 'fails', stage: 'in service', write: { low: 1, typical: 900, high: 1000 } }),
  build('AC-0003', { verdict: 'check', parts: { host: 'Tower', port: 'rear', enclosure: 'Case', drive: 'Other' } })
];
const tags = (sort: string, down = false, find = '') =>
  listedBuilds(builds, { find, sort, down }).map(({ tag }) => tag.slice(-1));

describe('the list of builds', () => {
  it('is sorted by each column, both ways, and by tag where the address names none', () => {
    expect(tags('tag')).toEqual(['1', '2', '3']);
    expect(tags('tag', true)).toEqual(['3', '2', '1']);
    expect(tags('verdict')).toEqual(['2', '3', '1']);
    expect(tags('write', true)[0]).toBe('2');
    expect(tags('price')[0]).toBe('1');
    expect(tags('stage', true)[0]).toBe('2');
    expect(tags('constructor')).toEqual(['1', '2', '3']);
  });
  it('is narrowed by words that stand anywhere in it', () => {
    expect(tags('tag', false, 'tower other')).toEqual(['3']);
    expect(tags('tag', false, 'in service')).toEqual(['2']);
    expect(tags('tag', false, 'tower short')).toEqual([]);
  });
  it('leaves the list it was given alone', () => {
    tags('tag', true);
    expect(builds.map(({ tag }) => tag)).toEqual(['AC-0001', 'AC-0002', 'AC-0003']);
  });
});
