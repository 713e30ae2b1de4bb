// Writes the JSON Schemas of the files into docs/schemas: node --import tsx tools/schemas.mjs
import { writeFileSync } from 'node:fs';
import { fileJsonSchema } from '../model/src/index.ts';
import { root } from './ensure.mjs';

for (const name of ['build-file', 'shop-file', 'library-file'])
  writeFileSync(`${root}docs/schemas/${name}.json`, `${JSON.stringify(fileJsonSchema(name))}\n`);
