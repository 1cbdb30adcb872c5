import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import { plan } from '../plan/plan';
import type { PlanInput } from '../plan/report';
import { leadsOf } from './leads';

const leads = (input: PlanInput) => leadsOf(input, plan(input, { workings: false }));

describe('the order of plugging', () => {
  it('of a build on its port: cable in, and out only after it was ejected', () => {
    const { plug, unplug } = leads(anInput());
    expect(plug).toHaveLength(3);
    expect(unplug[1]).toMatch(/Unmount/);
    expect(unplug.at(-1)).toMatch(/^Pull the cable at Test host/);
  });
  it('of eSATA: data before power, and power away before data', () => {
    const { plug, unplug } = leads(
      anInput({
        host: aHost({ plug: 'esata', modes: ['esata-6g'] }),
        cable: aCable({ ends: ['esata', 'esata'], modes: ['esata-6g'] }),
        enclosure: anEnclosure({
          formFactor: '2.5in',
          protocols: ['sata'],
          plug: 'esata',
          morePlugs: ['micro-b'],
          modes: ['esata-6g', 'usb-5g']
        }),
        drive: aDrive({ media: 'hdd', formFactor: '2.5in' })
      })
    );
    expect(plug[0]).toMatch(/^Data first/);
    expect(plug[1]).toMatch(/^Then power/);
    const [power, data] = [
      unplug.findIndex((l) => /^Power first/.test(l)),
      unplug.findIndex((l) => /^Then data/.test(l))
    ];
    expect(power).toBeGreaterThan(1);
    expect(data).toBe(power + 1);
  });
  it('of a supply: power first, and off at the end', () => {
    const enclosure = anEnclosure({ externalSupply: true });
    const { plug, unplug } = leads(anInput({ enclosure }));
    expect(plug[0]).toMatch(/supply/);
    expect(unplug.at(-1)).toMatch(/switch the supply off/);
  });
  it('says what it draws when it is ejected, as the plan has it', () => {
    const input = anInput();
    const { power } = plan(input, { workings: false });
    expect(leads(input).notes[0]).toContain(`${String(Math.round(power!.idleW * 100) / 100)}\u202fW`);
  });
  it('tells whoever has a disk to wait until it is still', () => {
    const input = anInput({
      drive: aDrive({ media: 'hdd', formFactor: '2.5in' }),
      enclosure: anEnclosure({ formFactor: '2.5in', protocols: ['sata'] })
    });
    expect(leads(input).unplug).toContain('Wait until the disk is still.');
    expect(leads(anInput()).unplug).not.toContain('Wait until the disk is still.');
  });
});
