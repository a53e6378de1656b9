/** The keys of a table that has no others: a record written out in full. */
export function keysOf<T extends object>(table: T): (keyof T & string)[] {
  return Object.keys(table) as (keyof T & string)[];
}
