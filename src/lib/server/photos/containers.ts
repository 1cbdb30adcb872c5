/** The kinds of picture that are kept: what every browser shows. */
export type PhotoKind = 'jpeg' | 'png' | 'webp';

/** What a file is by its first bytes; its name and what its sender says are not asked. */
export function kindOfBytes(bytes: Buffer): PhotoKind | 'heic' | undefined {
  if (bytes.length > 3 && bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'jpeg';
  if (bytes.subarray(0, 8).equals(PNG_HEAD)) return 'png';
  const text = (from: number, to: number) => bytes.toString('latin1', from, to);
  if (text(0, 4) === 'RIFF' && text(8, 12) === 'WEBP') return 'webp';
  return text(4, 8) === 'ftyp' && /^(?:hei[cfmsx]|hev[cmsx]|mif1|msf1|avif)/.test(text(8, 12)) ? 'heic' : undefined;
}
const PNG_HEAD = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);

/** What is in a file beside its picture: the name of the first piece that is not needed to show it; nothing where there is none. */
export function beside(bytes: Buffer, kind: PhotoKind): string | undefined {
  return { jpeg: besideJpeg, png: besidePng, webp: besideWebp }[kind](bytes);
}

const BROKEN = 'a broken piece';
const BEHIND = 'something behind its end';

/** Markers that a JPEG needs: frames, tables, restart intervals, scans. JFIF and Adobe say how its colours are meant. */
function isNeeded(marker: number, body: Buffer): boolean {
  if (marker === 0xe0) return body.toString('latin1', 0, 5) === 'JFIF\0' && body.length <= 14;
  if (marker === 0xee) return body.toString('latin1', 0, 5) === 'Adobe' && body.length <= 12;
  return (marker >= 0xc0 && marker <= 0xcf && marker !== 0xc8) || [0xda, 0xdb, 0xdd].includes(marker);
}

/** Where the coded picture that begins here ends: at the next marker that is neither a stuffed byte nor a restart. */
function endOfScan(bytes: Buffer, from: number): number {
  for (let at = bytes.indexOf(0xff, from); at !== -1 && at + 1 < bytes.length; at = bytes.indexOf(0xff, at + 1)) {
    const next = bytes[at + 1] ?? 0;
    if (next !== 0 && next !== 0xff && (next < 0xd0 || next > 0xd7)) return at;
  }
  return -1;
}

function besideJpeg(bytes: Buffer): string | undefined {
  for (let at = 2; at + 4 <= bytes.length;) {
    if (bytes[at] !== 0xff) return BROKEN;
    const marker = bytes[at + 1] ?? 0;
    const length = bytes.readUInt16BE(at + 2);
    if (length < 2 || at + 2 + length > bytes.length) return BROKEN;
    if (!isNeeded(marker, bytes.subarray(at + 4, at + 2 + length))) return nameOfMarker(marker);
    at += 2 + length;
    if (marker !== 0xda) continue;
    at = endOfScan(bytes, at);
    if (at === -1) return BROKEN;
    if (bytes[at + 1] === 0xd9) return at + 2 === bytes.length ? undefined : BEHIND;
  }
  return BROKEN;
}
function nameOfMarker(marker: number): string {
  if (marker === 0xe1) return 'Exif or XMP';
  if (marker === 0xe2) return 'a colour profile';
  if (marker === 0xed) return 'IPTC';
  return marker === 0xfe ? 'a comment' : `a segment ${marker.toString(16).toUpperCase()}`;
}

/** Chunks that a PNG needs, or that only say how its colours are meant. */
const PNG_NEEDS = new Set(['IHDR', 'PLTE', 'IDAT', 'IEND', 'tRNS', 'gAMA', 'cHRM', 'sRGB', 'sBIT', 'bKGD', 'pHYs']);

function besidePng(bytes: Buffer): string | undefined {
  for (let at = 8; at + 12 <= bytes.length;) {
    const length = bytes.readUInt32BE(at);
    const name = bytes.toString('latin1', at + 4, at + 8);
    if (at + 12 + length > bytes.length) return BROKEN;
    if (!PNG_NEEDS.has(name)) return `a piece ${name.replace(/[^\w]/g, '?')}`;
    at += 12 + length;
    if (name === 'IEND') return at === bytes.length ? undefined : BEHIND;
  }
  return BROKEN;
}

const WEBP_NEEDS = new Set(['VP8 ', 'VP8L', 'VP8X', 'ALPH']);

function besideWebp(bytes: Buffer): string | undefined {
  if (bytes.length < 20) return BROKEN;
  const end = bytes.readUInt32LE(4) + 8;
  if (end > bytes.length) return BROKEN;
  for (let at = 12; at + 8 <= end;) {
    const name = bytes.toString('latin1', at, at + 4);
    const length = bytes.readUInt32LE(at + 4);
    if (at + 8 + length > end) return BROKEN;
    if (!WEBP_NEEDS.has(name)) return `a piece ${name.replace(/[^\w]/g, '?')}`;
    at += 8 + length + (length % 2);
  }
  return end === bytes.length ? undefined : BEHIND;
}
