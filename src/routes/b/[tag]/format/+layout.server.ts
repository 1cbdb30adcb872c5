import { forPage } from '$lib/server/pages/page';
import { driveItems } from '$lib/server/planning/formatting';
import { newestSheet } from '$lib/server/planning/sheets';
import { listAttachments } from '$lib/server/repositories/attachments';
import { listObservations } from '$lib/server/repositories/observations';
import { listSheets } from '$lib/server/repositories/sheets';

export async function load({ parent, depends, url }) {
  depends('app:sheet');
  const { build, crate } = await parent();
  return forPage(async (db) => {
    const [whole, sheets, items, observations] = await Promise.all([
      newestSheet(db, 'format', build, build.snapshot, url.searchParams.get('sheet')),
      listSheets(db, { crateId: crate.id, buildId: build.id, kind: 'format' }),
      driveItems(db, build),
      listObservations(db, { crateId: crate.id, buildId: build.id })
    ]);
    const photos = whole ? await listAttachments(db, { crateId: crate.id, subjectId: whole.stored.id }) : [];
    return {
      whole: whole ? { stored: whole.stored, entries: whole.entries, photos } : null,
      sheets: sheets.map(({ id, unitIds, createdAt }) => ({ id, unitIds, createdAt })),
      driveItems: items,
      formatted: observations.flatMap((seen) => (seen.kind === 'formatted' ? [seen] : [])),
      onIt: observations.flatMap((seen) => (seen.kind === 'on-it' ? [seen] : [])),
      erased: observations.flatMap((seen) => (seen.kind === 'erased' ? [seen] : []))
    };
  });
}
