import { randomUUID } from 'node:crypto';
import { DECIMAL_SIGNS } from '@hot-spline/core';
import type { ShopSettings } from '@hot-spline/model';
import type { Database, Queries } from '../db/database';
import { tell } from './tell';

const KEYS = {
  id: 'shop-id',
  currency: 'shop-currency',
  decimal: 'shop-decimal',
  name: 'shop-name',
  logo: 'shop-logo',
  address: 'shop-address',
  hourRate: 'shop-hour-rate',
  weekHours: 'shop-week-hours',
} as const;
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
export async function readShopId(db: Queries): Promise<string> {
  const id = await setting(db, KEYS.id);
  if (id !== null) return id;
  await set(db, KEYS.id, randomUUID(), false);
  return readShopId(db);
}

/** The shop, and what it has set. */
export async function readShop(db: Queries): Promise<{ id: string } & Required<ShopSettings>> {
  const id = await readShopId(db);
  const rows = await db.query<{ key: string; value: string }>('select key, value from settings');
  const kept = new Map(rows.map(({ key, value }) => [key, value]));
  const decimal = kept.get(KEYS.decimal);
  const rate = kept.get(KEYS.hourRate) ?? '';
  const week = kept.get(KEYS.weekHours) ?? '';
  return {
    id,
    currency: kept.get(KEYS.currency) ?? CURRENCY,
    decimal: DECIMAL_SIGNS.find((sign) => sign === decimal) ?? null,
    name: kept.get(KEYS.name) ?? '',
    logo: kept.get(KEYS.logo) || null,
    address: kept.get(KEYS.address) ?? '',
    hourRate: rate === '' ? null : Number(rate),
    weekHours: week === '' ? null : (JSON.parse(week) as Required<ShopSettings>['weekHours']),
  };
}

/** Keeps what is told; what is not told stays. */
export const saveSettings = (db: Database, settings: ShopSettings): Promise<void> =>
  db.transaction(async (tx) => {
    await setAll(tx, settings);
    await tell(tx, { of: 'shop' });
  });

async function setAll(db: Queries, settings: ShopSettings): Promise<void> {
  const { currency, decimal, name, logo, address, hourRate, weekHours } = settings;
  if (currency !== undefined) await set(db, KEYS.currency, currency, true);
  if (decimal !== undefined) await set(db, KEYS.decimal, decimal ?? '', true);
  if (name !== undefined) await set(db, KEYS.name, name, true);
  if (logo !== undefined) await set(db, KEYS.logo, logo ?? '', true);
  if (address !== undefined) await set(db, KEYS.address, address, true);
  if (weekHours !== undefined) await set(db, KEYS.weekHours, weekHours === null ? '' : JSON.stringify(weekHours), true);
  if (hourRate !== undefined) await set(db, KEYS.hourRate, hourRate === null ? '' : String(hourRate), true);
}
