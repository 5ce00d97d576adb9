// The whole schema, by area.
export * from './business';
export * from './bank';
export * from './chase';
export * from './customers';
export * from './documents';
export * from './ledger';
export * from './letterheads';
export * from './outside';
export * from './prices';
export * from './tax';
export * from './wordings';
export * from './work';
export * from './runs';
export * from './statements';
export * from './keep';
export * from './many';
