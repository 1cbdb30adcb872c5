import { existsSync } from 'node:fs';
import { Shescape } from 'shescape';

/** Shells by whose rules a text is quoted; macOS and Linux take single quotes alike in all of them. */
const SHELLS = ['/bin/bash', '/usr/bin/bash', '/bin/zsh', '/bin/dash', '/bin/sh'];

let library: Shescape | undefined;

/** Quotes a text for the shell of macOS and Linux. */
export function quoteForShell(text: string): string {
  library ??= new Shescape({ shell: SHELLS.find((path) => existsSync(path)) ?? '/bin/sh', flagProtection: false });
  return library.quote(text);
}
