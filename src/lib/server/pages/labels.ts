import QRCode from 'qrcode';

/** What stands on a label: the tag in letters, and the same as a code that leads to the unit's page. */
export type Label = { tag: string; name: string; url: string; svg: string };

/** An address as a code to scan, an SVG. */
export const codeOf = (url: string): Promise<string> =>
  QRCode.toString(url, { type: 'svg', errorCorrectionLevel: 'M', margin: 2 });

/** @param origin of this server as the browser sees it; a phone that scans the label needs an address it can reach */
export async function labelOf(
  row: { unit: { tag: string }; model: { name: string } },
  slug: string,
  origin: string
): Promise<Label> {
  const url = `${origin}/c/${slug}/u/${encodeURIComponent(row.unit.tag)}`;
  const svg = await codeOf(url);
  return { tag: row.unit.tag, name: row.model.name, url, svg };
}
