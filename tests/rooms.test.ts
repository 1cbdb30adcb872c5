import { describe, expect, it } from 'vitest';
import { cruised, drawn, pictureInDocs, roomEdges } from '../scripts/lib/rooms';

describe('the rooms of the house', async () => {
  const result = await cruised();
  const edges = roomEdges(result);

  it('are all looked at, across every alias', () => {
    expect(result.modules.length).toBeGreaterThan(500);
    expect(edges.length).toBeGreaterThan(30);
    const unresolved = result.modules.flatMap(({ dependencies }) =>
      dependencies.filter(({ module, couldNotResolve }) => couldNotResolve && /^[#$]?(core|lib)\b|^\./.test(module))
    );
    expect(unresolved.map(({ module }) => module).filter((module) => !module.includes('$types'))).toEqual([]);
  });

  it('nothing goes round, not even a type, and no two rooms of the server use each other', () =>
    expect(result.summary.violations.map(({ rule, from, to }) => `${rule.name}: ${from} -> ${to}`)).toEqual([]));

  it('a rule that finds nothing is not a rule that is not asked', () => {
    const rules = result.summary.ruleSetUsed?.forbidden?.map(({ name }) => name);
    expect(rules).toEqual(['no-circular', 'no-circular-rooms']);
  });

  it('the picture in docs/architecture.md is that of today; `npm run rooms` draws it', () =>
    expect(pictureInDocs()).toBe(drawn(edges)));
});
