import type { Knex } from 'knex';
import { countGivenTags, mendDoubledChoices, mendOddText } from './mend';

type Migration = { name: string; up: (db: Knex) => Promise<void> };

/**
 * What every stored row has: a ULID, its crate, a version that counts its changes, and when it was made and changed
 * (ISO text in UTC: sorts right, and reads the same in SQL, JSON and a page).
 */
function ownedRow(table: Knex.CreateTableBuilder): void {
  table.specificType('id', 'char(26) character set ascii collate ascii_bin').primary();
  table.specificType('crate_id', 'char(26) character set ascii collate ascii_bin').notNullable().index();
  table.foreign('crate_id').references('crates.id').onDelete('CASCADE');
  table.integer('version').unsigned().notNullable();
  table.string('created_at', 24).notNullable();
  table.string('updated_at', 24).notNullable();
}

const reference = (table: Knex.CreateTableBuilder, column: string) =>
  table.specificType(column, 'char(26) character set ascii collate ascii_bin');

/** In order; one change each; never edited once landed. */
export const MIGRATIONS: readonly Migration[] = [
  {
    name: '001-crates',
    up: (db) =>
      db.schema.createTable('crates', (table) => {
        table.specificType('id', 'char(26) character set ascii collate ascii_bin').primary();
        table.string('slug', 60).notNullable().unique();
        table.string('name', 120).notNullable();
        table.boolean('demo').notNullable().defaultTo(false);
        table.json('house_rules').notNullable();
        table.integer('version').unsigned().notNullable();
        table.string('created_at', 24).notNullable();
        table.string('updated_at', 24).notNullable();
      })
  },
  {
    name: '002-models',
    up: (db) =>
      db.schema.createTable('models', (table) => {
        ownedRow(table);
        table.string('kind', 20).notNullable();
        table.string('name', 120).notNullable();
        table.json('spec').notNullable();
        table.index(['crate_id', 'kind', 'name']);
      })
  },
  {
    name: '003-units',
    up: (db) =>
      db.schema.createTable('units', (table) => {
        ownedRow(table);
        reference(table, 'model_id').notNullable();
        table.foreign('model_id').references('models.id');
        table.string('tag', 20).notNullable();
        table.string('state', 12).notNullable();
        table.json('details').notNullable();
        table.unique(['crate_id', 'tag']);
      })
  },
  {
    name: '004-quotes',
    up: (db) =>
      db.schema.createTable('quotes', (table) => {
        ownedRow(table);
        reference(table, 'part_id').notNullable();
        table.foreign('part_id').references('models.id');
        table.string('date', 10).notNullable();
        table.json('details').notNullable();
        table.index(['part_id', 'date']);
      })
  },
  {
    name: '005-jobs',
    up: (db) =>
      db.schema.createTable('jobs', (table) => {
        ownedRow(table);
        table.string('name', 120).notNullable();
        table.json('spec').notNullable();
      })
  },
  {
    name: '006-builds',
    up: (db) =>
      db.schema.createTable('builds', (table) => {
        ownedRow(table);
        table.string('tag', 20).notNullable().unique();
        table.string('name', 120).notNullable();
        table.string('stage', 20).notNullable();
        table.json('choice').notNullable();
        table.json('snapshot').notNullable();
        table.json('report').notNullable();
        table.string('engine', 20).notNullable();
      })
  },
  {
    name: '007-runs',
    up: (db) =>
      db.schema.createTable('runs', (table) => {
        ownedRow(table);
        reference(table, 'build_id').notNullable();
        table.foreign('build_id').references('builds.id');
        table.string('protocol', 20).notNullable();
        table.string('date', 10).notNullable();
        table.boolean('simulated').notNullable();
        table.json('results').notNullable();
        table.json('conditions').notNullable();
        table.json('chain').notNullable();
        table.json('accepted').notNullable();
        table.index(['build_id', 'date']);
      })
  },
  {
    name: '008-events',
    up: (db) =>
      db.schema.createTable('events', (table) => {
        table.bigIncrements('seq');
        reference(table, 'crate_id').notNullable();
        table.foreign('crate_id').references('crates.id').onDelete('CASCADE');
        table.string('at', 24).notNullable();
        table.string('by', 60).notNullable();
        table.string('kind', 40).notNullable();
        table.string('subject_table', 20).notNullable();
        reference(table, 'subject_id').notNullable();
        table.string('message', 400).notNullable();
        table.index(['crate_id', 'seq']);
        table.index(['subject_id', 'seq']);
      })
  },
  {
    name: '009-revisions',
    up: (db) =>
      db.schema.createTable('revisions', (table) => {
        table.specificType('id', 'char(26) character set ascii collate ascii_bin').primary();
        reference(table, 'crate_id').notNullable();
        table.foreign('crate_id').references('crates.id').onDelete('CASCADE');
        // Rows changed together are undone together.
        reference(table, 'group_id').notNullable().index();
        table.string('at', 24).notNullable();
        table.string('by', 60).notNullable();
        table.string('row_table', 20).notNullable();
        reference(table, 'row_id').notNullable();
        table.json('before');
        table.json('after');
        table.boolean('undone').notNullable().defaultTo(false);
        table.index(['crate_id', 'row_id']);
      })
  },
  {
    // Numbers that are given once and never again, whatever is deleted: build tags.
    name: '010-counters',
    up: (db) =>
      db.schema.createTable('counters', (table) => {
        table.string('name', 40).primary();
        table.integer('value').unsigned().notNullable();
      })
  },
  {
    // Its row is there before anyone counts: two who insert it at once would wait for each other. Tags are `AC-` and a number.
    name: '011-build-tag-counter',
    up: (db) =>
      db.raw(
        "insert into counters (name, value) select 'build tags', coalesce(max(cast(substr(tag, 4) as unsigned)), 0) from builds"
      )
  },
  {
    // Which build a unit is in. No foreign key: a build that is deleted and brought back keeps its id, and its units.
    name: '012-unit-in-build',
    up: (db) => db.schema.alterTable('units', (table) => void reference(table, 'build_id').nullable().index())
  },
  {
    name: '013-target-price',
    up: (db) => db.schema.alterTable('models', (table) => void table.json('target').nullable())
  },
  {
    // The currency in which a crate adds up what it costs.
    name: '014-crate-currency',
    up: (db) =>
      db.schema.alterTable('crates', (table) => void table.string('currency', 3).notNullable().defaultTo('EUR'))
  },
  {
    name: '015-exchange-rates',
    up: (db) =>
      db.schema.createTable('rates', (table) => {
        ownedRow(table);
        table.string('date', 10).notNullable();
        table.json('details').notNullable();
      })
  },
  {
    name: '016-known-pairs',
    up: (db) =>
      db.schema.createTable('pairs', (table) => {
        ownedRow(table);
        reference(table, 'drive_id').notNullable();
        table.foreign('drive_id').references('models.id');
        table.string('bridge', 120).notNullable();
        table.json('details').notNullable();
        table.index(['crate_id', 'bridge']);
      })
  },
  {
    // Contents by their digest: a deleted attachment that is brought back finds its content still there.
    name: '017-files',
    up: (db) =>
      db.schema.createTable('files', (table) => {
        table.specificType('crate_id', 'char(26) character set ascii collate ascii_bin').notNullable();
        table.foreign('crate_id').references('crates.id').onDelete('CASCADE');
        table.specificType('sha256', 'char(64) character set ascii collate ascii_bin').notNullable();
        table.specificType('content', 'mediumblob').notNullable();
        table.primary(['crate_id', 'sha256']);
      })
  },
  {
    name: '018-attachments',
    up: (db) =>
      db.schema.createTable('attachments', (table) => {
        ownedRow(table);
        table.string('subject_table', 20).notNullable();
        reference(table, 'subject_id').notNullable().index();
        table.string('name', 200).notNullable();
        table.string('type', 100).notNullable();
        table.integer('size').unsigned().notNullable();
        table.specificType('sha256', 'char(64) character set ascii collate ascii_bin').notNullable();
      })
  },
  {
    // What was seen on a build by hand: imprint checks and temperatures.
    name: '019-observations',
    up: (db) =>
      db.schema.createTable('observations', (table) => {
        ownedRow(table);
        reference(table, 'build_id').notNullable();
        table.foreign('build_id').references('builds.id');
        table.string('kind', 20).notNullable();
        table.string('date', 10).notNullable();
        table.json('seen').notNullable();
        table.index(['build_id', 'kind', 'date']);
      })
  },
  {
    // Every writer shares the row while it writes; a restore holds it alone.
    name: '020-locks',
    up: async (db) => {
      await db.schema.createTable('locks', (table) => table.string('name', 20).primary());
      await db('locks').insert({ name: 'writing' });
    }
  },
  {
    // A crate that was deleted is hidden for a week before it is purged.
    name: '021-deleted-crates',
    up: (db) => db.schema.alterTable('crates', (table) => void table.string('deleted_at', 24).nullable())
  },
  { name: '022-unit-tag-counters', up: countGivenTags },
  { name: '023-doubled-choices', up: mendDoubledChoices },
  {
    // Contents are put in place before the rows that refer to them while a backup is restored; the crate may come after them.
    name: '024-files-first',
    // When a content was last put there (ms since 1970) tells what is about to be named from what nothing names any more.
    up: (db) =>
      db.schema.alterTable('files', (table) => {
        table.dropForeign(['crate_id']);
        table.bigInteger('added_at').unsigned().notNullable().defaultTo(0);
      })
  },
  {
    // Long pieces of work, so that they are known after the process that did them has ended. `result` and `error` are JSON.
    name: '025-tasks',
    up: (db) =>
      db.schema.createTable('tasks', (table) => {
        table.specificType('id', 'char(26) character set ascii collate ascii_bin').primary();
        table.string('title', 60).notNullable();
        table.string('state', 12).notNullable();
        table.bigInteger('done').unsigned().notNullable();
        table.bigInteger('total').unsigned().notNullable();
        table.string('step', 400).notNullable();
        table.specificType('result', 'longtext').nullable();
        table.text('error').nullable();
        table.boolean('stop').notNullable().defaultTo(false);
        reference(table, 'owner').notNullable();
        // ms since 1970: whoever works on it renews the lease; one that ran out belongs to a process that has ended.
        table.bigInteger('lease_until').unsigned().notNullable();
        table.bigInteger('watched_at').unsigned().notNullable().defaultTo(0);
        table.bigInteger('changed_at').unsigned().notNullable().index();
      })
  },
  { name: '026-odd-text', up: mendOddText },
  {
    // Run sheets of builds: which items they are for, and the steps that they had when they were last looked through.
    name: '027-sheets',
    up: (db) =>
      db.schema.createTable('sheets', (table) => {
        ownedRow(table);
        reference(table, 'build_id').notNullable();
        table.foreign('build_id').references('builds.id');
        table.string('kind', 20).notNullable();
        table.string('name', 120).notNullable();
        table.json('unit_ids').notNullable();
        table.boolean('ready_made').notNullable();
        table.json('seen').notNullable();
        table.index(['build_id', 'kind']);
      })
  },
  {
    // Ticks, notes and answers. The id is a key that the sender makes: the same one twice is one entry. `seq` is the order of arrival.
    name: '028-checks',
    up: (db) =>
      db.schema.createTable('checks', (table) => {
        ownedRow(table);
        reference(table, 'sheet_id').notNullable();
        table.foreign('sheet_id').references('sheets.id');
        table.integer('seq').unsigned().notNullable();
        table.string('name', 400).notNullable();
        table.string('step_id', 80).notNullable();
        reference(table, 'unit_id').nullable();
        table.boolean('done').nullable();
        table.text('note').nullable();
        table.json('answer').nullable();
        table.string('at', 24).notNullable();
        table.string('by', 60).notNullable();
        reference(table, 'against').nullable();
        table.index(['sheet_id', 'seq']);
      })
  },
  {
    // Which step of a sheet a photograph was taken at, and of which item.
    name: '029-photograph-steps',
    up: (db) =>
      db.schema.alterTable('attachments', (table) => {
        table.string('step_id', 80).nullable();
        reference(table, 'unit_id').nullable();
      })
  },
  {
    // A run hangs on a build, on the internal disk of a computer, or on something ready-made. `rig` is what a simulated run in progress
    // knows of itself; `busy_drive` names the drive that is being measured, so that nobody measures it a second time meanwhile.
    name: '030-runs-of-anything',
    up: async (db) => {
      await db.schema.alterTable('runs', (table) => {
        reference(table, 'build_id').nullable().alter();
        reference(table, 'host_id').nullable();
        table.foreign('host_id').references('models.id');
        reference(table, 'model_id').nullable();
        table.foreign('model_id').references('models.id');
        table.json('settings').nullable();
        table.json('series').nullable();
        table.json('rig').nullable();
        table.string('busy_drive', 60).nullable().unique();
        table.index(['crate_id', 'date']);
      });
      // What a run in progress has sampled so far, a few hundred samples a row, in JSON.
      await db.schema.createTable('run_samples', (table) => {
        table.specificType('run_id', 'char(26) character set ascii collate ascii_bin').notNullable();
        table.integer('first').unsigned().notNullable();
        table.integer('count').unsigned().notNullable();
        table.specificType('crate_id', 'char(26) character set ascii collate ascii_bin').notNullable().index();
        table.specificType('samples', 'longtext').notNullable();
        table.primary(['run_id', 'first']);
      });
    }
  },
  {
    // What was found out about a run after it was measured: tests that were tried, the shown speed, lines of a log.
    name: '031-found-out',
    up: (db) => db.schema.alterTable('runs', (table) => table.json('found').nullable())
  },
  {
    // What is kept of judging each build, so that lists need not plan: everything in it can be made again, and it is in no backup. `due`
    // counts what has happened to anything that the build was judged from: only what was made at this count is kept. What a list sorts and
    // counts by is taken away as soon as it may be wrong: a verdict or a tone of 9 is being judged.
    name: '032-judgements',
    up: async (db) => {
      await db.schema.createTable('judgements', (table) => {
        table.specificType('build_id', 'char(26) character set ascii collate ascii_bin').primary();
        table.foreign('build_id').references('builds.id').onDelete('CASCADE');
        reference(table, 'crate_id').notNullable();
        for (const column of ['host_id', 'cable_id', 'enclosure_id', 'drive_id', 'job_id']) reference(table, column);
        table.integer('due').unsigned().notNullable().defaultTo(1);
        // ms since 1970: when a page last asked for it.
        table.bigInteger('looked_at').unsigned().notNullable().defaultTo(0);
        table.specificType('digest', 'char(64) character set ascii collate ascii_bin').nullable();
        table.string('engine', 40).nullable();
        // The day from which the next step is another one.
        table.string('changes_on', 10).nullable();
        table.specificType('row', 'longtext').nullable();
        table.string('tag', 20).notNullable();
        table.specificType('stage', 'tinyint unsigned').notNullable();
        table.string('words', 1000).notNullable();
        table.specificType('verdict', 'tinyint unsigned').notNullable().defaultTo(9);
        table.specificType('tone', 'tinyint unsigned').notNullable().defaultTo(9);
        table.double('write_MBps').notNullable().defaultTo(-1);
        table.double('measured_MBps').notNullable().defaultTo(-1);
        table.double('per_TB').notNullable().defaultTo(1e12);
        for (const column of ['stage', 'verdict', 'tone', 'write_MBps', 'measured_MBps', 'per_TB'])
          table.index(['crate_id', column, 'tag']);
        table.index(['crate_id', 'tag']);
        table.index(['crate_id', 'changes_on']);
      });
      // Of tasks with a name of this kind only one runs at a time, whichever process works on it.
      await db.schema.alterTable('tasks', (table) => table.string('only', 60).nullable().unique());
    }
  },
  {
    // What lists look for and sort by inside of JSON, as columns of their own that can be indexed. The database works them out; being
    // invisible they are in no `select *`, and so in no revision and no backup. Each step can be done again after one that was cut short.
    name: '033-indexes-of-lists',
    up: async (db) => {
      for (const [table, columns] of Object.entries(WORKED_OUT))
        for (const [column, [type, expression]] of Object.entries(columns))
          await db.raw(
            `alter table ${table} add column if not exists ${column} ${type} generated always as (${expression}) virtual invisible`
          );
      for (const [table, lists] of Object.entries(INDEXES))
        for (const columns of lists)
          await db.raw(
            `alter table ${table} add index if not exists ${table}_${columns.join('_')}_index (${columns.join(', ')})`
          );
    }
  }
];

/** An id inside of JSON. What came in from outside may hold one that is none: it is kept as it is, and found by nobody. */
const idIn = (json: string, path: string): [type: string, expression: string] => [
  'varchar(26) character set utf8mb4 collate utf8mb4_bin',
  `left(json_value(${json}, '$.${path}'), 26)`
];
/** Of migration 033, as it stands. */
const WORKED_OUT: Record<string, Record<string, [type: string, expression: string]>> = {
  runs: {
    drive_id: idIn('chain', 'ids.driveId'),
    write_MBps: ['double', "cast(json_value(results, '$.writeMBps') as double)"]
  },
  builds: {
    host_id: idIn('choice', 'hostId'),
    enclosure_id: idIn('choice', 'enclosureId'),
    job_id: idIn('choice', 'jobId')
  },
  judgements: {
    // What is not known comes last, whichever way a list is sorted.
    write_MBps_up: ['double', 'if(write_MBps < 0, 1e12, write_MBps)'],
    measured_MBps_up: ['double', 'if(measured_MBps < 0, 1e12, measured_MBps)'],
    per_TB_down: ['double', 'if(per_TB >= 1e12, -1, per_TB)']
  },
  quotes: {
    // A price that never expires holds on every day.
    expires: [
      'varchar(10) character set utf8mb4 collate utf8mb4_bin',
      "left(coalesce(json_value(details, '$.expires'), '9999'), 10)"
    ]
  }
};
const INDEXES: Record<string, string[][]> = {
  judgements: ['write_MBps_up', 'measured_MBps_up', 'per_TB_down'].map((column) => ['crate_id', column, 'tag']),
  runs: [
    ['crate_id', 'drive_id', 'date'],
    ['crate_id', 'write_MBps']
  ],
  builds: [
    ['crate_id', 'host_id', 'stage'],
    ['crate_id', 'enclosure_id'],
    ['crate_id', 'job_id', 'tag'],
    ['crate_id', 'stage'],
    ['crate_id', 'tag']
  ],
  quotes: [['crate_id', 'part_id', 'expires']],
  units: [
    ['crate_id', 'state', 'model_id'],
    ['crate_id', 'updated_at', 'tag'],
    ['crate_id', 'state', 'tag']
  ],
  jobs: [['crate_id', 'name']],
  models: [
    ['crate_id', 'name'],
    ['crate_id', 'kind', 'updated_at']
  ]
};

/**
 * Brings a database up to date. A static list, so that it is bundled and the same in every run of the code.
 * @param upTo the name of the last one, where tests want an older state
 */
export async function migrate(db: Knex, upTo?: string): Promise<void> {
  const wanted = upTo ? MIGRATIONS.slice(0, MIGRATIONS.findIndex(({ name }) => name === upTo) + 1) : MIGRATIONS;
  await db.migrate.latest({
    migrationSource: {
      getMigrations: async () => [...wanted],
      getMigrationName: (migration: Migration) => migration.name,
      getMigration: async (migration: Migration) => ({ up: migration.up, down: async () => {} })
    }
  });
}
