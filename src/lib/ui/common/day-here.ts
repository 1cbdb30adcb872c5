/** The day it is where the reader sits, as `2026-11-27`; the server's day may be another one. */
export function dayHere(now = new Date()): string {
  const two = (n: number) => String(n).padStart(2, '0');
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
