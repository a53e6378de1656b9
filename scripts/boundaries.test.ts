import { readFileSync, readdirSync } from 'node:fs';
import { dirname, join, relative, resolve, sep } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '..');

/** What each room may import of the others: what stands lower never imports what stands higher. */
const MAY_IMPORT: Record<string, readonly string[]> = {
  core: [],
  vision: ['core'],
  words: ['core', 'vision', 'contract'],
  sim: ['core', 'vision'],
  contract: ['core', 'vision'],
  server: ['core', 'vision', 'contract', 'sim'],
  web: ['core', 'vision', 'words', 'contract', 'sim'],
  e2e: ['core', 'vision', 'contract', 'sim'],
  scripts: [],
};

/** Where the simulated may be used outside of tests: demo data on the server, simulated devices on the page. */
const SIM_ONLY_IN: Record<string, RegExp> = {
  server: /^server\/(src\/demo|bench)\//,
  web: /^web\/src\/(camera\/(camera|film|simulated)|position\/simulated|scale\/simulated)/,
};

interface Import {
  file: string;
  specifier: string;
}

function sources(dir: string): string[] {
  return readdirSync(dir, { withFileTypes: true }).flatMap((entry) => {
    if (['node_modules', 'dist', 'drizzle'].includes(entry.name)) return [];
    const path = join(dir, entry.name);
    if (entry.isDirectory()) return sources(path);
    return /\.(ts|tsx|mjs)$/.test(entry.name) && !entry.name.endsWith('.d.ts') ? [path] : [];
  });
}

export function importsIn(text: string): string[] {
  const patterns = [
    /(?:^|\n)\s*(?:import|export)\s[^'";]*?from\s*['"]([^'"]+)['"]/g,
    /(?:^|\n)\s*import\s*['"]([^'"]+)['"]/g,
    /\bimport\(\s*['"]([^'"]+)['"]\s*\)/g,
    /new URL\(\s*['"](\.[^'"]+)['"]\s*,\s*import\.meta\.url\)/g,
  ];
  return patterns.flatMap((pattern) => [...text.matchAll(pattern)].map((match) => match[1] ?? ''));
}

function importsOf(room: string): Import[] {
  return sources(join(ROOT, room)).flatMap((path) =>
    importsIn(readFileSync(path, 'utf8')).map((specifier) => ({
      file: relative(ROOT, path).split(sep).join('/'),
      specifier,
    })),
  );
}

const isTest = (file: string): boolean =>
  /\.test(-data)?\.tsx?$/.test(file) || /^(server\/test|e2e)\//.test(file);
const told = ({ file, specifier }: Import): string => `${file} imports ${specifier}`;
const ROOMS = Object.keys(MAY_IMPORT);

describe('the direction of imports', () => {
  it.each(ROOMS)('%s imports only what stands lower', (room) => {
    const wrong = importsOf(room).filter(({ specifier }) => {
      const other = /^@lauta\/([a-z]+)/.exec(specifier)?.[1];
      return other !== undefined && other !== room && !MAY_IMPORT[room]?.includes(other);
    });
    expect(wrong.map(told)).toEqual([]);
  });

  it.each(ROOMS)('%s reaches into no other room by a path', (room) => {
    const wrong = importsOf(room).filter(({ file, specifier }) => {
      if (!specifier.startsWith('.')) return false;
      const target = relative(ROOT, resolve(ROOT, dirname(file), specifier)).split(sep);
      return target[0] !== room && !(room === 'e2e' && target[0] === 'scripts');
    });
    expect(wrong.map(told)).toEqual([]);
  });

  it.each(Object.keys(SIM_ONLY_IN))('%s uses what is simulated only where it says so', (room) => {
    const wrong = importsOf(room).filter(
      ({ file, specifier }) =>
        specifier.startsWith('@lauta/sim') && !isTest(file) && !SIM_ONLY_IN[room]?.test(file),
    );
    expect(wrong.map(told)).toEqual([]);
  });
});

/** What vision may ask of core: measures, codes of cards, the list of infractions, what a file can tell; no rule, no score. */
const SEEN_BY_VISION = ['result', 'dice', 'units', 'identifier', 'rules', 'evidence', 'file-evidence'];

describe('core and vision', () => {
  const own = importsOf('core').filter(({ file }) => !isTest(file));
  const seeing = importsOf('vision').filter(({ file }) => !isTest(file));

  it('vision knows of core only what it needs to see', () => {
    const wrong = seeing.filter(
      ({ specifier }) =>
        specifier.startsWith('@lauta/core/') &&
        !SEEN_BY_VISION.includes(specifier.slice('@lauta/core/'.length)),
    );
    expect(wrong.map(told)).toEqual([]);
  });

  it('core knows neither Node nor pages nor schemas', () => {
    const wrong = [...own, ...seeing].filter(({ specifier }) =>
      /^(node:|react|zod$|express|drizzle|mysql2)/.test(specifier),
    );
    expect(wrong.map(told)).toEqual([]);
  });

  it('core imports its rooms by their doors', () => {
    const wrong = own.filter(({ file, specifier }) => {
      if (!specifier.startsWith('..') || specifier.endsWith('.json')) return false;
      const room = file.split('/')[2];
      const target = relative(ROOT, resolve(ROOT, dirname(file), specifier)).split(sep);
      // A single file under src is a room of one.
      return target.length > 3 && target[2] !== room && target[3] !== 'index.ts';
    });
    expect(wrong.map(told)).toEqual([]);
  });
});

describe('the server', () => {
  it('knows the database’s library only in its adapters', () => {
    const wrong = importsOf('server').filter(
      ({ file, specifier }) =>
        /^(drizzle-orm|drizzle-kit|mysql2)/.test(specifier) &&
        !/\.mariadb\.ts$|^server\/src\/storage\/|^server\/drizzle\.config\.ts$|^server\/test\//.test(file),
    );
    expect(wrong.map(told)).toEqual([]);
  });
});

describe('the scripts of a bare machine', () => {
  it('use Node’s built-ins alone', () => {
    const bare = ['start.mjs', 'machine/say.mjs', 'machine/processes.mjs', 'machine/packages.mjs', 'machine/nodeModules.mjs', 'machine/database.mjs', 'machine/installation.mjs', 'machine/server.mjs']; // prettier-ignore
    const wrong = importsOf('scripts').filter(
      ({ file, specifier }) => bare.includes(file.replace('scripts/', '')) && !/^(node:|\.)/.test(specifier),
    );
    expect(wrong.map(told)).toEqual([]);
  });
});

describe('this test itself', () => {
  it('sees every way to import', () => {
    const text = `import a from 'one';\nimport type { B } from "two";\nimport 'three';\nexport { c } from 'four';\nconst d = await import('five');\nnew Worker(new URL('./six.ts', import.meta.url));`;
    expect(importsIn(text).sort()).toEqual(['./six.ts', 'five', 'four', 'one', 'three', 'two']);
  });

  it('finds files to look at', () => {
    for (const room of ROOMS.filter((one) => one !== 'e2e'))
      expect(sources(join(ROOT, room)).length).toBeGreaterThan(3);
  });
});
