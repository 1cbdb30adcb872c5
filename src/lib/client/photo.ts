import { strippedJpeg } from './strip-jpeg';

/** What a photograph on a step may be, as the server takes it. */
const MOST_PIXELS = 2000;
const MOST_BYTES = 1_000_000;
/** More is not even decoded: a browser would run out of memory, and the page with everything on it would go. */
const MOST_FILE_BYTES = 80_000_000;

export type PreparedPhoto = { ok: true; name: string; base64: string } | { ok: false; message: string };

const HEIC_WORDS =
  'This is HEIC, which not every browser can show. On the phone, share it as JPEG, or set the camera to the most compatible format and take it again.';

/** What a file is by its first bytes. */
async function isHeic(file: File): Promise<boolean> {
  const head = new Uint8Array(await file.slice(0, 12).arrayBuffer());
  const word = String.fromCharCode(...head.slice(4, 12));
  return /^ftyp(?:hei[cfmsx]|hev[cmsx]|mif1|msf1)/.test(word);
}

/** Draws the picture anew, upright and small enough: what comes out holds the picture and nothing else. */
async function redrawn(bitmap: ImageBitmap): Promise<Blob | null> {
  const whole = Math.min(1, MOST_PIXELS / Math.max(bitmap.width, bitmap.height));
  for (const scale of [whole, whole * 0.75, whole * 0.5]) {
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(bitmap.width * scale));
    canvas.height = Math.max(1, Math.round(bitmap.height * scale));
    const context = canvas.getContext('2d');
    if (!context) return null;
    context.fillStyle = 'white';
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    for (const quality of [0.85, 0.7, 0.55]) {
      const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', quality));
      if (blob && blob.size <= MOST_BYTES) return blob;
    }
  }
  return null;
}

async function base64Of(blob: Blob): Promise<string> {
  const bytes = strippedJpeg(new Uint8Array(await blob.arrayBuffer()));
  let binary = '';
  for (let i = 0; i < bytes.length; i += 32_768) binary += String.fromCharCode(...bytes.subarray(i, i + 32_768));
  return btoa(binary);
}

/**
 * Makes a photograph ready to be kept: turned upright as the camera says, at most 2000 pixels and 1 MB, nothing but the picture. The name
 * keeps its words and becomes one of a JPEG.
 */
export async function preparePhoto(file: File): Promise<PreparedPhoto> {
  if (await isHeic(file)) return { ok: false, message: HEIC_WORDS };
  if (file.size > MOST_FILE_BYTES)
    return {
      ok: false,
      message: `${file.name} is larger than ${MOST_FILE_BYTES / 1e6} MB. Take it with fewer pixels.`
    };
  if (/svg/i.test(file.type) || /\.svg$/i.test(file.name))
    return { ok: false, message: `${file.name} is a drawing. Only JPEG, PNG and WebP are kept.` };
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    return {
      ok: false,
      message: `${file.name} is no picture that this browser can read. JPEG, PNG and WebP are kept.`
    };
  }
  try {
    const blob = await redrawn(bitmap);
    if (!blob) return { ok: false, message: `${file.name} could not be made small enough. Take it with fewer pixels.` };
    const stem = file.name.replace(/\.[^.]*$/, '').slice(0, 150) || 'photograph';
    return { ok: true, name: `${stem}.jpg`, base64: await base64Of(blob) };
  } finally {
    bitmap.close();
  }
}
