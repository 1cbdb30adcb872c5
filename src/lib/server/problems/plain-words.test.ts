import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { MODEL_SCHEMAS, modelSchema } from '#core/parts/model';
import { fieldsOf } from './fields';
import { labelAt } from './plain-words';

const said = (schema: z.ZodType, value: unknown) => {
  const parsed = schema.safeParse(value);
  return parsed.success ? [] : fieldsOf(parsed.error).map(({ path, message }) => `${path}: ${message}`);
};

describe('what is wrong, in words', () => {
  it.each([
    [z.array(z.number()).max(5), [1, 2, 3, 4, 5, 6], 'must have at most 5 entries'],
    [z.string().max(3), 'abcd', 'must have at most 3 characters'],
    [z.string().min(1), '', 'must not be empty'],
    [z.number().min(2), 1, 'must be at least 2'],
    [z.number().max(2), 3, 'must be at most 2'],
    [z.int(), 1.5, 'must be a whole number'],
    [z.enum(['a', 'b']), 'c', 'must be one of a, b'],
    [z.string(), 3, 'must be a text'],
    [z.boolean(), 'yes', 'must be yes or no'],
    [z.array(z.string()), 'x', 'must be a list'],
    [z.string().regex(/^a/, 'must begin with an a'), 'b', 'must begin with an a']
  ])('%# %j', (schema, value, words) => {
    expect(said(schema, value)).toEqual([`: ${words}`]);
  });
  it('a field that is not there is missing; one that is too many is named', () => {
    expect(said(z.strictObject({ name: z.string() }), {})).toEqual(['name: is missing']);
    expect(said(z.strictObject({}), { colour: 1 })).toEqual([': holds what does not belong there: “colour”']);
  });
});

describe('what a field is called', () => {
  it.each([
    ['spec.capacityTB', 'Capacity'],
    ['spec.flash.cacheGB', 'Write cache, drive empty'],
    ['spec.components.0.heightMm', 'Height over the board']
  ])('%s of a drive is %s', (path, label) => {
    expect(labelAt(z.object({ spec: MODEL_SCHEMAS.drive }), path)).toBe(label);
  });
  it('in a union it is that of the kinds that have it', () => {
    expect(labelAt(z.object({ spec: modelSchema }), 'spec.conductivityWmK')).toBe('Conductivity, as printed');
  });
  it('without a title it is the words of its name, without unit and numbers', () => {
    expect(labelAt(undefined, 'units.3.dueBack')).toBe('Due back');
    expect(labelAt(undefined, 'm2LengthsMm')).toBe('M2 lengths');
    expect(labelAt(undefined, '')).toBe('The input');
    expect(labelAt(z.string(), 'nowhere.to.be.found')).toBe('Found');
  });
});
