import { UNITS, describeRange, fromBase, type UnitName } from '@hot-spline/core';
import { ENTRY_OF, type EntryOf } from '../base/entry-schema';
import { buildFileSchema, shopFileSchema } from './build-file';
import { DESCRIPTIONS } from './descriptions';
import { ledgerEntrySchema, ledgerEntryShape } from '../document/ledger';
import { buildSchema } from '../document/schema';
import { libraryFileSchema, librarySpecSchema } from '../library/schema';
import '../base/zod';
import * as z from 'zod';

type Json = Record<string, unknown>;

/** Shapes that have a name of their own in what is described; what is checked by code is described by its plain shape. */
const NAMED: readonly (readonly [name: string, schema: z.ZodType, shape: z.ZodType])[] = [
  ['Build', buildSchema, buildSchema],
  ['LedgerEntry', ledgerEntrySchema, ledgerEntryShape],
  ['LibrarySpec', librarySpecSchema, librarySpecSchema],
  ['BuildFile', buildFileSchema, buildFileSchema],
  ['ShopFile', shopFileSchema, shopFileSchema],
  ['LibraryFile', libraryFileSchema, libraryFileSchema],
];

const isJson = (value: unknown): value is Json => typeof value === 'object' && value !== null && !Array.isArray(value);

/** A number as typed: the same shape everywhere, so that it is described once. */
const ENTRY = {
  type: 'object',
  description:
    'A number as somebody typed it; typed, value and unit agree. Where it is used, its quantity and range are said.',
  properties: {
    typed: { type: 'string', minLength: 1, maxLength: 40, description: DESCRIPTIONS['typed'] },
    value: { type: 'number', description: DESCRIPTIONS['value.value'] },
    unit: { type: 'string', enum: [...Object.keys(UNITS), ''], description: DESCRIPTIONS['unit'] },
  },
  required: ['typed', 'value', 'unit'],
  additionalProperties: false,
};

const isEntry = ({ properties }: Json): boolean =>
  isJson(properties) && Object.keys(properties).join() === 'typed,value,unit';

/** Entries by quantity and range, as far as they have been met: each a shape of its own. */
const ENTRIES = new Map<string, Json>();

/**
 * The name of an entry of a quantity in a range. Its units are those of the quantity, and its value is bounded in each of them: what a
 * schema can say of a number with a unit it says.
 */
function entryShape({ quantity, range }: EntryOf, at: string): string {
  const low = range.above ?? range.min ?? -range.max;
  const bound = range.above === undefined ? 'from' : 'above';
  const name = `Entry_${quantity}_${bound}_${low}_to_${range.max}`
    .replaceAll('-', 'minus')
    .replaceAll('.', 'p')
    .replace(/[^\w]/g, '');
  if (!ENTRIES.has(`${at}${name}`)) {
    const units = (Object.keys(UNITS) as Exclude<UnitName, ''>[]).filter((unit) => UNITS[unit].quantity === quantity);
    const bare = units.length === 0 || quantity === 'ratio' || quantity === 'coefficient';
    const bounded = (unit: UnitName): Json => ({
      properties: {
        unit: { const: unit },
        value: {
          [range.above === undefined ? 'minimum' : 'exclusiveMinimum']: fromBase(low, unit),
          maximum: fromBase(range.max, unit),
        },
      },
    });
    ENTRIES.set(`${at}${name}`, {
      description: `A ${quantity}, ${describeRange(range)}.`,
      'x-quantity': quantity,
      allOf: [
        { $ref: `${at}Entry` },
        { anyOf: [...units, ...(bare ? [''] : [])].map((unit) => bounded(unit as UnitName)) },
      ],
    });
  }
  return name;
}

/** Puts a description to every key that has one, by `parent.key` or by the key alone. */
function describe(schema: unknown, parent: string): unknown {
  if (Array.isArray(schema)) return schema.map((one: unknown) => describe(one, parent));
  if (!isJson(schema)) return schema;
  const described: Json = {};
  for (const [key, value] of Object.entries(schema)) {
    if (key !== 'properties' || !isJson(value)) {
      described[key] = describe(value, parent);
      continue;
    }
    described[key] = Object.fromEntries(
      Object.entries(value).map(([name, property]) => {
        const text = DESCRIPTIONS[`${parent}.${name}`] ?? DESCRIPTIONS[name];
        const inner = describe(property, name) as Json;
        const said = [text, inner['description']].filter((part) => part !== undefined).join(' ');
        return [name, said === '' ? inner : { ...inner, description: said }];
      }),
    );
  }
  return described;
}

/**
 * JSON Schema of anything that crosses the wire; shapes with a name of their own are referred to by it.
 * @param at where the named shapes stand, e.g. `#/components/schemas/`
 */
export function jsonSchemaOf(schema: z.ZodType, io: 'input' | 'output', at: string, whole = false): Json {
  const { $schema: _, ...json } = z.toJSONSchema(schema, {
    io,
    unrepresentable: 'any',
    override: ({ zodSchema, jsonSchema }) => {
      if (isEntry(jsonSchema as Json)) {
        const { description, [ENTRY_OF]: of } = jsonSchema as Json;
        for (const key of Object.keys(jsonSchema)) delete (jsonSchema as Json)[key];
        const name = of === undefined ? 'Entry' : entryShape(of as EntryOf, at);
        Object.assign(jsonSchema, { $ref: `${at}${name}`, ...(description === undefined ? {} : { description }) });
        return;
      }
      const named = NAMED.find(([, one]) => (one as unknown) === zodSchema);
      if (!named || (whole && (zodSchema as unknown) === schema)) return;
      for (const key of Object.keys(jsonSchema)) delete (jsonSchema as Json)[key];
      (jsonSchema as Json)['$ref'] = `${at}${named[0]}`;
    },
  }) as Json;
  return json;
}

/** Every shape with a name, each key described. */
export function namedSchemas(at: string): Json {
  const shapes = NAMED.map(
    ([name, , shape]) => [name, describe(jsonSchemaOf(shape, 'input', at, true), name)] as const,
  );
  const entries = [...ENTRIES]
    .filter(([key]) => key.startsWith(at))
    .map(([key, shape]) => [key.slice(at.length), describe(shape, key)] as const)
    .sort(([a], [b]) => a.localeCompare(b));
  return { Entry: ENTRY, ...Object.fromEntries(entries), ...Object.fromEntries(shapes) };
}

/** The named shapes that one of them needs, itself included. */
function needed(name: string, all: Json): Json {
  const found = new Set<string>();
  const add = (one: string): void => {
    if (found.has(one)) return;
    found.add(one);
    for (const [, ref = ''] of JSON.stringify(all[one]).matchAll(/"#\/\$defs\/(\w+)"/g)) add(ref);
  };
  add(name);
  return Object.fromEntries(Object.entries(all).filter(([one]) => found.has(one)));
}

const FILES = { 'build-file': 'BuildFile', 'shop-file': 'ShopFile', 'library-file': 'LibraryFile' } as const;

/** One file format as JSON Schema that stands alone. */
export function fileJsonSchema(name: keyof typeof FILES): Json {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: `Hot Spline ${name}`,
    $ref: `#/$defs/${FILES[name]}`,
    $defs: needed(FILES[name], namedSchemas('#/$defs/')),
  };
}
