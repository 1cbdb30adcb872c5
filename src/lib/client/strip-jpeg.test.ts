import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { checkPhoto } from '$lib/server/photos/check';
import { strippedJpeg } from './strip-jpeg';

const picture = () => sharp({ create: { width: 50, height: 20, channels: 3, background: '#275' } });

describe('a JPEG that is stripped', () => {
  it('holds the same picture and nothing else', async () => {
    const full = await picture()
      .withExif({ IFD0: { Artist: 'somebody' } })
      .withIccProfile('srgb')
      .jpeg()
      .toBuffer();
    await expect(checkPhoto(full)).rejects.toThrow('beside the picture');
    const bare = Buffer.from(strippedJpeg(full));
    expect(await checkPhoto(bare)).toBe('image/jpeg');
    expect(await sharp(bare).raw().toBuffer()).toEqual(await sharp(full).raw().toBuffer());
  });
  it('that has nothing beside stays as it is', async () => {
    const bare = await picture().jpeg().toBuffer();
    expect(Buffer.from(strippedJpeg(bare))).toEqual(bare);
  });
  it('that is none, or is cut off, is given back', () => {
    for (const odd of [
      [],
      [1, 2, 3, 4, 5, 6],
      [0xff, 0xd8, 0xff, 0xe1, 0xff, 0xff],
      [0xff, 0xd8, 0xff, 0xe1, 0, 0, 1, 2]
    ])
      expect([...strippedJpeg(Uint8Array.from(odd))]).toEqual(odd);
  });
});
