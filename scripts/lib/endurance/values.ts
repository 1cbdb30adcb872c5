/** A JSON Schema, as far as it is looked at here. */
export type Schema = {
  type?: string | string[];
  enum?: unknown[];
  const?: unknown;
  properties?: Record<string, Schema>;
  required?: string[];
  additionalProperties?: Schema | boolean;
  items?: Schema;
  prefixItems?: Schema[];
  anyOf?: Schema[];
  oneOf?: Schema[];
  minimum?: number;
  maximum?: number;
  pattern?: string;
  format?: string;
  maxItems?: number;
};

/** What nobody means to send. */
export const ODD: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  1e308,
  -1e308,
  0.1,
  '',
  ' ',
  'x'.repeat(300),
  'a\nb',
  '\u0000',
  '\ud800',
  '../..',
  "' or 1=1 --",
  '<img src=x onerror=alert(1)>',
  '${7*7}',
  '=cmd()',
  [],
  {},
  [[[[[]]]]],
  JSON.parse('{"__proto__":{"x":1}}'),
  { constructor: 1 },
  '🪨'.repeat(40),
  'NaN',
  'é́'.repeat(20)
];

/** What there is in a crate to aim at, by the word that stands for it in a path. */
export type Row = { id: string; version: number; spec?: object; kind?: string; choice?: object };
export type Crate = { id: string; rows: Record<string, Row[]> };

export const WORDS = ['Felt 1', 'usb-c', 'D-001', 'AC-0001', 'nvme', 'm2', '10 Gb/s', 'Kiln', 'write', 'owned'];
const NOBODY = '01ARZ3NDEKTSV4RRFFQ69G5FAV';
const KIND_OF: Record<string, string> = {
  hostId: 'host',
  cableId: 'cable',
  enclosureId: 'enclosure',
  driveId: 'drive'
};
const TABLE_OF: Record<string, string> = {
  modelId: 'models',
  partId: 'models',
  jobId: 'jobs',
  buildId: 'builds',
  subjectId: 'models'
};

/** Makes values for the fields of a request: what is there in real life, what the schema lets through, and what it does not. */
export class Values {
  /** How often a value is not what the schema says: never in half of the requests, so that they get far, and often in some. */
  wrong = 0;
  /** What the request is made around: a crate, and the row that its path names. */
  at: { crate: Crate; row: Row | undefined; path: string } = {
    crate: { id: NOBODY, rows: {} },
    row: undefined,
    path: ''
  };
  /** Changes that were made, which can be taken back; tasks that were begun. */
  readonly groups: string[] = [];
  readonly tasks: string[] = [];
  constructor(readonly random: () => number) {}

  pick<T>(from: readonly T[]): T {
    return from[Math.floor(this.random() * from.length)]!;
  }
  parts(kind: string): Row[] {
    return (this.at.crate.rows.models ?? []).filter((row) => (row.spec as { kind?: string })?.kind === kind);
  }
  idOf(rows: readonly Row[] | undefined): string {
    return rows && rows.length > 0 ? this.pick(rows).id : NOBODY;
  }

  /** A copy with one of its values made odd, now and then. */
  mutated(real: object): object {
    const copy = structuredClone(real) as Record<string, unknown>;
    delete copy.id;
    if (this.random() < this.wrong * 4) {
      const key = this.pick(Object.keys(copy));
      if (key !== undefined) copy[key] = this.pick(ODD);
    }
    return copy;
  }

  /** What a field of this name holds in real life; undefined where the schema has to say. */
  known(name: string): unknown {
    const { crate, row, path } = this.at;
    if (name === 'version') return row?.version ?? 1;
    if (name === 'currency' || name === 'from' || name === 'to') return this.pick(['EUR', 'USD', 'GBP']);
    if (name === 'group') return this.groups.length > 0 ? this.pick(this.groups) : NOBODY;
    if (name === 'taskId') return this.tasks.length > 0 ? this.pick(this.tasks) : NOBODY;
    if (name in KIND_OF) return this.idOf(this.parts(KIND_OF[name]!));
    if (name in TABLE_OF) return this.idOf(crate.rows[TABLE_OF[name]!]);
    if (name === 'crateId') return crate.id;
    if (['host', 'cable', 'enclosure', 'drive'].includes(name)) return { id: this.idOf(this.parts(name)) };
    if (name === 'type') return 'text/plain';
    if (name === 'content') return 'aGVsbG8=';
    if (name === 'sort') return 'name';
    if (name === 'spec' && path.includes('/jobs') && crate.rows.jobs?.length)
      return this.mutated(this.pick(crate.rows.jobs).spec!);
    if (name === 'spec' && path.includes('/models') && crate.rows.models?.length)
      return this.mutated((row?.spec ?? this.pick(crate.rows.models).spec)!);
    if (name === 'choice' && crate.rows.builds?.length) return this.mutated(this.pick(crate.rows.builds).choice!);
    if (name === 'items') {
      const rows = crate.rows[path.includes('/units') ? 'units' : 'models'] ?? [];
      const some = [...new Set(Array.from({ length: 3 }, () => this.pick(rows)))].filter(Boolean);
      return some.map(({ id, version }) => ({ id, version }));
    }
    return undefined;
  }

  value(schema: Schema | undefined, name: string, depth = 0): unknown {
    if (!schema || depth > 7 || this.random() < this.wrong) return this.pick(ODD);
    const real = this.random() < 0.85 ? this.known(name) : undefined;
    if (real !== undefined) return real;
    if (schema.const !== undefined) return schema.const;
    if (schema.enum) return this.pick(schema.enum);
    const several = schema.anyOf ?? schema.oneOf;
    if (several) return this.value(this.pick(several), name, depth + 1);
    const type = Array.isArray(schema.type) ? this.pick(schema.type) : schema.type;
    if (type === 'object' || schema.properties) {
      const made: Record<string, unknown> = {};
      for (const [key, inner] of Object.entries(schema.properties ?? {}))
        if (schema.required?.includes(key) ? this.random() >= this.wrong / 2 : this.random() < 0.3)
          made[key] = this.value(inner, key, depth + 1);
      if (this.random() < this.wrong / 2) made[this.pick(['extra', '__proto__', 'id', 'x y'])] = this.pick(ODD);
      return made;
    }
    if (type === 'array') {
      const length = Math.floor(this.random() * Math.min(4, schema.maxItems ?? 4)) + (this.random() < 0.8 ? 1 : 0);
      if (schema.prefixItems) return schema.prefixItems.map((inner) => this.value(inner, name, depth + 1));
      return Array.from({ length }, () => this.value(schema.items, name, depth + 1));
    }
    if (type === 'number' || type === 'integer') {
      const [low, high] = [Math.max(schema.minimum ?? 0, -1e6), Math.min(schema.maximum ?? 1e4, 1e6)];
      const chosen = this.random() < 0.1 ? this.pick([low, high]) : low + this.random() * this.random() * (high - low);
      return type === 'integer' || name === 'version'
        ? Math.round(name === 'version' ? 1 + this.random() * this.random() * 2 : chosen)
        : chosen;
    }
    if (type === 'boolean') return this.random() < 0.5;
    if (type === 'null') return null;
    if (schema.format === 'date') return this.pick(['2026-11-01', '2026-02-30', '1999-12-31', '2031-01-01']);
    if (/[iI]d$/.test(name) || schema.pattern?.includes('{26}')) return NOBODY;
    if (schema.pattern === '^[A-Z]{3}$') return 'EUR';
    return this.pick(WORDS) + (this.random() < 0.3 ? String(Math.floor(this.random() * 1e4)) : '');
  }
}
