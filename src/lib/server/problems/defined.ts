type Defined<T> = { [K in keyof T]?: Exclude<T[K], undefined> };

/** Leaves out what is not there, so that an absent field stays absent. */
export function defined<T extends object>(object: T): Defined<T> {
  const out: Defined<T> = {};
  for (const key of Object.keys(object) as (keyof T)[]) {
    const value = object[key];
    if (value !== undefined) out[key] = value as Exclude<T[keyof T], undefined>;
  }
  return out;
}
