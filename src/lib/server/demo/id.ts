import { createHash } from 'node:crypto';

const ALPHABET = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';

/** The same id for the same thing at every reset, so that links into the demo stay good. */
export function demoId(name: string): string {
  const digest = createHash('sha256').update(`fernhollow/${name}`).digest();
  return '0' + Array.from({ length: 25 }, (_, i) => ALPHABET[digest[i]! % 32]).join('');
}
