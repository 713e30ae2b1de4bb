import type { ListedPart, PartsToOrder } from '@hot-spline/model';
import type { Queries } from '../db/database';

const wanted = ({ state, count }: Pick<ListedPart, 'state' | 'count'>): boolean => state === 'needed' && count > 0;

/** Keeps what stands on the parts lists of a build. @returns what is to be ordered since */
export async function writeParts(
  tx: Queries,
  id: string,
  parts: readonly ListedPart[],
): Promise<readonly ListedPart[]> {
  type Old = Pick<ListedPart, 'axle' | 'part' | 'state' | 'count'>;
  const gone = await tx.query<Old & Record<string, unknown>>(
    'delete from listed_parts where build_id = $1 returning axle, part, state, count',
    [id],
  );
  const before = new Set(gone.filter(wanted).map(({ axle, part }) => `${axle} ${part}`));
  for (const { axle, part, name, count, state, supplier, number, price } of parts)
    await tx.query(
      `insert into listed_parts (build_id, axle, part, name, count, state, supplier, number, price)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
      [id, axle, part, name, count, state, supplier, number, price],
    );
  return parts.filter((one) => wanted(one) && !before.has(`${one.axle} ${one.part}`));
}

/** Parts to be ordered for all builds that are not put away: by supplier, the unsaid last, then as they are called. */
export const readWanted = (db: Queries): Promise<PartsToOrder> =>
  db.query<PartsToOrder[number] & Record<string, unknown>>(
    `select p.supplier, p.number, p.name, p.count, p.price, p.axle, p.part, b.id as build, b.name as "buildName", b.promised
     from listed_parts p join builds b on b.id = p.build_id where p.state = 'needed' and p.count > 0 and not b.archived
     order by p.supplier = '', lower(p.supplier), lower(p.name), p.number, b.promised nulls last, b.name, b.id, p.axle, p.part`,
  );
