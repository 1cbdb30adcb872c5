/** Every operation of the API, by its name in the OpenAPI document. */
export * from './archives';
export * from './builds';
export * from './crates';
export * from './parts';
export * from './files';
export * from './prices';
export * from './rank';
export * from './stock';
