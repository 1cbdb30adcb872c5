import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure } from '../../../tests/parts';
import { fillDrive } from '../../parts/fill/drive';
import { fillEnclosure } from '../../parts/fill/enclosure';
import { STEFAN_BOLTZMANN } from '../../facts/thermal';
import { planPads } from '../../pads/plan-pads';
import { drawOf } from '../../chain/power-draw';
import { typicalParameters } from './parameters';
import {
  chipRises,
  faceRise,
  filmConductance,
  heatOut,
  networkOf,
  riseFor,
  settledTemperatures,
  type Network,
  type Surface
} from './network';
import { conductanceOf, outsideOf, thermalGeometry } from './geometry';
import { powerAt, wattsOf } from './power';
import { thermalModel } from '../forecast/thermal-model';

const still: Surface = {
  areaM2: 0.02,
  convection: 4,
  radiation: 4 * 0.82 * STEFAN_BOLTZMANN,
  fanH: undefined,
  desk: 0,
  wall: 0
};
const blown: Surface = { ...still, fanH: 30 };

describe('paths', () => {
  const way = { areaMm2: 144, gapMm: 0.8, printed: 0.8 / 3, contact: 0.5e-4 };
  it('a pad of 3 W/mK, 60 % of it true, 0.8 mm high on 12 x 12 mm: A / (t/k + Rc) = 0.2912 W/K', () => {
    // 1.44e-4 / (0.8e-3 / 1.8 + 0.5e-4) = 1.44e-4 / 4.9444e-4
    expect(conductanceOf(way, { padConductivityShare: 0.6, label: 0 })).toBeCloseTo(0.29124, 4);
  });
  it('a paper label of 4 cm² K/W comes on top: 1.44e-4 / 8.9444e-4 = 0.1610 W/K', () =>
    expect(conductanceOf(way, { padConductivityShare: 0.6, label: 4e-4 })).toBeCloseTo(0.161, 4));
  it('air in the same gap: 0.026 x 1.44e-4 / 0.8e-3 = 0.00468 W/K, sixty times less', () =>
    expect(conductanceOf({ ...way, printed: 0 }, { padConductivityShare: 0.6, label: 4e-4 })).toBeCloseTo(0.00468, 6));
});

describe('the surface', () => {
  it('still air at 16 K over 20 °C: 4 x 16^0.25 + 4 x 0.82 sigma 301.15³ = 8 + 5.080 W/(m² K), and a desk of 0.03 W/K on top', () => {
    expect(filmConductance({ ...still, areaM2: 1 }, 16, 20)).toBeCloseTo(13.08, 2);
    expect(filmConductance({ ...still, areaM2: 1, desk: 0.03 }, 16, 20)).toBeCloseTo(13.11, 2);
  });
  it('a box of 100 x 36 x 14 mm lying flat: 38.08 cm² standing, 14 mm high, 36 cm² looking up, area over perimeter 13.2 mm', () => {
    // 1.42 / 0.014^0.25 = 4.128; 1.32 / 0.013235^0.25 = 3.892; (38.08 x 4.128 + 36 x 3.892) / 74.08 = 4.013
    const flat = outsideOf('m2', 74.08e-4, 'flat');
    expect(flat.convection).toBeCloseTo(4.013, 3);
    expect(flat.areaM2).toBeCloseTo(74.08e-4, 9);
    expect(flat.deskM2).toBeCloseTo(36e-4, 9);
    // at 20 K in 23 °C: 4.013 x 2.115 + 4 x 0.82 sigma 306.15³ = 8.49 + 5.34 = 13.8 W/(m² K): within the usual 13 to 16
    const film = filmConductance({ ...still, areaM2: 1, convection: flat.convection }, 20, 23);
    expect(film).toBeCloseTo(13.82, 1);
  });
  it('on edge it has its lower face in the air too: 72 + 10.08 standing 36 mm, 14 cm² up; on cloth nothing lies on a desk', () => {
    // standing 2 x 36 + 2 x 3.6 x 1.4 = 82.08 at 1.42 / 0.036^0.25 = 3.260; up 14 at 1.32 / 0.00614^0.25 = 4.716; mean 3.472
    const edge = outsideOf('m2', 74.08e-4, 'edge');
    expect(edge.areaM2).toBeCloseTo(96.08e-4, 9);
    expect(edge.convection).toBeCloseTo(3.472, 2);
    expect(edge.deskM2).toBeCloseTo(14e-4, 9);
    expect(outsideOf('m2', 74.08e-4, 'cloth').deskM2).toBe(0);
  });
  it('a case of four times the surface is twice as long: its film is 2^0.25 = 1.19 times weaker', () => {
    const [small, large] = [outsideOf('m2', 0.005, 'flat'), outsideOf('m2', 0.02, 'flat')];
    expect(small.convection / large.convection).toBeCloseTo(2 ** 0.25, 9);
    expect(large.deskM2 / small.deskM2).toBeCloseTo(4, 9);
  });
  it('a fan of 30 W/(m² K) on 200 cm² gives off 9 W at 15 K', () => {
    expect(heatOut(blown, 15, 22)).toBeCloseTo(9, 9);
    expect(riseFor(blown, 9, 22)).toBeCloseTo(15, 9);
  });
  it.each([0.5, 2, 9, 30])('%d W in still air: what is given off at the rise found is what came in', (watts) =>
    expect(heatOut(still, riseFor(still, watts, 22), 22)).toBeCloseTo(watts, 3)
  );
  it('half of the rise of a plastic case stays in a wall as resistive as its film', () => {
    const wall = 1 / (30 * 0.02);
    expect(faceRise({ ...blown, wall }, 20, 22)).toBeCloseTo(10, 9);
    expect(heatOut({ ...blown, wall }, 20, 22)).toBeCloseTo(6, 9);
  });
  it('nothing flows without a difference, and a colder case takes heat in', () => {
    expect(heatOut(still, 0, 22)).toBeCloseTo(0, 12);
    expect(heatOut(still, -5, 22)).toBeLessThan(0);
    expect(riseFor(still, 0, 22)).toBe(0);
  });
});

describe('the settled network, solved by hand', () => {
  const network: Network = {
    toCaseC: 0.3,
    toCaseN: 0.5,
    between: 1 / 30,
    controllerJK: 2,
    nandJK: 5,
    caseJK: 90,
    surface: blown,
    ambientC: 22
  };
  it('3 W in the controller, 2 in the NAND: 9.434 and 4.340 K over the case', () => {
    // determinant (0.3333 x 0.5333 - 0.0333²) = 0.176667; (0.5333 x 3 + 0.0333 x 2) / it, (0.3333 x 2 + 0.0333 x 3) / it
    const { controller, nand } = chipRises(network, 3, 2);
    expect(controller).toBeCloseTo(9.43396, 4);
    expect(nand).toBeCloseTo(4.33962, 4);
    // what they make is what flows to the case: 0.3 x 9.434 + 0.5 x 4.340 = 5
    expect(controller * 0.3 + nand * 0.5).toBeCloseTo(5, 9);
  });
  it('with 3 W more in the case: 8 W over 0.6 W/K are 13.33 K', () => {
    const at = settledTemperatures(network, { controller: 3, nand: 2, case: 3 });
    expect(at.caseC).toBeCloseTo(35.3333, 4);
    expect(at.faceC).toBeCloseTo(35.3333, 4);
    expect(at.controllerC).toBeCloseTo(44.7673, 4);
    expect(at.nandC).toBeCloseTo(39.673, 3);
  });
});

describe('from parts to the network', () => {
  const parts = (driveChange = {}, caseChange = {}) => {
    const drive = fillDrive(aDrive(driveChange));
    const enclosure = fillEnclosure(anEnclosure(caseChange));
    const stack = planPads({ drive: drive.drive, doubleSided: false, enclosure: enclosure.enclosure });
    const fan = enclosure.enclosure.cooling?.kind === 'fan';
    const shape = thermalGeometry(
      { drive, enclosure, stack },
      { fan, bare: false, stands: enclosure.enclosure.cooling?.stands ?? 'flat' }
    );
    const draw = drawOf(drive, enclosure, 'usb4-40g', fan);
    const parameters = typicalParameters({ drive, enclosure, draw, rules: undefined, ambientC: 22, fan, desk: true });
    return { shape, draw, parameters, network: networkOf(shape, parameters) };
  };
  it('a 1 mm pad in 0.5 mm is left out where a better one is: all chips touch, the board path of 30 K/W in parallel', () => {
    const { shape, network } = parts();
    expect(shape.controller).toHaveLength(1);
    expect(shape.nand).toHaveLength(2);
    expect(network.toCaseC).toBeGreaterThan(1 / 30 + 0.1);
  });
  it('heat: (1.5 + 1.5 x 3) W into cache at 3000 MB/s, 60 % of it in the controller, 12 % more lost in the converter', () => {
    const { shape, draw, parameters } = parts();
    const power = powerAt({ geometry: shape, draw, parameters }, 'write', 3000);
    expect(power.controller).toBeCloseTo(3.6, 9);
    expect(power.nand).toBeCloseTo(2.4, 9);
    // 6 / 0.88 - 6 = 0.818 W, and 2.2 W of a tunnel's bridge, which is at its full rate from 3000 MB/s on
    expect(power.case).toBeCloseTo(0.81818 + 2.2, 4);
    expect(wattsOf(power)).toBeCloseTo(6 / 0.88 + 2.2, 9);
    // past the cache 3 J/GB: (1.5 + 3 x 1.5) W at 1500 MB/s is the same
    // (the bridge at half of its rate: 1.1 at rest and half of the other 1.1)
    expect(wattsOf(powerAt({ geometry: shape, draw, parameters }, 'post', 1500))).toBeCloseTo(6 / 0.88 + 1.65, 9);
  });
  it('a stated active power holds at the rated write, and half of the rate makes half of the difference', () => {
    const { shape, draw, parameters } = parts({ power: { idleW: 1, activeW: 7 }, writeMBps: 6000 });
    const at = (rate: number) => {
      const { controller, nand } = powerAt({ geometry: shape, draw, parameters }, 'write', rate);
      return controller + nand;
    };
    expect(at(6000)).toBeCloseTo(7, 9);
    expect(at(3000)).toBeCloseTo(4, 9);
  });
  it('fins count 45 % without a fan and whole with one; plastic gives off 60 % and has a wall', () => {
    const cooling = { areaCm2: 100, finsCm2: 100 };
    expect(parts({}, { cooling: { ...cooling, kind: 'passive' } }).network.surface.areaM2).toBeCloseTo(0.0145, 9);
    expect(parts({}, { cooling: { ...cooling, kind: 'fan' } }).network.surface.areaM2).toBeCloseTo(0.02, 9);
    const plastic = parts({}, { cooling: { kind: 'passive', areaCm2: 100, material: 'plastic' } }).network.surface;
    expect(plastic.areaM2).toBeCloseTo(0.006, 9);
    // 2 mm of 0.2 W/mK on 100 cm²; of the 48.6 cm² on the desk 60 % at 5 W/m²K
    expect(plastic.desk).toBeCloseTo((36 / 74.08) * 0.01 * 0.6 * 5, 9);
    expect(plastic.wall).toBeCloseTo(1, 9);
  });
  it('what readings came to is used: a case that warms 1.25 times as much has 1/1.25 of the surface', () => {
    const cooling = { kind: 'passive' as const, areaCm2: 100 };
    const plain = parts({}, { cooling }).network;
    const fitted = parts(
      {},
      { cooling: { ...cooling, measured: { caseFactor: 1.25, chipFactor: 2, readings: 4 } } }
    ).network;
    expect(fitted.surface.areaM2).toBeCloseTo(plain.surface.areaM2 / 1.25, 9);
    expect(fitted.toCaseC).toBeCloseTo(plain.toCaseC / 2, 9);
  });
});

describe('a hard disk', () => {
  it('stands over its case by its watts times the path of its shell: 2.5 K/W behind 2.5 inches, 1.2 behind 3.5', () => {
    for (const [formFactor, path] of [
      ['2.5in', 2.5],
      ['3.5in', 1.2]
    ] as const) {
      const drive = fillDrive({
        kind: 'drive',
        name: 'd',
        media: 'hdd',
        formFactor,
        capacityTB: 4,
        power: { activeW: 4 }
      });
      const enclosure = fillEnclosure({
        kind: 'enclosure',
        name: 'e',
        formFactor,
        protocols: ['sata'],
        modes: ['usb-10g'],
        plug: 'usb-c',
        externalSupply: true
      });
      const { typical } = thermalModel({ drive, enclosure, stack: { filled: [] } }, 'usb-10g', undefined);
      const power = powerAt(typical, 'write', 100);
      const { controllerC, caseC } = settledTemperatures(typical.network, power);
      // all of the 4 W is the disk's; board and case take what bridge and converter lose
      expect(controllerC - caseC).toBeCloseTo(4 * path, 6);
    }
  });
});
