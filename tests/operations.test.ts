import { readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import type { AnyOperation } from '../src/lib/server/api/operation';
import { operations } from '../src/lib/server/api/operations';

const folder = fileURLToPath(new URL('../src/lib/server/api/operations/', import.meta.url));
const resources = readdirSync(folder)
  .map((name) => name.replace(/\.ts$/, ''))
  .filter((name) => name !== 'index' && name !== 'common');

describe('the operations of the API stand in one file for each resource of their path', () => {
  it('there are files to look at', () => expect(resources.length).toBeGreaterThan(20));

  it.each(resources)('%s', async (resource) => {
    const module = (await import(`../src/lib/server/api/operations/${resource}.ts`)) as Record<string, object>;
    const [record, ...more] = Object.values(module);
    expect(more, 'one record a file').toEqual([]);
    const own = Object.entries(record!) as [keyof typeof operations, AnyOperation][];
    expect(own.length).toBeGreaterThan(0);
    for (const [name, { path }] of own) {
      expect(operations[name], `${name} stands in the index`).toBe(record![name as keyof typeof record]);
      expect(path.split(/[/.]/), name).toContain(resource);
    }
  });
});
