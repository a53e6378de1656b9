import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { SCHOOLS, SCHOOL_PLACES } from '@lauta/core/care';

const PAGES = new URL('../', import.meta.url);

/** All pages' sources, tests left out. */
function sources(): string {
  return readdirSync(PAGES, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.tsx'))
    .map((name) => readFileSync(new URL(name, PAGES), 'utf8'))
    .join('\n');
}

describe('every school', () => {
  it.each(SCHOOL_PLACES)('of the place “%s” is shown on a page', (place) => {
    expect(sources()).toContain(`<SchoolLines place="${place}"`);
  });

  it('belongs to a place, so that it is shown somewhere beside the settings', () => {
    for (const { id, shownAt } of SCHOOLS) expect(shownAt.length, id).toBeGreaterThan(0);
  });
});
