export * from './board.ts';
export * from './care.ts';
export * from './commands.ts';
export * from './people.ts';
export * from './photo.ts';
export * from './problems.ts';
export * from './rules.ts';
export * from './views.ts';
