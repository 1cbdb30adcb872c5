import type { Knex } from 'knex';
import type { FormatRecord, OnIt } from '#core/format/record';
import type { Erased } from '#core/erase/sanitise';
import { getBuild } from '../repositories/builds';
import { createObservation } from '../repositories/observations';
import { demoId } from './id';

/** What was made of the drives of the demo: the build, the day, the record. */
const MADE: readonly (readonly [build: string, date: string, record: FormatRecord])[] = [
  [
    'Curator’s project drive',
    '2026-02-07',
    {
      system: { family: 'macos', version: '14' },
      filesystem: 'apfs',
      scheme: 'gpt',
      label: 'Projects',
      full: false,
      encryption: 'system',
      keyPlace: 'sealed envelope 2 in the safe of the herbarium',
      freeBytes: 3_987_400_000_000
    }
  ],
  [
    'Field mirror',
    '2026-10-12',
    {
      system: { family: 'windows', version: '11' },
      filesystem: 'ntfs',
      scheme: 'gpt',
      label: 'FIELD-MIRROR',
      full: false,
      encryption: 'system',
      keyPlace: 'sealed envelope 5 in the safe of the herbarium',
      policy: 'quick-removal',
      freeBytes: 3_997_800_000_000
    }
  ],
  [
    'Specimen archive',
    '2026-01-16',
    {
      system: { family: 'windows', version: '10' },
      filesystem: 'ntfs',
      scheme: 'gpt',
      label: 'ARCHIVE',
      full: true,
      encryption: 'none',
      policy: 'performance',
      freeBytes: 7_610_000_000_000,
      note: 'Came with a folder of its maker on it.'
    }
  ],
  [
    'Label photos',
    '2026-08-12',
    {
      system: { family: 'macos', version: '14' },
      filesystem: 'exfat',
      scheme: 'mbr',
      label: 'LABELS',
      full: false,
      encryption: 'none',
      freeBytes: 499_800_000_000
    }
  ],
  [
    'Imaging scratch',
    '2026-10-27',
    {
      system: { family: 'macos', version: '15' },
      filesystem: 'apfs',
      scheme: 'gpt',
      label: 'Imaging',
      full: false,
      encryption: 'none',
      freeBytes: 1_993_600_000_000
    }
  ],
  [
    'Front desk exchange',
    '2026-03-27',
    {
      system: { family: 'windows', version: '10' },
      filesystem: 'exfat',
      scheme: 'gpt',
      label: 'FRONT-DESK',
      full: false,
      encryption: 'none',
      policy: 'quick-removal',
      freeBytes: 999_600_000_000
    }
  ]
];

const ON_IT: OnIt = {
  anything: 'something',
  since: '2026-11-17',
  copies: [
    { what: 'sheet scans of October', where: 'AC-0004, in the archive room', at: '2026-11-14', verified: true },
    { what: 'the same', where: 'Moss', at: '2026-11-17', verified: false }
  ]
};

const ERASED: Erased = {
  means: 'full',
  recipient: 'self',
  serial: 'FH19-SH-00088',
  who: 'curator',
  tool: 'the system’s own format, full',
  looked: 'samples',
  note: 'second-hand disk, before it becomes the tower’s backup'
};

/** What was made, what would be lost and what was erased in the demo. */
export async function seedFormats(db: Knex, crateId: string): Promise<void> {
  const keep = async (
    name: string,
    observation: Parameters<typeof createObservation>[1]['observation'],
    by: string
  ) => {
    const { id, tag } = await getBuild(db, { crate_id: crateId, id: demoId(`build ${name}`) });
    await createObservation(db, {
      crateId,
      buildId: id,
      tag,
      observation,
      by,
      at: `${observation.date}T14:20:00.000Z`
    });
  };
  for (const [build, date, seen] of MADE) await keep(build, { kind: 'formatted', date, seen }, 'scanning desk');
  await keep('Quiet reader', { kind: 'on-it', date: '2026-11-18', seen: ON_IT }, 'scanning desk');
  await keep('Old tower backup', { kind: 'erased', date: '2026-11-21', seen: ERASED }, 'curator');
}
