import { readFileSync } from 'node:fs';
import { fileJsonSchema, namedSchemas } from './file-schemas';

describe('the files as JSON Schema', () => {
  it('describe each of their keys', () => {
    const bare: string[] = [];
    const walk = (schema: unknown, parent: string): void => {
      if (typeof schema !== 'object' || schema === null) return;
      for (const [key, value] of Object.entries(schema)) {
        if (key === 'properties')
          for (const [name, property] of Object.entries(value as Record<string, object>)) {
            if (!('description' in property)) bare.push(`${parent}.${name}`);
            walk(property, name);
          }
        else walk(value, parent);
      }
    };
    for (const [name, schema] of Object.entries(namedSchemas('#/$defs/'))) walk(schema, name);
    expect([...new Set(bare)]).toEqual([]);
  });

  it('stand alone: every reference is inside', () => {
    for (const name of ['build-file', 'shop-file', 'library-file'] as const) {
      const schema = fileJsonSchema(name);
      const defs = schema['$defs'] as Record<string, unknown>;
      const refs = [...JSON.stringify(schema).matchAll(/"\$ref":"#\/\$defs\/([^"]+)"/g)].map((match) => match[1] ?? '');
      expect(refs.length).toBeGreaterThan(0);
      for (const ref of refs) expect(defs[ref]).withContext(ref).toBeDefined();
    }
  });

  it('are kept in docs as they are served', () => {
    for (const name of ['build-file', 'shop-file', 'library-file'] as const) {
      const kept: unknown = JSON.parse(
        readFileSync(new URL(`../../../docs/schemas/${name}.json`, import.meta.url), 'utf8'),
      );
      expect(kept)
        .withContext('node --import tsx tools/schemas.mjs writes them')
        .toEqual(fileJsonSchema(name) as never);
    }
  });
});
