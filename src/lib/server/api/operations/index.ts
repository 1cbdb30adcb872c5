/** Every operation of the API, by its name in the OpenAPI document. */
export * from './builds';
export * from './crates';
export * from './parts';
