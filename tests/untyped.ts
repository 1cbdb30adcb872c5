/** Passes a value off as another type: for tests that hand over what no typed caller could. */
export const untyped = <T>(value: unknown): T => value as T;
