import { z } from 'zod';
import { planInputSchema, type PlanInput } from '../plan/report.ts';
import type { PlanAnswer } from './answers.ts';

/** A plan in a file: what it was made from, so that another crate can make it again, and what it came to, for people to read. */
export const planFileSchema = z.object({
  format: z.literal('ash-crate-plan'),
  version: z.literal(1),
  name: z.string().min(1).max(120),
  made: z.iso.date().describe('the day on which the plan was made'),
  engine: z.string().max(40),
  answers: z.array(z.object({ about: z.string().max(40), text: z.string().max(4000) })).max(20),
  input: planInputSchema.describe('the parts in full; prices and known combinations stay at home')
});
export type PlanFile = z.infer<typeof planFileSchema>;

/**
 * Makes the file of a plan. Prices, known combinations and house rules belong to the crate, and are left out; so are the other pads.
 * @param made ISO date; the clock is the caller's
 * @example planFile({ name: 'n', input: anInput(), engine: '1', answers: [] }, '2026-11-27').input.drive.capacityTB // 2
 */
export function planFile(
  of: { name: string; input: PlanInput; engine: string; answers: readonly PlanAnswer[] },
  made: string
): PlanFile {
  const { host, portId, cable, enclosure, drive, job, writeCache } = of.input;
  const nameless = <T extends { id?: string | undefined }>({ id: _id, ...part }: T) => part;
  return {
    format: 'ash-crate-plan',
    version: 1,
    name: of.name.slice(0, 120) || 'A plan',
    made,
    engine: of.engine,
    answers: of.answers.map(({ about, text }) => ({ about, text })),
    input: {
      host: nameless(host),
      portId,
      ...(cable ? { cable: nameless(cable) } : {}),
      enclosure: nameless(enclosure),
      drive: nameless(drive),
      ...(job ? { job: nameless(job) } : {}),
      ...(writeCache ? { writeCache } : {})
    }
  };
}

/** No plan file is larger; a larger one is not even read. */
export const PLAN_FILE_BYTES = 2_000_000;

/**
 * Reads the text of a plan file, whatever is in it.
 * @returns the plan, or a sentence that says why it is none
 * @example readPlanFile('{}').ok // false
 */
export function readPlanFile(text: string): { ok: true; file: PlanFile } | { ok: false; message: string } {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { ok: false, message: 'This is no plan file: it is not JSON.' };
  }
  if ((data as { format?: unknown } | null)?.format !== 'ash-crate-plan')
    return { ok: false, message: 'This is no plan file of Ash Crate.' };
  const read = planFileSchema.safeParse(data);
  if (read.success) return { ok: true, file: read.data };
  const at = read.error.issues[0]?.path.filter((key) => typeof key === 'string').join(', ');
  return { ok: false, message: `This plan file is damaged${at ? `, at: ${at}` : ''}. Nothing was taken over.` };
}
