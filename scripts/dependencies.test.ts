import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { cruise, type IConfiguration } from 'dependency-cruiser';
import { describe, expect, it } from 'vitest';
import circles from './rules/circles.config.mjs';
import dependencies from './rules/dependencies.config.mjs';

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '..');

/** The names of the rules that a tree of these files breaks, as the static checks read it. */
async function broken(config: IConfiguration, files: Record<string, string>): Promise<string[]> {
  // Beneath the root, so that packages are found.
  mkdirSync(join(ROOT, '.lauta'), { recursive: true });
  const baseDir = mkdtempSync(join(ROOT, '.lauta', 'rules-'));
  try {
    for (const [name, text] of Object.entries(files)) {
      mkdirSync(dirname(join(baseDir, name)), { recursive: true });
      writeFileSync(join(baseDir, name), text);
    }
    const roots = [...new Set(Object.keys(files).map((name) => name.split('/')[0] ?? ''))];
    const { enhancedResolveOptions, ...options } = config.options ?? {};
    const { output } = await cruise(
      roots,
      { ...options, baseDir, validate: true, ruleSet: { forbidden: config.forbidden ?? [] } },
      enhancedResolveOptions ?? {},
    );
    if (typeof output === 'string') throw new Error(output);
    return [...new Set(output.summary.violations.map(({ rule }) => rule.name))].sort();
  } finally {
    rmSync(baseDir, { recursive: true, force: true });
  }
}

const A = 'export const a = 1;\n';
const importOf = (path: string): string => `import { a } from '${path}';\nexport const b = a;\n`;

describe('the rules of imports', () => {
  it.each([
    ['core-imports-what-stands-lower', 'core/src/x.ts', '../../web/src/ui/a.ts', 'web/src/ui/a.ts'],
    ['server-imports-what-stands-lower', 'server/src/x.ts', '../../web/src/ui/a.ts', 'web/src/ui/a.ts'],
    ['words-imports-what-stands-lower', 'words/src/x.ts', '../../sim/src/a.ts', 'sim/src/a.ts'],
    ['features-know-none-of-the-others', 'web/src/features/one/x.ts', '../two/a.ts', 'web/src/features/two/a.ts'],
    ['features-know-none-of-the-others', 'web/src/features/one/x.ts', '../../app/a.ts', 'web/src/app/a.ts'],
    ['rooms-know-no-feature', 'web/src/ui/x.ts', '../features/two/a.ts', 'web/src/features/two/a.ts'],
    ['simulated-where-it-says-so', 'web/src/ui/x.ts', '../../../sim/src/a.ts', 'sim/src/a.ts'],
    ['vision-knows-of-core-what-it-needs-to-see', 'vision/src/x.ts', '../../core/src/scoring/a.ts', 'core/src/scoring/a.ts'],
    ['core-rooms-by-their-doors', 'core/src/one/x.ts', '../two/a.ts', 'core/src/two/a.ts'],
    ['no-import-of-nothing', 'core/src/x.ts', './absent.ts', 'core/src/a.ts'],
  ])('%s: %s may not import %s', async (rule, from, path, target) => {
    expect(await broken(dependencies, { [from]: importOf(path), [target]: A })).toEqual([rule]);
  }); // prettier-ignore

  it.each([
    ['core/src/x.ts', "import { readFileSync } from 'node:fs';\nexport const b = readFileSync;\n"],
    ['vision/src/x.ts', "import { join } from 'node:path';\nexport const b = join;\n"],
  ])('%s knows no machine', async (name, text) => {
    expect(await broken(dependencies, { [name]: text })).toEqual(['core-and-vision-without-node']);
  });

  it.each([
    ['core-and-vision-know-neither-machine-nor-page', 'core/src/x.ts', 'zod'],
    ['database-only-in-its-adapters', 'server/src/catch/x.ts', 'drizzle-orm'],
    ['bare-scripts-use-node-alone', 'scripts/start.mjs', 'zod'],
  ])('%s: %s may not import %s', async (rule, name, library) => {
    expect(await broken(dependencies, { [name]: `import '${library}';\n` })).toEqual([rule]);
  });

  it('let an adapter have the database’s library', async () => {
    const files = { 'server/src/catch/x.mariadb.ts': "import 'drizzle-orm';\n" };
    expect(await broken(dependencies, files)).toEqual([]);
  });

  it('see a type and an import at run time as well', async () => {
    const target = { 'web/src/features/two/a.ts': 'export type A = 1;\n' };
    for (const text of [
      "import type { A } from '../two/a.ts';\nexport const b: A = 1;\n",
      "export const b = () => import('../two/a.ts');\n",
      "export type { A } from '../two/a.ts';\n",
    ])
      expect(await broken(dependencies, { 'web/src/features/one/x.ts': text, ...target })).toEqual([
        'features-know-none-of-the-others',
      ]);
  });

  it('let pass what stands lower, a core room’s door, and a test', async () => {
    expect(
      await broken(dependencies, {
        'core/src/one/x.ts': importOf('../two/index.ts'),
        'core/src/two/index.ts': A,
        'web/src/features/one/x.ts': importOf('../../ui/a.ts'),
        'web/src/ui/a.ts': A,
        'web/src/ui/x.test.ts': importOf('../features/one/x.ts'),
      }),
    ).toEqual([]);
  });

  it('find folders in a circle where no file is in one, and leave tests out', async () => {
    const circle = {
      'core/src/one/x.ts': importOf('../two/index.ts'),
      'core/src/two/index.ts': A,
      'core/src/two/y.ts': importOf('../one/z.ts'),
      'core/src/one/z.ts': A,
    };
    expect(await broken(circles, circle)).toEqual(['folders-in-a-circle']);
    const { 'core/src/two/y.ts': back, ...rest } = circle;
    expect(await broken(circles, { ...rest, 'core/src/two/y.test.ts': back })).toEqual([]);
    expect(await broken(circles, { 'core/src/a.ts': "import './b.ts';\n", 'core/src/b.ts': "import './a.ts';\n" })).toEqual(['files-in-a-circle']); // prettier-ignore
  });
});
