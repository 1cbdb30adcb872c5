import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Validator } from '@seriousme/openapi-schema-validator';
import { describe, expect, it } from 'vitest';
import { openApiDocument } from '../src/lib/server/api/openapi';
import { operations } from '../src/lib/server/api/operations';
import type { AnyOperation } from '../src/lib/server/api/operation';

type Document = {
  openapi: string;
  components: { schemas: Record<string, object> };
  paths: Record<
    string,
    Record<
      string,
      { operationId: string; requestBody?: { content: Record<string, { schema: Record<string, unknown> }> } }
    >
  >;
};
const document = openApiDocument() as Document;
const routes = fileURLToPath(new URL('../src/routes', import.meta.url));

function served(folder: string): { path: string; method: string; operation: string }[] {
  return readdirSync(join(routes, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return served(path);
    if (entry.name !== '+server.ts') return [];
    const text = readFileSync(join(routes, path), 'utf8');
    return [...text.matchAll(/export const (GET|POST|PUT|DELETE) = serve\(\w+\.(\w+)\)/g)].map((m) => ({
      path: `/${folder.replace(/\[(\w+)\]/g, '{$1}')}`,
      method: m[1]!.toLowerCase(),
      operation: m[2]!
    }));
  });
}

describe('the OpenAPI document', () => {
  const list = served('api');
  it('finds routes', () => expect(list.length).toBeGreaterThan(25));

  it('each route serves the operation that the document has at its path, and the other way round', () => {
    for (const { path, method, operation } of list)
      expect(document.paths[path]?.[method]?.operationId, `${method} ${path}`).toBe(operation);
    const described = Object.entries(document.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method} ${path}`)
    );
    expect(described.sort()).toEqual(list.map(({ path, method }) => `${method} ${path}`).sort());
  });

  it('describes bodies with units in the names and limits on the numbers', () => {
    const { schema } = document.paths['/api/crates/{crateId}/models']!.post!.requestBody!.content['application/json']!;
    expect(JSON.stringify(schema)).toContain('"#/components/schemas/Model"');
    expect(JSON.stringify(document.components.schemas.Model)).toContain('"#/components/schemas/Drive"');
    const drive = JSON.stringify(document.components.schemas.Drive);
    expect(drive).toContain('"capacityTB":{"type":"number","minimum":0.001,"maximum":200');
    expect(document.openapi).toBe('3.1.0');
  });

  it('names its schemas: every reference leads somewhere, and what is named is referred to', () => {
    const names = Object.keys(document.components.schemas);
    expect(names).toEqual(expect.arrayContaining(['PlanReport', 'PlanRequest', 'Drive', 'Band', 'Error', 'Task']));
    const text = JSON.stringify(document);
    const referred = new Set([...text.matchAll(/"#\/components\/schemas\/(\w+)"/g)].map((m) => m[1]!));
    expect([...referred].sort()).toEqual(names.sort());
    // twice as much with every schema where it is used
    expect(text.length).toBeLessThan(340_000);
  });

  it('is valid, by a parser that is not ours', async () => {
    const result = await new Validator().validate(structuredClone(document));
    expect(result.errors).toBeUndefined();
    expect(result.valid).toBe(true);
  });

  it('each operation says in a sentence what it does', () => {
    for (const [name, op] of Object.entries(operations) as [string, AnyOperation][])
      expect(op.summary, name).toMatch(/\.$|\.\w?/);
  });
});
