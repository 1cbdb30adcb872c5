import { describe, expect, it } from 'vitest';
import { libraryOf } from '../build/assemble.ts';
import { plan } from '../plan/plan.ts';
import { classesOf, classParts, PART_CLASSES } from './classes.ts';
import { KINDS } from './kinds.ts';
import { MODEL_SCHEMAS } from './model.ts';

const all = KINDS.flatMap((kind) => classesOf(kind).map((one) => ({ kind, ...one })));

describe('parts by their class', () => {
  it.each(all.map(({ id, kind, spec }) => [id, kind, spec] as const))('%s is a whole part', (_, kind, spec) => {
    expect(MODEL_SCHEMAS[kind].safeParse(spec).error?.issues ?? []).toEqual([]);
  });
  it('each has an id and a label of its own', () => {
    expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
    expect(new Set(all.map(({ label }) => label)).size).toBe(all.length);
  });
  it('they make a library, and every computer has a case, a cable and a drive that work on it', () => {
    const { host, enclosure, drive, cable } = PART_CLASSES;
    expect(libraryOf(classParts(), []).host.size).toBe(host.length);
    for (const { spec: computer, label } of host) {
      const works = computer.ports.some(({ id: portId }) =>
        cable.some(({ spec: lead }) =>
          enclosure.some(({ spec: box }) =>
            drive.some(
              ({ spec: disk }) =>
                plan({ host: computer, portId, cable: lead, enclosure: box, drive: disk }, { workings: false })
                  .verdict !== 'fails'
            )
          )
        )
      );
      expect(works, label).toBe(true);
    }
  });
  it('a case of 10 Gb/s with a PCIe 4 drive gives what such a case gives: about 1000 MB/s', () => {
    const [host] = PART_CLASSES.host.filter(({ id }) => id === 'host-laptop-10g');
    const [box] = PART_CLASSES.enclosure.filter(({ id }) => id === 'case-m2-10g');
    const [disk] = PART_CLASSES.drive.filter(({ id }) => id === 'nvme-4-2');
    const [lead] = PART_CLASSES.cable.filter(({ id }) => id === 'cable-10g');
    const report = plan({ host: host!.spec, portId: 'c1', cable: lead!.spec, enclosure: box!.spec, drive: disk!.spec });
    expect(report.throughput.write?.typical).toBe(1000);
    expect(report.assumed.length).toBeGreaterThan(5);
  });
});
