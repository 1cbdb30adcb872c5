import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import * as parts from './parts';

const root = fileURLToPath(new URL('..', import.meta.url));

function filesBelow(folder: string, test: RegExp): string[] {
  return readdirSync(join(root, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = `${folder}/${entry.name}`;
    if (entry.isDirectory()) return filesBelow(path, test);
    return test.test(path) && !path.endsWith('.test.ts') ? [path] : [];
  });
}
const textOf = (file: string) => readFileSync(join(root, file), 'utf8');

/** Names that the rest of the program takes from the core: its public functions are among them. */
const taken = new Set(
  ['src', 'scripts', 'bench']
    .flatMap((folder) => filesBelow(folder, /\.(ts|svelte)$/))
    .flatMap((file) => [...textOf(file).matchAll(/import (?:type )?\{([^}]*)\} from '#core\/[^']*'/g)])
    .flatMap((match) => match[1]!.split(','))
    .map(
      (name) =>
        name
          .trim()
          .replace(/^type /, '')
          .split(' as ')[0]!
    )
);

type Documented = { file: string; name: string; doc: string };

/** Every exported function of a file, with its docstring. */
function functionsOf(file: string): Documented[] {
  const source = ts.createSourceFile(file, textOf(file), ts.ScriptTarget.ES2022, true);
  return source.statements.flatMap((statement): Documented[] => {
    const exported =
      ts.canHaveModifiers(statement) &&
      ts.getModifiers(statement)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword);
    if (!exported) return [];
    const doc = ts.getJSDocCommentsAndTags(statement)[0]?.getText() ?? '';
    if (ts.isFunctionDeclaration(statement)) return [{ file, name: statement.name!.text, doc }];
    if (!ts.isVariableStatement(statement)) return [];
    const [declaration] = statement.declarationList.declarations;
    const isFunction = declaration?.initializer && ts.isArrowFunction(declaration.initializer);
    return isFunction ? [{ file, name: declaration.name.getText(), doc }] : [];
  });
}

const functions = filesBelow('core', /\.ts$/).flatMap(functionsOf);
const shown = ({ file, name }: Documented) => `${file}: ${name}`;

describe('a docstring', () => {
  it('there are functions to look at', () => expect(functions.length).toBeGreaterThan(300));

  it('stands over every exported function of the core and begins with what it does: a verb', () =>
    expect(functions.filter(({ doc }) => !/^\/\*\*[\s*]*[A-Z][a-z]+s\b/.test(doc)).map(shown)).toEqual([]));

  it('of a public function has an example', () =>
    expect(functions.filter(({ name, doc }) => taken.has(name) && !doc.includes('@example')).map(shown)).toEqual([]));
});

/** The examples: an expression, and what it gives. */
const examples = functions.flatMap(({ file, name, doc }) =>
  [...doc.matchAll(/@example ([^\n]*?) \/\/ ([^\n]*?)(?:\s*\*\/)?$/gm)].map((match) => ({
    file,
    name,
    code: match[1]!,
    gives: match[2]!.trim()
  }))
);

describe('an example of a docstring', async () => {
  const scope: Record<string, unknown> = { ...parts };
  for (const file of filesBelow('core', /\.ts$/)) Object.assign(scope, await import(join(root, file)));
  const value = (code: string): unknown =>
    (new Function(...Object.keys(scope), `return (${code});`) as (...args: unknown[]) => unknown)(
      ...Object.values(scope)
    );

  it('there are examples to run', () => expect(examples.length).toBeGreaterThan(60));

  it.each(examples)('$name: $code', ({ code, gives }) => expect(value(code)).toEqual(value(gives)));
});
