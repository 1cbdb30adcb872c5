import type { z } from 'zod';
import { componentsFor, schemaOf } from './components';
import type { AnyOperation } from './operation';
import { operations } from './operations';

function parameters(op: AnyOperation) {
  const list = (schema: z.ZodType | undefined, where: 'path' | 'query') => {
    if (!schema) return [];
    const { properties = {}, required = [] } = schemaOf(schema, 'input') as {
      properties?: Record<string, object>;
      required?: string[];
    };
    return Object.entries(properties).map(([name, value]) => ({
      name,
      in: where,
      required: where === 'path' || required.includes(name),
      schema: value
    }));
  };
  return [...list(op.params, 'path'), ...list(op.query, 'query')];
}

const content = (schema: object, type = 'application/json') => ({ [type]: { schema } });

/** How a request is refused, each written once: an operation refers to those that it knows. */
const REFUSALS = {
  BadInput: 'bad input, with the path of each field',
  NotFound: 'no such thing',
  Conflict: 'changed elsewhere, or in use',
  TooLarge: 'body too large',
  NotJson: 'not application/json',
  Away: 'the database is away'
};
const responses = Object.fromEntries(
  Object.entries(REFUSALS).map(([name, description]) => [
    name,
    { description, content: content({ $ref: '#/components/schemas/Error' }) }
  ])
);
/** The headers of a list that can be asked for in parts. */
const IN_PARTS = {
  'x-total-count': { $ref: '#/components/headers/Total' },
  link: { $ref: '#/components/headers/Rest' }
};
const headers = {
  Total: { description: 'how many there are in all', schema: { type: 'integer' } },
  Rest: {
    description: 'RFC 8288: the address of the next part as `rel="next"`, where there is one',
    schema: { type: 'string' }
  }
};
const refusal = (name: keyof typeof REFUSALS) => ({ $ref: `#/components/responses/${name}` });

function describe(name: string, op: AnyOperation) {
  return {
    operationId: name,
    summary: op.summary,
    parameters: parameters(op),
    ...(op.body ? { requestBody: { required: true, content: content(schemaOf(op.body, 'input')) } } : {}),
    responses: {
      [op.status ?? 200]: {
        description: 'done',
        ...(op.inParts ? { headers: IN_PARTS } : {}),
        content: content(schemaOf(op.response, 'output'), op.produces)
      },
      ...(op.body || op.params || op.query ? { 400: refusal('BadInput') } : {}),
      ...(op.params ? { 404: refusal('NotFound') } : {}),
      ...(op.body ? { 409: refusal('Conflict'), 413: refusal('TooLarge'), 415: refusal('NotJson') } : {}),
      503: refusal('Away')
    }
  };
}

let document: object | undefined;

/** The OpenAPI 3.1 document, made once from the operations themselves. */
export function openApiDocument(): object {
  if (document) return document;
  const paths: Record<string, Record<string, object>> = {};
  for (const [name, op] of Object.entries(operations) as [string, AnyOperation][])
    (paths[op.path] ??= {})[op.method] = describe(name, op);
  document = {
    openapi: '3.1.0',
    info: {
      title: 'Ash Crate',
      version: '1',
      description:
        'Units stand in the names: MBps = 10^6 bytes/s, Gbps = 10^9 bit/s, TB = 10^12 bytes, GB = 10^9 bytes. A field that is not known is left out.'
    },
    servers: [{ url: '/' }],
    paths,
    components: { headers, responses, schemas: componentsFor({ paths, responses }) }
  };
  return document;
}
