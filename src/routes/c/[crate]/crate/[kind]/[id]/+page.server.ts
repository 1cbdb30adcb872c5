import { error } from '@sveltejs/kit';
import { formFields } from '#core/parts/form/form-fields';
import { MODEL_SCHEMAS } from '#core/parts/model';
import { forPage, today } from '$lib/server/pages/page';
import { listAttachments } from '$lib/server/repositories/attachments';
import { tagsOfBuildsWith } from '$lib/server/repositories/builds';
import { listHistory } from '$lib/server/repositories/events';
import { getModel, listSpecs } from '$lib/server/repositories/models';
import { listPairs } from '$lib/server/repositories/pairs';
import { listQuotes } from '$lib/server/repositories/quotes';
import { unitTable } from '$lib/server/repositories/unit-table';

export async function load({ parent, params }) {
  const { crate, kind } = await parent();
  return forPage(async (db) => {
    const model = await getModel(db, { crateId: crate.id, id: params.id });
    if (model.spec.kind !== kind) error(404, `This part is no ${kind}.`);
    const bridge = model.spec.kind === 'enclosure' ? model.spec.bridge : undefined;
    const [{ rows: units }, quotes, attachments, usedBy, pairs, drives] = await Promise.all([
      unitTable(db, { crateId: crate.id, modelId: params.id, size: 200 }),
      listQuotes(db, { crateId: crate.id, partIds: [params.id] }),
      listAttachments(db, { crateId: crate.id, subjectId: params.id }),
      tagsOfBuildsWith(db, { crateId: crate.id, modelId: params.id }),
      kind === 'drive'
        ? listPairs(db, { crateId: crate.id, driveIds: [params.id] })
        : bridge
          ? listPairs(db, { crateId: crate.id, bridges: [bridge] })
          : [],
      bridge ? listSpecs(db, { crateId: crate.id, kind: 'drive' }) : []
    ]);
    const subjectIds = [
      params.id,
      ...units.map((u) => u.id),
      ...quotes.map((q) => q.id),
      ...attachments.map((a) => a.id)
    ];
    return {
      model,
      units,
      quotes,
      attachments,
      usedBy,
      pairs,
      drives: drives.map(({ id, name }) => ({ id, name })),
      history: await listHistory(db, { crateId: crate.id, subjectIds }),
      fields: formFields(MODEL_SCHEMAS[kind]),
      today: today()
    };
  });
}
