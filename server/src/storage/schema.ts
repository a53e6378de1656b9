/** Every table, by subject: what the migrations are made from. */
export * from './tables/settings.ts';
export * from './tables/people.ts';
export * from './tables/events.ts';
export * from './tables/entrants.ts';
export * from './tables/photographs.ts';
export * from './tables/catches.ts';
export * from './tables/custody.ts';
export * from './tables/wells.ts';
export * from './tables/specimens.ts';
export * from './tables/weighIns.ts';
export * from './tables/ledgers.ts';
