import { z } from 'zod';
import { KINDS } from '#core/parts/kinds';
import { FILES } from '#core/tables/file-kind';

export const importRequestSchema = z.strictObject({
  what: z.enum(FILES),
  kind: z.enum(KINDS).optional().describe('the kind of part, for models'),
  format: z.enum(['csv', 'json']),
  text: z.string().max(40_000_000),
  mapping: z
    .array(z.string().max(120).nullable())
    .max(200)
    .optional()
    .describe('for each column of a CSV file its field, or null'),
  mended: z
    .array(z.strictObject({ row: z.number().int().min(1), path: z.string().max(120), cell: z.string().max(4000) }))
    .max(5000)
    .optional()
    .describe('cells that are read otherwise than the file has them, by row and column'),
  skipWrong: z.boolean().optional().describe('import what is right and leave out the rows that are wrong')
});
export type ImportRequest = z.infer<typeof importRequestSchema>;
