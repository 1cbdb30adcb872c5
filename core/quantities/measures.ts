/**
 * Units of measure as types. A quantity is a plain number that carries its unit in its type only: a bare literal fits
 * any unit, but a value known to be MB/s is refused where Gb/s is wanted.
 */
declare const unit: unique symbol;
export type Quantity<U extends string> = number & { readonly [unit]?: U };

/** 10^6 bytes per second. */
export type MBps = Quantity<'MB/s'>;
/** 10^9 bits per second. */
export type Gbps = Quantity<'Gb/s'>;
/** 10^12 bytes. */
export type TB = Quantity<'TB'>;
/** 10^9 bytes. */
export type GB = Quantity<'GB'>;
/** 2^40 bytes. */
export type TiB = Quantity<'TiB'>;
export type Mm = Quantity<'mm'>;
export type Metre = Quantity<'m'>;
export type Celsius = Quantity<'°C'>;
export type Watt = Quantity<'W'>;
export type Seconds = Quantity<'s'>;
export type Microseconds = Quantity<'µs'>;

export const TB_PER_TIB = 1.099511627776;

/** Gives marketed decimal terabytes as binary tebibytes: 1 TB = 10^12 / 2^40 TiB = 0.9095 TiB. */
export function tebibytes(capacity: TB): TiB {
  return (capacity as number) / TB_PER_TIB;
}
