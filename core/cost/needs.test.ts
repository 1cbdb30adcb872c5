import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure } from '../../tests/parts';
import type { Cable } from '../parts/cable';
import { plan } from '../plan/plan';
import { needsOf } from './needs';

const cable = (name: string, change: Partial<Cable>): Cable => aCable({ name, ...change });
const toA = cable('Box C-A', { ends: ['usb-c', 'usb-a'], modes: ['usb-10g'] });
const toC = cable('Box C-C 10G', { modes: ['usb-10g'], certified: true });
const best = cable('Box C-C 40G', { modes: ['usb4-40g'] });

const needed = (boxed: Cable[], chosen?: Cable) => {
  const input = {
    host: aHost(),
    portId: 'p',
    enclosure: anEnclosure({ includedCables: boxed }),
    drive: aDrive(),
    ...(chosen ? { cable: chosen } : {})
  };
  const { needs } = needsOf({ ...input, padsMm: [], padMissing: false }, []);
  return { need: needs.find(({ role }) => role === 'cable')!, mode: plan(input, { workings: false }).link.mode };
};

describe('the cable of a build', () => {
  it('is the one in the box that the plan runs on, in whatever order they lie there', () => {
    for (const box of [
      [toA, toC, best],
      [best, toC, toA]
    ])
      expect(needed(box)).toMatchObject({ need: { name: 'Box C-C 40G', inBoxOf: 'Test 40' }, mode: 'usb4-40g' });
  });
  it('is bought where none in the box fits the port', () => {
    const { need } = needed([toA]);
    expect(need.inBoxOf).toBeUndefined();
    expect(need.name).toMatch(/none in the box does/);
  });
  it('is the chosen one, whatever lies in the box', () =>
    expect(needed([best], cable('Own', { id: 'own' })).need).toEqual({
      role: 'cable',
      name: 'Own',
      modelId: 'own'
    }));
});
