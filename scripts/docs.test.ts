import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '..');
const PAGES = ['README.md', 'SECURITY.md', ...readdirSync(join(ROOT, 'docs')).map((name) => `docs/${name}`)].filter((name) => name.endsWith('.md')); // prettier-ignore
const WORKSPACES = ['core', 'vision', 'words', 'contract', 'sim', 'server', 'web', 'e2e', 'scripts', 'docs'];

/** Paths of this project that a page names in code: from a workspace on, without what stands for something else. */
export function pathsIn(text: string): string[] {
  const inCode = [...text.matchAll(/`([^`\n]+)`/g)].map((match) => match[1] ?? '');
  return inCode.filter(
    (word) => WORKSPACES.includes(word.split('/')[0] ?? '') && /^[\w./-]+$/.test(word) && word.includes('/'),
  );
}

/** `core/care` is short for `core/src/care`. */
const isThere = (path: string): boolean => {
  const [workspace = '', ...rest] = path.split('/');
  return existsSync(join(ROOT, path)) || existsSync(join(ROOT, workspace, 'src', ...rest));
};

describe.each(PAGES)('%s', (page) => {
  const text = readFileSync(join(ROOT, page), 'utf8');

  it('names files and folders that are there', () => {
    expect(pathsIn(text).filter((path) => !isThere(path))).toEqual([]);
  });

  it('links to pages and pictures that are there', () => {
    const links = [...text.matchAll(/\]\(([^)#]+)[^)]*\)/g)].map((match) => match[1] ?? '');
    const own = links.filter((link) => !/^[a-z]+:/.test(link));
    expect(own.filter((link) => !existsSync(join(ROOT, dirname(page), link)))).toEqual([]);
  });
});

it('sees a path that is not there, and takes no pattern for one', () => {
  expect(pathsIn('`web/src/nowhere.ts` and `web/src/<subject>/x.ts`, `a/b`, `core/care`')).toEqual(['web/src/nowhere.ts', 'core/care']); // prettier-ignore
  expect(isThere('web/src/nowhere.ts')).toBe(false);
  expect(isThere('core/care')).toBe(true);
});
