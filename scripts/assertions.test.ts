import { readFileSync, readdirSync } from 'node:fs';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

/** Where a type is asserted (`x as T`, but for `as const`): what the compiler cannot check. */
function assertionsIn(path: string, text: string): string[] {
  const found: string[] = [];
  const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true);
  const visit = (node: ts.Node): void => {
    if (ts.isAsExpression(node) && !ts.isConstTypeReference(node.type)) {
      const { line } = source.getLineAndCharacterOfPosition(node.getStart());
      found.push(`${path}:${line + 1} ${node.getText().slice(-60)}`);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

const ROOTS = [
  ...['core', 'vision', 'sim', 'contract', 'words', 'server', 'web'].map((workspace) => `${workspace}/src`),
  'server/bench',
];

/** Nearly all of them stand where something comes in: JSON, SQL, the record's own bytes, browsers' interfaces. */
const MOST = 113;

describe('asserted types', () => {
  it('are told from constants and from imports under another name', () => {
    expect(
      assertionsIn('a.ts', 'const a = [1] as const; import { b as c } from "./b"; export { c as d };'),
    ).toEqual([]);
    expect(assertionsIn('a.ts', 'const a = b as unknown as string;')).toHaveLength(2);
    expect(assertionsIn('a.tsx', 'const a = <p>as if</p>;\nconst b = c as string;')).toEqual([
      'a.tsx:2 c as string',
    ]);
  });

  it(`are no more than ${MOST}: whoever needs another takes one away, or lowers this number`, () => {
    const files = ROOTS.flatMap((root) =>
      readdirSync(root, { recursive: true, encoding: 'utf8' })
        .filter((path) => /\.tsx?$/.test(path) && !/\.(test|test-data|d)\.tsx?$/.test(path))
        .map((path) => `${root}/${path}`),
    );
    expect(files.length).toBeGreaterThan(500);
    const found = files.flatMap((path) => assertionsIn(path, readFileSync(path, 'utf8')));
    expect(found.length, found.join('\n')).toBe(MOST);
  });
});
