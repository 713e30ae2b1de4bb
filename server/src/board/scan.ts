import { idSchema, type Scanned } from '@hot-spline/model';
import type { Queries } from '../db/database';

/** How many answers are given: who scans chooses among a few. */
const MOST = 20;

const NONE = { part: null, axle: null, piece: null } as const;

/** What stands in the address of a label of ours: where it leads, and which piece of a drawer. */
function addressed(
  code: string,
): { readonly of: 'builds' | 'library'; readonly id: string; readonly piece: string | null } | null {
  // A label says its address in the first line, and in words what it is for in those after it.
  const [first = ''] = code.split(/\s/, 1);
  if (!/^https?:\/\//i.test(first) || !URL.canParse(first)) return null;
  const { pathname, searchParams } = new URL(first);
  // Wherever it was printed: before or behind a proxy, under another name.
  const build = /\/builds\/([^/]+)\/?$/.exec(pathname)?.[1];
  const id = build ?? (/\/library\/?$/.test(pathname) ? searchParams.get('spec') : null) ?? '';
  if (!idSchema.safeParse(id).success) return null;
  return { of: build === undefined ? 'library' : 'builds', id, piece: searchParams.get('piece') };
}

/**
 * What a code stands for that was scanned: a label of ours, by its address, wherever it was printed; else a part number or a name,
 * whole and as it is written but for capitals.
 * Does not look at: what was put away, but by its own label; words of ledgers.
 */
export async function whatIs(db: Queries, code: string): Promise<Scanned> {
  const at = addressed(code);
  if (at) {
    const [one] = await db.query<{ name: string }>(
      at.of === 'builds' ? 'select name from builds where id = $1' : 'select name from library where id = $1',
      [at.id],
    );
    return one
      ? [{ ...NONE, what: at.of === 'builds' ? 'build' : 'spec', id: at.id, name: one.name, piece: at.piece }]
      : [];
  }
  const said = code.toLowerCase();
  const builds = await db.query<{ id: string; name: string }>(
    'select id, name from builds where lower(name) = $1 and not archived order by updated_at desc, id limit $2',
    [said, MOST],
  );
  const specs = await db.query<{ id: string; name: string }>(
    'select id, name from library where lower(name) = $1 and not archived order by name, id limit $2',
    [said, MOST],
  );
  const parts = await db.query<{ id: string; name: string; part: string; axle: 'rear' | 'front' }>(
    `select b.id, b.name, p.part, p.axle from listed_parts p join builds b on b.id = p.build_id
     where lower(p.number) = $1 and not b.archived order by b.updated_at desc, b.id, p.axle, p.part limit $2`,
    [said, MOST],
  );
  return [
    ...builds.map((one) => ({ ...NONE, ...one, what: 'build' as const })),
    ...specs.map((one) => ({ ...NONE, ...one, what: 'spec' as const })),
    ...parts.map((one) => ({ ...NONE, ...one, what: 'part' as const })),
  ].slice(0, MOST);
}
