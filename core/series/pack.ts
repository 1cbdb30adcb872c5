/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices below the length of the column: a loop over every sample */
import { MOST_SAMPLES, SERIES_COLUMN_IDS, type Series, type SeriesColumn } from './series.ts';

/**
 * A series as bytes, column by column. Each value is rounded to a step far below what any tool can tell (1 ms, 0.001 MB/s, 0.001 °C,
 * 10^-7 of a disk), and kept as the difference from the one before, in as few bytes as it needs (zigzag, then seven bits a byte). What is
 * made is small by itself, and smaller still once compressed.
 */
const STEP: Record<SeriesColumn | 't', number> = {
  t: 0.001,
  MBps: 0.001,
  controllerC: 0.001,
  nandC: 0.001,
  caseC: 0.001,
  positionFraction: 1e-7
};
const COLUMNS = ['t', ...SERIES_COLUMN_IDS] as const;
const MAGIC = [0x61, 0x73, 0x31]; // "as1"

/** Bytes that grow: a varint takes at most 8 here. */
class Bytes {
  bytes = new Uint8Array(1024);
  at = 0;
  varint(value: number): void {
    if (this.at + 10 > this.bytes.length) {
      const more = new Uint8Array(this.bytes.length * 2);
      more.set(this.bytes);
      this.bytes = more;
    }
    let rest = value;
    while (rest > 127) {
      this.bytes[this.at++] = (rest % 128) + 128;
      rest = Math.floor(rest / 128);
    }
    this.bytes[this.at++] = rest;
  }
}
const zigzag = (value: number): number => (value < 0 ? -2 * value - 1 : 2 * value);
const unzigzag = (value: number): number => (value % 2 === 1 ? -(value + 1) / 2 : value / 2);

/**
 * Packs a series into bytes; `unpackSeries` gives it back within half a step of each value.
 * @example unpackSeries(packSeries({ t: [1, 2], MBps: [950, 951.5] })).MBps // [950, 951.5]
 */
export function packSeries(series: Series): Uint8Array {
  const out = new Bytes();
  for (const byte of MAGIC) out.varint(byte);
  const there = COLUMNS.filter((id) => series[id]);
  out.varint(series.t.length);
  out.varint(there.reduce((bits, id) => bits + 2 ** COLUMNS.indexOf(id), 0));
  for (const id of there) {
    const values = series[id]!;
    let before = 0;
    for (const value of values) {
      const whole = Math.round(value / STEP[id]);
      out.varint(zigzag(whole - before));
      before = whole;
    }
  }
  return out.bytes.slice(0, out.at);
}

/**
 * Reads what `packSeries` made.
 * @throws RangeError where the bytes are no series, or end before it does
 * @example unpackSeries(packSeries({ t: [1], MBps: [2.5] })) // { t: [1], MBps: [2.5] }
 */
export function unpackSeries(bytes: Uint8Array): Series {
  let at = 0;
  const varint = (): number => {
    let [value, scale] = [0, 1];
    for (;;) {
      const byte = bytes[at++];
      if (byte === undefined || scale > 2 ** 56) throw new RangeError('no whole series');
      value += (byte % 128) * scale;
      if (byte < 128) return value;
      scale *= 128;
    }
  };
  for (const byte of MAGIC) if (varint() !== byte) throw new RangeError('no series');
  const length = varint();
  const bits = varint();
  if (length > MOST_SAMPLES || bits >= 2 ** COLUMNS.length) throw new RangeError('no series');
  const series: Partial<Record<SeriesColumn | 't', number[]>> = {};
  for (const [i, id] of COLUMNS.entries()) {
    if (Math.floor(bits / 2 ** i) % 2 === 0) continue;
    const values: number[] = new Array<number>(length);
    // A step such as 0.001 has no exact double: dividing by its inverse gives the nearest one to the decimal.
    const perUnit = Math.round(1 / STEP[id]);
    let whole = 0;
    for (let k = 0; k < length; k++) {
      whole += unzigzag(varint());
      values[k] = whole / perUnit;
    }
    series[id] = values;
  }
  if (!series.t || !series.MBps) throw new RangeError('a series without time or rate');
  return series as Series;
}
