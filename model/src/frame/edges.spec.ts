import { InputError } from '@hot-spline/core';
import { calculations } from '../assembly/calculations';

/** Numbers at the ends of what a double holds, and below where it keeps its digits. */
const EDGES = [1.7e308, -1.7e308, 1e200, 1e59, -1e59, 5e-324, -5e-324, 1e-310, 1e-59];

type Json = Record<string, unknown> | unknown[];

/** Every place of a number in an example, as the keys that lead there. */
function places(value: unknown, path: readonly string[] = []): string[][] {
  if (typeof value === 'number') return [[...path]];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, one]) => places(one, [...path, key]));
}

function withNumber(example: unknown, path: readonly string[], value: number): unknown {
  const copy = structuredClone(example) as Json;
  let at = copy as Record<string, unknown>;
  for (const key of path.slice(0, -1)) at = at[key] as Record<string, unknown>;
  at[path.at(-1) ?? ''] = value;
  return copy;
}

describe('numbers at the edge of doubles', () => {
  it('are computed with, or refused by their field: in every place of every calculation', () => {
    const wrong: string[] = [];
    let tried = 0;
    const run = (name: string, input: unknown, what: string): void => {
      tried += 1;
      try {
        calculations.run(name, input);
      } catch (error) {
        if (!(error instanceof InputError) || error.field === '')
          wrong.push(`${name} ${what}: ${String(error).slice(0, 120)}`);
      }
    };
    for (const { name, example } of calculations.all())
      for (const value of EDGES) {
        for (const path of places(example)) run(name, withNumber(example, path, value), `${path.join('.')} = ${value}`);
        // All of them at once, and every second one.
        for (const every of [1, 2]) {
          const some = places(example).filter((_, i) => i % every === 0);
          run(
            name,
            some.reduce((input, path) => withNumber(input, path, value), example),
            `every ${every} = ${value}`,
          );
        }
      }
    expect(wrong).toEqual([]);
    expect(tried).toBeGreaterThan(3500);
  });

  it('what no double takes is refused by its place before anything is worked out', () => {
    const refused = (input: unknown): string => {
      try {
        calculations.run('gearing.teeth', input);
      } catch (error) {
        if (error instanceof InputError) return `${error.field} | ${error.allowed}`;
        throw error;
      }
      return '';
    };
    expect(refused({ ring: 1e61, pinion: 11 })).toBe('ring | 0, or 1e-60 to 1e+60 either side of it');
    expect(refused({ ring: 41, pinion: [1, { deep: 1e-61 }] })).toMatch(/^pinion\[1\]\.deep/);
    expect(refused(1e61)).toMatch(/^input/);
  });
});
