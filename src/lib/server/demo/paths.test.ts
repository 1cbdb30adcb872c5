import { describe, expect, it } from 'vitest';
import { runSheet } from '#core/assembly/run-sheet';
import { situationOf } from '#core/diagnosis/situation';
import type { Model } from '#core/parts/model';
import type { PlanInput } from '#core/plan/report';
import { sheetSchema } from '#core/sheets/sheet';
import { walkAll } from '../../../../tests/walk-trouble';
import { DEMO_BUILDS } from './builds';
import { DEMO_MODELS } from './parts';

const part = <K extends Model['kind']>(kind: K, name: string) =>
  DEMO_MODELS.find((model) => model.kind === kind && model.name === name) as Extract<Model, { kind: K }>;
const inputs = DEMO_BUILDS.map((build): PlanInput => ({
  host: part('host', build.host),
  portId: build.port,
  ...(build.cable ? { cable: part('cable', build.cable) } : {}),
  enclosure: part('enclosure', build.enclosure),
  drive: part('drive', build.drive),
  pads: DEMO_MODELS.filter((model) => model.kind === 'pad')
}));

describe('the builds of the demo', () => {
  it('each have a sheet of stages that can be done', () => {
    for (const input of inputs) {
      const sheet = runSheet(input);
      expect(sheetSchema.safeParse(sheet).success).toBe(true);
      for (const { steps } of sheet.stages) expect(steps.length).toBeGreaterThanOrEqual(3);
    }
  });
  it('have no path to a cause that does not end', { timeout: 120_000 }, () => {
    const { ends, faults } = walkAll(inputs.map((input) => situationOf(input)));
    expect(faults.slice(0, 5)).toEqual([]);
    expect(ends).toBeGreaterThan(1000);
  });
});
