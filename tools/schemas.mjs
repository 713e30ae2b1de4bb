// Writes the JSON Schemas of the files to dist/schemas, as the server gives them at /api/schemas/…: npm run schemas
import { mkdirSync, writeFileSync } from 'node:fs';
import { fileJsonSchema } from '../model/src/index.ts';
import { root } from './ensure.mjs';

const folder = `${root}dist/schemas`;
mkdirSync(folder, { recursive: true });
for (const name of ['build-file', 'shop-file', 'library-file'])
  writeFileSync(`${folder}/${name}.json`, `${JSON.stringify(fileJsonSchema(name), null, 2)}\n`);
console.log(`the schemas of the files are in ${folder}`);
