/** Leaves out what is not there, so that an absent field stays absent. */
export const defined = <T extends object>(object: T): { [K in keyof T]?: Exclude<T[K], undefined> } =>
  Object.fromEntries(Object.entries(object).filter(([, value]) => value !== undefined)) as never;
