/** The tag in what was typed or scanned: the tag itself, or the address on a label of this program. */
export function tagIn(text: string): string | undefined {
  const trimmed = text.trim();
  if (trimmed === '') return undefined;
  const address = /^https?:\/\/\S*?\/u\/([^/?#\s]+)\/?$/i.exec(trimmed);
  let tag = trimmed;
  if (address) {
    try {
      tag = decodeURIComponent(address[1]!);
    } catch {
      return undefined;
    }
  } else if (/^https?:/i.test(trimmed)) return undefined;
  // Tags that the program gives are in capitals; people and scanners are not careful about it.
  const short = /^([a-z])[- ]?0*(\d{1,6})$/i.exec(tag);
  // “d2” is what people type for D-002.
  if (short) return `${short[1]!.toUpperCase()}-${short[2]!.padStart(3, '0')}`;
  return tag.slice(0, 20);
}
