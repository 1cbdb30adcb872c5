import sharp from 'sharp';
import { Problem } from '../problems/problem';
import { beside, kindOfBytes, type PhotoKind } from './containers';

/** What a photograph on a step may be: the page reduces larger ones before it sends them. */
export const PHOTO_LIMIT = { bytes: 1_000_000, pixels: 2000 } as const;

const refusal = (message: string, field: string) =>
  new Problem('bad-input', message, [{ path: 'content', message: field }]);

/** What a file is, by its own bytes. @throws Problem `bad-input` for what is no picture that is kept */
function kindOf(content: Buffer): PhotoKind {
  const kind = kindOfBytes(content);
  if (kind === 'heic')
    throw refusal(
      'HEIC is not kept: not every browser shows it. Let the phone share it as JPEG, or set its camera to the most compatible format.',
      'is HEIC; send JPEG, PNG or WebP'
    );
  if (kind === undefined) throw refusal('This is no JPEG, PNG or WebP.', 'is no JPEG, PNG or WebP');
  const more = beside(content, kind);
  if (more)
    throw refusal(
      `The photograph holds ${more} beside the picture. Nothing but the picture is kept: where it was taken is nobody’s business.`,
      `holds ${more} beside the picture`
    );
  return kind;
}

/** Decodes a picture to its last pixel. @throws whatever is wrong with it */
async function decode(content: Buffer, kind: PhotoKind): Promise<{ width: number; height: number }> {
  const picture = sharp(content, { failOn: 'warning', limitInputPixels: PHOTO_LIMIT.pixels ** 2, pages: 1 });
  const { width, height, format, exif, xmp, icc, iptc } = await picture.metadata();
  if (format !== kind || [exif, xmp, icc, iptc].some(Boolean)) throw new Error('holds more than the picture');
  await picture.stats();
  return { width, height };
}

/**
 * Looks a photograph through, whoever sends it: by its own bytes, decoded to the last pixel.
 * @returns its type
 * @throws Problem `bad-input` for what is no picture, no whole picture, too many pixels, or holds anything beside the picture;
 * `too-large`
 */
export async function checkPhoto(content: Buffer): Promise<`image/${PhotoKind}`> {
  if (content.length > PHOTO_LIMIT.bytes)
    throw new Problem('too-large', `A photograph may have ${PHOTO_LIMIT.bytes / 1e6} MB at most.`);
  const kind = kindOf(content);
  const size = await decode(content, kind).catch((error: unknown) => {
    if (/pixel limit/i.test(String(error))) return { width: Infinity, height: Infinity };
    throw refusal('The photograph cannot be read: it is broken or cut off.', 'is no whole picture');
  });
  if (Math.max(size.width, size.height) > PHOTO_LIMIT.pixels)
    throw refusal(
      `The photograph is larger than ${PHOTO_LIMIT.pixels} pixels.`,
      `may be ${PHOTO_LIMIT.pixels} pixels wide and high at most`
    );
  return `image/${kind}`;
}
