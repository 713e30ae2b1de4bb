import { InputError, entryOf } from '@hot-spline/core';
import { entrySchema } from './entry-schema';
import { fieldPath, parseOrRefuse } from './refuse';
import './zod';
import * as z from 'zod';

function refusal(schema: z.ZodType, input: unknown): InputError {
  try {
    parseOrRefuse(schema, input, 'input');
  } catch (error) {
    if (error instanceof InputError) return error;
    throw error;
  }
  throw new Error('it was taken');
}

describe('refusals', () => {
  it('write a path as the caller knows it', () => {
    expect(fieldPath(['build', 'members', 3, 'thickness'])).toBe('build.members[3].thickness');
    expect(fieldPath([0, 'a'])).toBe('[0].a');
    expect(fieldPath([])).toBe('');
  });

  const schema = z.strictObject({
    count: z.int().min(1).max(5),
    kind: z.enum(['a', 'b']),
    list: z.array(z.string().max(3)).max(2),
  });
  const good = { count: 2, kind: 'a', list: ['x'] };

  it('let what is good pass', () => {
    expect(parseOrRefuse(schema, good, 'input')).toEqual({ count: 2, kind: 'a', list: ['x'] });
  });

  const cases: [string, unknown, string, string][] = [
    ['too small', { ...good, count: 0 }, 'count', 'count must be at least 1.'],
    ['too large', { ...good, count: 9 }, 'count', 'count must be at most 5.'],
    ['a fraction', { ...good, count: 1.5 }, 'count', 'count must be a whole number.'],
    ['text', { ...good, count: 'two' }, 'count', 'count must be a number.'],
    ['not one of', { ...good, kind: 'c' }, 'kind', 'kind must be one of a, b.'],
    ['too long a list', { ...good, list: ['a', 'b', 'c'] }, 'list', 'list must be at most 2 long.'],
    ['too long a text', { ...good, list: ['abcd'] }, 'list[0]', 'list[0] must be at most 3 characters.'],
    ['a missing key', { count: 2, kind: 'a' }, 'list', 'list is missing.'],
    ['an extra key', { ...good, more: 1 }, 'more', 'more is not a known key.'],
    ['no object', 7, 'input', 'input must be an object.'],
  ];
  for (const [what, input, field, message] of cases) {
    it(`say in a sentence what is wrong: ${what}`, () => {
      const error = refusal(schema, input);
      expect(error.field).toBe(field);
      expect(error.message).toBe(message);
      expect(error.allowed.length).toBeGreaterThan(0);
    });
  }
});

describe('entries in files', () => {
  const thickness = entrySchema('length', { above: 0, max: 100, unit: 'mm' });

  it('take what the field makes of any way of typing', () => {
    for (const entry of [
      entryOf(2, 'mm'),
      { typed: '.008', value: 0.008, unit: 'in' },
      { typed: '8 thou', value: 8, unit: 'thou' },
      { typed: '7/16', value: 7 / 16, unit: 'in' },
      { typed: '1 3/8"', value: 1.375, unit: 'in' },
      { typed: '0,2 mm', value: 0.2, unit: 'mm' },
      { typed: '2.0', value: 2, unit: 'mm' },
    ]) {
      expect(thickness.safeParse(entry).success).withContext(JSON.stringify(entry)).toBeTrue();
    }
  });

  it('refuse a value or unit that the text does not say', () => {
    for (const [entry, field] of [
      [{ typed: '2 mm', value: 3, unit: 'mm' }, 'typed'],
      [{ typed: '2 mm', value: 2, unit: 'in' }, 'typed'],
      [{ typed: 'two', value: 2, unit: 'mm' }, 'typed'],
      [{ typed: '0 mm', value: 0, unit: 'mm' }, 'value'],
      [{ typed: '5 in', value: 5, unit: 'in' }, 'value'],
      [{ typed: '5 N', value: 5, unit: 'N' }, 'unit'],
      [{ typed: '5', value: 5, unit: 'furlong' }, 'unit'],
      [{ typed: '', value: 5, unit: 'mm' }, 'typed'],
    ] as const) {
      expect(refusal(thickness, entry).field).withContext(JSON.stringify(entry)).toBe(field);
    }
  });
});
