import QRCode from 'qrcode';

/** What stands on a label: the tag in letters, and the same as a code that leads to the unit's page. */
export type Label = { tag: string; name: string; url: string; svg: string };

/** Codes that were drawn: one takes about a millisecond, a page of labels has a hundred, and the same address is always the same code. */
const drawn = new Map<string, Promise<string>>();
/** So many are kept: some megabytes. */
const KEPT = 2000;

/** An address as a code to scan, an SVG. */
export function codeOf(url: string): Promise<string> {
  const known = drawn.get(url);
  if (known) return known;
  const code = QRCode.toString(url, { type: 'svg', errorCorrectionLevel: 'M', margin: 2 });
  if (drawn.size >= KEPT) drawn.clear();
  drawn.set(url, code);
  return code;
}

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
