/** Markers of a JPEG that say something beside the picture: APP1 to APP13, APP15 and comments. APP0 and APP14 say how colours are meant. */
const isBeside = (marker: number): boolean => (marker >= 0xe1 && marker <= 0xed) || marker === 0xef || marker === 0xfe;

/**
 * Takes everything out of a JPEG that is not the picture: browsers put a colour profile into what they draw. The picture itself is not
 * touched.
 * @returns the same bytes where it is no JPEG that can be followed
 */
export function strippedJpeg(bytes: Uint8Array): Uint8Array {
  const kept: Uint8Array[] = [bytes.subarray(0, 2)];
  for (let at = 2; at + 4 <= bytes.length;) {
    const marker = bytes[at + 1] ?? 0;
    if (bytes[at] !== 0xff) return bytes;
    // From the first scan on, everything is picture.
    if (marker === 0xda) {
      kept.push(bytes.subarray(at));
      return joined(kept);
    }
    const end = at + 2 + ((bytes[at + 2] ?? 0) << 8) + (bytes[at + 3] ?? 0);
    if (end <= at + 3 || end > bytes.length) return bytes;
    if (!isBeside(marker)) kept.push(bytes.subarray(at, end));
    at = end;
  }
  return bytes;
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
