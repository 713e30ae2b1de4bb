import { randomUUID } from 'node:crypto';
import type { Queries } from '../db/database';

const KEYS = { id: 'shop-id', currency: 'shop-currency' } as const;
/** Until the shop has said otherwise. */
const CURRENCY = 'EUR';

async function setting(db: Queries, key: string): Promise<string | null> {
  const [row] = await db.query<{ value: string }>('select value from settings where key = $1', [key]);
  return row?.value ?? null;
}

async function set(db: Queries, key: string, value: string, replace: boolean): Promise<void> {
  const then = replace ? 'update set value = excluded.value' : 'nothing';
  await db.query(`insert into settings (key, value) values ($1, $2) on conflict (key) do ${then}`, [key, value]);
}

/** Which shop this is: made once with its data, the same wherever the data is opened. */
export async function readShop(db: Queries): Promise<{ id: string; currency: string }> {
  if ((await setting(db, KEYS.id)) === null) await set(db, KEYS.id, randomUUID(), false);
  return { id: (await setting(db, KEYS.id)) ?? '', currency: (await setting(db, KEYS.currency)) ?? CURRENCY };
}

export async function saveCurrency(db: Queries, currency: string): Promise<void> {
  await set(db, KEYS.currency, currency, true);
}
