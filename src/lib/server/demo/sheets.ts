import type { Knex } from 'knex';
import type { SheetKind } from '#core/format/compose';
import type { TroubleRecord } from '#core/diagnosis/record';
import { beginSheet, readSheet, takePhoto } from '../planning/sheets';
import { takeEntries } from '../planning/sheet-entries';
import { buildNow, loadLibrary } from '../planning/planning';
import { getBuild } from '../repositories/builds';
import { createTroubleRecord } from '../repositories/observations';
import { addUnits } from '../repositories/units';
import { unitTable } from '../repositories/unit-table';
import { situationOf } from '#core/diagnosis/situation';
import { trouble } from '#core/diagnosis/trouble';
import { demoId } from './id';
import { drawn, type Picture } from './pictures';

type Half = {
  build: string;
  kind?: SheetKind;
  by: string;
  began: string;
  units?: readonly string[];
  /** How many stages are done to their check, and how many steps of the next one. */
  stages: number;
  steps: number;
  /** How many items the steps of that next stage are ticked for. */
  unitsDone?: number;
  notes?: readonly { code: string; note: string }[];
  photos?: readonly { code: string; unit?: number; name: string; picture: Picture }[];
};

/** Minutes after a day's time, as an ISO time. */
const later = (iso: string, minutes: number) => new Date(Date.parse(iso) + minutes * 60_000).toISOString();

/** What is ticked on a sheet that is half done: places in order. */
function placesOf(half: Half, sheet: Awaited<ReturnType<typeof readSheet>>['sheet']) {
  const units = half.units ?? [];
  const places: { stepId: string; unitId?: string }[] = sheet.kit.map(({ id }) => ({ stepId: id }));
  for (const [n, { steps, checkId }] of sheet.stages.slice(0, half.stages + 1).entries()) {
    const under = n === half.stages;
    for (const step of under ? steps.slice(0, half.steps) : steps) {
      const of = under ? units.slice(0, half.unitsDone ?? units.length) : units;
      if (step.once || units.length === 0) places.push({ stepId: step.id });
      else places.push(...of.map((unitId) => ({ stepId: step.id, unitId })));
    }
    if (!under) places.push({ stepId: checkId });
  }
  return places;
}

async function halfDone(db: Knex, crateId: string, half: Half): Promise<void> {
  const id = demoId(`sheet of ${half.build}`);
  const { by, began } = half;
  await beginSheet(db, {
    crateId,
    id,
    buildId: demoId(`build ${half.build}`),
    kind: half.kind ?? 'assemble',
    unitIds: half.units ?? [],
    by,
    at: began
  });
  const { sheet } = await readSheet(db, { crateId, id });
  const stepOf = (code: string) => sheet.stages.flatMap(({ steps }) => steps).find((step) => step.code === code)?.id;
  for (const [n, place] of placesOf(half, sheet).entries()) {
    const at = later(began, 1 + n);
    const key = demoId(`tick ${n} of ${half.build}`);
    await takeEntries(db, { crateId, id, entries: [{ key, ...place, done: true, at }], by, at });
  }
  for (const [n, { code, note }] of (half.notes ?? []).entries()) {
    const stepId = stepOf(code);
    const at = later(began, 20 + n);
    const key = demoId(`note ${n} of ${half.build}`);
    if (stepId) await takeEntries(db, { crateId, id, entries: [{ key, stepId, note, at }], by, at });
  }
  for (const [n, { code, unit, name, picture }] of (half.photos ?? []).entries()) {
    const stepId = stepOf(code);
    if (!stepId) continue;
    await takePhoto(db, {
      crateId,
      id,
      key: demoId(`photograph ${n} of ${half.build}`),
      stepId,
      unitId: unit === undefined ? undefined : half.units?.[unit],
      name,
      content: await drawn(picture),
      by,
      at: later(began, 5 + n)
    });
  }
}

/** How somebody found out why the front desk's drive is slow. */
async function seedTrouble(db: Knex, crateId: string): Promise<void> {
  const build = await getBuild(db, { crate_id: crateId, id: demoId('build Front desk exchange') });
  const { snapshot } = buildNow(await loadLibrary(db, crateId, [build.choice]), build);
  const situation = situationOf(snapshot);
  const answers: TroubleRecord['answers'] = [];
  const said: Record<string, string> = { 'how-it-falls': 'at-once', 'listed-speed': 'usb2', 'read-or-write': 'both' };
  for (;;) {
    const { ask, causes, path } = trouble('slow', situation, answers);
    if (ask) {
      answers.push({ test: ask.test, outcome: said[ask.test] ?? 'cannot-tell' });
      continue;
    }
    const [found] = causes;
    await createTroubleRecord(db, {
      crateId,
      buildId: build.id,
      tag: build.tag,
      record: {
        symptom: 'slow',
        answers,
        path,
        cause: found?.cause ?? null,
        says: found?.says ?? '',
        because: found?.because ?? ''
      },
      by: 'scanning desk',
      at: '2026-11-19T09:40:00.000Z'
    });
    return;
  }
}

/** Sheets that are half done: one of a single build, one of three alike. */
export async function seedSheets(db: Knex, crateId: string): Promise<void> {
  await halfDone(db, crateId, {
    build: 'Bootable spare',
    by: 'curator',
    began: '2026-11-20T16:05:00.000Z',
    stages: 2,
    steps: 3,
    notes: [{ code: 'open-case', note: 'The fourth screw sits under the rubber foot.' }],
    photos: [
      {
        code: 'photograph',
        name: 'label.jpg',
        picture: { kind: 'label', name: 'Skarn T5 2TB', serial: 'FH26-SK-00417' }
      }
    ]
  });
  const base = { crateId, by: 'scanning desk', at: '2026-11-23T13:00:00.000Z' };
  const items = { state: 'owned', location: 'loan drawer' } as const;
  for (const serial of ['FH26-SI-0231', 'FH26-SI-0232', 'FH26-SI-0233'])
    await addUnits(db, { ...base, count: 1, unit: { ...items, modelId: demoId('Silt M2S 500GB'), serial } });
  await addUnits(db, { ...base, count: 3, unit: { ...items, modelId: demoId('Hob Dual') } });
  const { rows } = await unitTable(db, { crateId, modelId: demoId('Silt M2S 500GB'), state: 'owned' });
  const units = rows.filter(({ build }) => !build).slice(-3);
  await halfDone(db, crateId, {
    build: 'Loan set',
    by: 'scanning desk',
    began: '2026-11-23T14:00:00.000Z',
    units: units.map(({ id }) => id),
    stages: 1,
    steps: 3,
    unitsDone: 2,
    photos: units.slice(0, 2).map((item, unit) => ({
      code: 'photograph',
      unit,
      name: `label ${item.unit.tag}.jpg`,
      picture: { kind: 'label', name: 'Silt M2S 500GB', serial: `FH26-SI-0${231 + unit}` }
    }))
  });
  await halfDone(db, crateId, {
    build: 'Quiet reader',
    kind: 'format',
    by: 'scanning desk',
    began: '2026-11-18T15:10:00.000Z',
    stages: 1,
    steps: 2,
    notes: [{ code: 'unplug-others', note: 'The card reader hides behind the screen.' }]
  });
  await seedTrouble(db, crateId);
}
