import { resolve } from 'node:path';
import { z } from 'zod';
import { giveUp, root } from '../setup.mjs';

const LOOPBACK = ['127.0.0.1', 'localhost', '::1'];

const schema = z.object({
  PORT: z.coerce.number().int().min(1).max(65535).default(4310),
  HOST: z
    .string()
    .default('127.0.0.1')
    .refine(
      (host) => LOOPBACK.includes(host),
      'is refused: Ash Crate serves this machine only, for it has no passphrase yet for use on a network'
    ),
  ASH_CRATE_DATA: z.string().min(1).default('.data'),
  ASH_CRATE_ADDRESS: z
    .url({ protocol: /^http$/ })
    .refine(
      (address) => LOOPBACK.includes(new URL(address).hostname.replace(/^\[|\]$/g, '')),
      'is refused: it is on another machine'
    )
    .optional(),
  DATABASE_URL: z.url({ protocol: /^(mysql|mariadb)$/ }).optional()
});

export type Environment = {
  port: number;
  host: string;
  dataDir: string;
  databaseUrl?: string | undefined;
  /** Where a proxy on this machine answers in its name. */
  proxy?: string | undefined;
};

/** The environment, parsed once at start; one sentence and out where it is wrong. */
export function readEnvironment(source: NodeJS.ProcessEnv = process.env): Environment {
  const given = Object.fromEntries(Object.entries(source).filter(([, value]) => value !== ''));
  const parsed = schema.safeParse(given);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    const name = String(issue!.path[0]);
    return giveUp(
      `${name}=${given[name]} ${issue!.message.startsWith('is ') ? issue!.message : `cannot be used: ${issue!.message}`}.`
    );
  }
  const { PORT, HOST, ASH_CRATE_DATA, ASH_CRATE_ADDRESS, DATABASE_URL } = parsed.data;
  return {
    port: PORT,
    host: HOST,
    dataDir: resolve(root, ASH_CRATE_DATA),
    databaseUrl: DATABASE_URL,
    proxy: ASH_CRATE_ADDRESS
  };
}
