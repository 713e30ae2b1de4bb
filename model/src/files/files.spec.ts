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
});
