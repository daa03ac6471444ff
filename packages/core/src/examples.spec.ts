import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as core from '.';

/** Every `@example call // result` in a docstring of the core, with its file. */
function examples(folder: string): readonly (readonly [string, string, string])[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return examples(path);
    if (!path.endsWith('.ts') || path.endsWith('.spec.ts')) return [];
    return [...readFileSync(path, 'utf8').matchAll(/@example (.+?) \/\/ (.+)/g)].map((found) => [entry.name, found[1], found[2]] as const);
  });
}

const run = (expression: string): unknown => new Function(...Object.keys(core), `return ${expression};`)(...Object.values(core));

describe('examples in docstrings', () => {
  const all = examples(__dirname);

  it('are found', () => {
    expect(all.length).toBeGreaterThanOrEqual(8);
  });

  it.each(all)('%s: %s gives %s', (_, expression, result) => {
    expect(run(expression)).toEqual(run(result));
  });
});
