import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { problemCode } from '../../../../tests/problem-code';
import { checkPhoto } from './check';

const plain = (width = 40, height = 30) => sharp({ create: { width, height, channels: 3, background: '#a43' } });
const jpeg = () => plain().jpeg().toBuffer();
const png = () => plain().png().toBuffer();
const webp = () => plain().webp().toBuffer();

/** Puts a segment behind the first marker of a JPEG: marker, length with its own two bytes, body. */
async function withSegment(marker: number, body: Buffer): Promise<Buffer> {
  const picture = await jpeg();
  const head = Buffer.from([0xff, marker, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([picture.subarray(0, 2), head, body, picture.subarray(2)]);
}
/** Puts a chunk before the end of a PNG; its checksum is not looked at by what shows pictures. */
async function withChunk(name: string, body: Buffer): Promise<Buffer> {
  const picture = await png();
  const length = Buffer.alloc(4);
  length.writeUInt32BE(body.length);
  const chunk = Buffer.concat([length, Buffer.from(name, 'latin1'), body, Buffer.alloc(4)]);
  return Buffer.concat([picture.subarray(0, -12), chunk, picture.subarray(-12)]);
}

describe('a photograph', () => {
  it('of each kind is taken by its own bytes', async () => {
    expect(await checkPhoto(await jpeg())).toBe('image/jpeg');
    expect(await checkPhoto(await plain().jpeg({ progressive: true }).toBuffer())).toBe('image/jpeg');
    expect(await checkPhoto(await png())).toBe('image/png');
    expect(await checkPhoto(await webp())).toBe('image/webp');
  });

  const exif = { IFD0: { Make: 'nobody' }, IFD3: { GPSLatitude: '51/1 30/1 0/1' } };
  it.each([
    ['Exif in a JPEG', () => plain().withExif(exif).jpeg().toBuffer(), /Exif/],
    ['Exif in a PNG', () => plain().withExif(exif).png().toBuffer(), /eXIf/],
    ['Exif in a WebP', () => plain().withExif(exif).webp().toBuffer(), /EXIF/],
    ['a colour profile', () => plain().withIccProfile('p3').jpeg().toBuffer(), /colour profile/],
    ['a comment', () => withSegment(0xfe, Buffer.from('taken at home')), /comment/],
    ['IPTC', () => withSegment(0xed, Buffer.from('Photoshop 3.0')), /IPTC/],
    ['XMP', () => withSegment(0xe1, Buffer.from('http://ns.adobe.com/xap/1.0/\0<x/>')), /Exif or XMP/],
    ['a preview in its JFIF extension', () => withSegment(0xe0, Buffer.from('JFXX\0preview')), /segment E0/],
    ['words in a PNG', () => withChunk('tEXt', Buffer.from('Author\0nobody')), /tEXt/],
    ['a date in a PNG', () => withChunk('tIME', Buffer.alloc(7)), /tIME/],
    [
      'a second file behind its end',
      async () => Buffer.concat([await jpeg(), Buffer.from('PK\x03\x04')]),
      /behind its end/
    ],
    ['a second file behind a PNG', async () => Buffer.concat([await png(), Buffer.from('MZ')]), /behind its end/],
    ['a second file behind a WebP', async () => Buffer.concat([await webp(), Buffer.from('x')]), /behind its end/]
  ])('with %s is refused', async (_what, make, said) => {
    await expect(checkPhoto(await make())).rejects.toThrow(said);
  });

  it.each([
    ['a text that is called .jpg', () => Buffer.from('this is no picture'), /no JPEG, PNG or WebP/],
    ['nothing', () => Buffer.alloc(0), /no JPEG/],
    [
      'a drawing with a script',
      () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'),
      /no JPEG/
    ],
    ['HEIC', () => Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic', 'latin1'), /HEIC.*JPEG/],
    ['a GIF', () => Buffer.from('GIF89a\x01\0\x01\0', 'latin1'), /no JPEG/],
    ['the head of a JPEG alone', () => Buffer.from([0xff, 0xd8, 0xff, 0xe0]), /broken/]
  ])('%s is refused', async (_what, make, said) => {
    await expect(checkPhoto(make())).rejects.toThrow(said);
  });
  it('that is cut off, or whose picture is noise, is refused', async () => {
    const whole = await plain(400, 300).png().toBuffer();
    expect(await problemCode(checkPhoto(whole.subarray(0, whole.length >> 1)))).toBe('bad-input');
    const noise = Buffer.from(whole);
    noise.fill(7, 60, 120);
    expect(await problemCode(checkPhoto(noise))).toBe('bad-input');
  });
  it('of too many pixels or bytes is refused', { timeout: 30_000 }, async () => {
    await expect(checkPhoto(await plain(2001, 10).jpeg().toBuffer())).rejects.toThrow(/2000 pixels/);
    // 36 million pixels of one colour are a small file, and take much more to unpack.
    const bomb = await sharp({
      create: { width: 6000, height: 6000, channels: 3, background: '#000' },
      limitInputPixels: false
    })
      .png({ compressionLevel: 9 })
      .toBuffer();
    expect(bomb.length).toBeLessThan(1_000_000);
    await expect(checkPhoto(bomb)).rejects.toThrow(/2000 pixels/);
    expect(await problemCode(checkPhoto(Buffer.alloc(1_000_001)))).toBe('too-large');
  });
  it('of exactly 2000 pixels is taken', async () => {
    expect(await checkPhoto(await plain(2000, 2000).jpeg().toBuffer())).toBe('image/jpeg');
  });
});
