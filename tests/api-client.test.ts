import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import openapiTS, { astToString, type OpenAPI3 } from 'openapi-typescript';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import { openApiDocument } from '../src/lib/server/api/openapi';

const root = fileURLToPath(new URL('..', import.meta.url));
const folder = join(root, '.cache/api-client');

/** Compiles the program against the types. @returns what the compiler says of it */
function compile(types: string, program: string): string[] {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, 'ash-crate.ts'), types);
  writeFileSync(join(folder, 'program.ts'), program);
  const compiled = ts.createProgram([join(folder, 'program.ts')], {
    strict: true,
    noEmit: true,
    skipLibCheck: true,
    target: ts.ScriptTarget.ES2022,
    module: ts.ModuleKind.ESNext,
    moduleResolution: ts.ModuleResolutionKind.Bundler,
    lib: ['lib.es2022.d.ts', 'lib.dom.d.ts'],
    types: []
  });
  return ts.getPreEmitDiagnostics(compiled).map(({ messageText }) => ts.flattenDiagnosticMessageText(messageText, ' '));
}

describe('a client made from the OpenAPI document', async () => {
  const types = astToString(await openapiTS(structuredClone(openApiDocument()) as OpenAPI3));
  const program = /```ts\n([\s\S]*?)```/.exec(readFileSync(join(root, 'docs/api.md'), 'utf8'))![1]!;

  it('has types of a size that can be read', () => expect(types.split('\n').length).toBeLessThan(10_000));

  it('the program in docs/api.md compiles against it', { timeout: 60_000 }, () => {
    expect(program).toContain("from 'openapi-fetch'");
    expect(compile(types, program)).toEqual([]);
  });

  it('and one that asks for what is not there does not', { timeout: 60_000 }, () => {
    const wrong = program.replace('report.verdict', 'report.judgement');
    expect(wrong).not.toBe(program);
    expect(compile(types, wrong).join()).toContain('judgement');
  });
});
