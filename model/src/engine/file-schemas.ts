import { buildFileSchema, shopFileSchema } from '../document/build-file';
import { DESCRIPTIONS } from '../document/descriptions';
import { ledgerEntrySchema, ledgerEntryShape } from '../document/ledger';
import { buildSchema } from '../document/schema';
import { libraryFileSchema, librarySpecSchema } from '../library/schema';
import '../zod';
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
  return Object.fromEntries(
    NAMED.map(([name, , shape]) => [name, describe(jsonSchemaOf(shape, 'input', at, true), name)]),
  );
}

const FILES = { 'build-file': 'BuildFile', 'shop-file': 'ShopFile', 'library-file': 'LibraryFile' } as const;

/** One file format as JSON Schema that stands alone. */
export function fileJsonSchema(name: keyof typeof FILES): Json {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: `Hot Spline ${name}`,
    $ref: `#/$defs/${FILES[name]}`,
    $defs: namedSchemas('#/$defs/'),
  };
}
