import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { diskFullSentence, freeBytes } from '../machine/disk';
import { problemOf } from './errors';

const sql = (code: string, sqlMessage = '') => Object.assign(new Error(sqlMessage || code), { code, sqlMessage });

describe('what an error of the database means to a person', () => {
  it.each([
    [sql('ER_DUP_ENTRY', "Duplicate entry 'x-D-1' for key 'units_crate_id_tag_unique'"), 'conflict', 409, 'tag'],
    [sql('ER_DUP_ENTRY', "Duplicate entry 'x' for key 'crates_slug_unique'"), 'conflict', 409, 'name'],
    [sql('ER_DUP_ENTRY', "Duplicate entry 'x' for key 'PRIMARY'"), 'conflict', 409, undefined],
    [sql('ER_ROW_IS_REFERENCED_2'), 'in-use', 409, undefined],
    [sql('ER_NO_REFERENCED_ROW_2'), 'conflict', 409, undefined],
    [sql('ER_LOCK_DEADLOCK'), 'busy', 503, undefined],
    [sql('ER_LOCK_WAIT_TIMEOUT'), 'busy', 503, undefined],
    [sql('ER_DATA_TOO_LONG'), 'bad-input', 400, undefined],
    [sql('ER_CONSTRAINT_FAILED'), 'bad-input', 400, undefined],
    [sql('ECONNREFUSED'), 'database-away', 503, undefined],
    [sql('ER_STATEMENT_TIMEOUT'), 'database-away', 503, undefined],
    [sql('PROTOCOL_SEQUENCE_TIMEOUT'), 'database-away', 503, undefined],
    [sql('ER_RECORD_FILE_FULL', "The table 'files' is full"), 'disk-full', 507, undefined],
    [sql('ENOSPC', 'write ENOSPC: No space left on device'), 'disk-full', 507, undefined],
    [sql('ER_ERROR_ON_WRITE', 'Errcode: 28 "No space left on device"'), 'disk-full', 507, undefined]
  ])('%s', (error, code, status, path) => {
    const problem = problemOf(error)!;
    expect([problem.code, problem.status, problem.fields[0]?.path]).toEqual([code, status, path]);
    // a sentence, and nothing of the database in it
    expect(problem.message).toMatch(/^[A-Z].*\.$/);
    expect(problem.message).not.toMatch(/ER_|SQL|key|Errcode/);
  });

  it('a fault of the program is none of these', () => {
    expect(problemOf(new TypeError('x is not a function'))).toBeUndefined();
    expect(problemOf(sql('ER_PARSE_ERROR'))).toBeUndefined();
    expect(problemOf('text')).toBeUndefined();
  });
});

describe('room on the disk', () => {
  it('is told in bytes of the disk that the folder lies on; of no folder nothing is known', () => {
    const folder = mkdtempSync(join(tmpdir(), 'ash-crate-room-'));
    expect(freeBytes(folder)).toBeGreaterThan(0);
    expect(freeBytes(join(folder, 'not-there'))).toBeUndefined();
    rmSync(folder, { recursive: true });
  });
  it('its lack is said with what is free and what is needed, and only where it is the reason', () => {
    expect(diskFullSentence({ free: 3_400_000 })).toContain('(3 MB free, 24 MB needed)');
    expect(diskFullSentence({ free: 3_400_000, onlyIfFull: true })).toContain('disk');
    expect(diskFullSentence({ free: 9e9, onlyIfFull: true })).toContain('not answering');
  });
});
