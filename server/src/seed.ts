import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { readBuildFile } from '@hot-spline/model';
import { readLibraryFile } from '@hot-spline/model/csv';
import { Prepared } from './threads/prepare';
import { createBuild } from './keep/builds';
import type { Database } from './db/database';
import { saveSpec } from './keep/library';

/** The same demo build gets the same id everywhere, so that links to it hold. */
function demoId(name: string): string {
  const hex = createHash('sha256').update(`hot-spline demo ${name}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** Puts the files of demo/ into the database, once in its life. @returns how many were put in now */
export async function seedDemo(db: Database, folder: URL): Promise<number> {
  const done = await db.query('select value from settings where key = $1', ['demo-seeded']);
  if (done.length > 0) return 0;
  const names = readdirSync(folder).filter((name) => name.endsWith('.json'));
  for (const name of names) {
    const file = readBuildFile(JSON.parse(readFileSync(new URL(name, folder), 'utf8')));
    await createBuild(db, Prepared.from(demoId(name), file));
  }
  const library = readLibraryFile(readFileSync(new URL('library/shop-library.json', folder), 'utf8'));
  for (const { spec } of library.specs) {
    const id = demoId(`library ${spec.name}`);
    await saveSpec(db, id, { writeId: id, baseVersion: 0, who: '', spec });
  }
  await db.query('insert into settings (key, value) values ($1, $2) on conflict (key) do nothing', [
    'demo-seeded',
    names.join(' '),
  ]);
  return names.length;
}
