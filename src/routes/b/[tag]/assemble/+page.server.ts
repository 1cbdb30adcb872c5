import { itemsFor, standingOf } from '$lib/server/planning/assembling';
import { codeOf } from '$lib/server/pages/labels';
import { forPage } from '$lib/server/pages/page';
import { listAttachments } from '$lib/server/repositories/attachments';
import { newestSheet } from '$lib/server/planning/sheets';

export async function load({ parent, url, depends }) {
  depends('app:sheet');
  const { build, crate, today } = await parent();
  return forPage(async (db) => {
    const [whole, items, standing] = await Promise.all([
      newestSheet(db, 'assemble', build, build.snapshot),
      itemsFor(db, build),
      standingOf(db, { crate, build, today })
    ]);
    const photos = whole ? await listAttachments(db, { crateId: crate.id, subjectId: whole.stored.id }) : [];
    const address = `${url.origin}/b/${build.tag}/assemble`;
    return {
      whole: whole ? { stored: whole.stored, entries: whole.entries, photos } : null,
      items,
      standing,
      address,
      code: await codeOf(address)
    };
  });
}
