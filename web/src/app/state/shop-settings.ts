import { Injectable, inject, signal } from '@angular/core';
import { DECIMAL_SIGNS, type DecimalSign } from '@hot-spline/core';
import type { Shop, ShopSettings as Settings } from '@hot-spline/model';
import { filter } from 'rxjs';
import { api } from './api';
import { Changes } from './changes';
import { Outbox } from './outbox';
import { deviceStore } from '../base/device-store';

const KEYS = {
  currency: 'hot-spline.currency',
  decimal: 'hot-spline.decimal',
  name: 'hot-spline.shop-name',
  logo: 'hot-spline.shop-logo',
  address: 'hot-spline.shop-address',
  hourRate: 'hot-spline.hour-rate',
  weekHours: 'hot-spline.week-hours',
} as const;
/** In place of the shop's until it is known. */
const BEFORE = 'EUR';

const keptSign = (): DecimalSign | null => DECIMAL_SIGNS.find((sign) => sign === deviceStore.get(KEYS.decimal)) ?? null;

const keptRate = (): number | null => {
  const kept = deviceStore.get(KEYS.hourRate);
  return kept ? Number(kept) : null;
};

const keptWeek = (): Shop['weekHours'] => {
  const kept = deviceStore.get(KEYS.weekHours);
  return kept ? (JSON.parse(kept) as Shop['weekHours']) : null;
};

const definedOf = <T extends object>(of: T): { [K in keyof T]-?: Exclude<T[K], undefined> } =>
  Object.fromEntries(Object.entries(of).filter(([, value]) => value !== undefined)) as never;

/** What the shop has set: currency and decimal sign, what an hour costs; kept on the device for while the server is away. */
@Injectable({ providedIn: 'root' })
export class ShopSettings {
  private readonly outbox = inject(Outbox);
  private readonly kept = signal({
    currency: deviceStore.get(KEYS.currency) ?? BEFORE,
    decimal: keptSign(),
    name: deviceStore.get(KEYS.name) ?? '',
    logo: deviceStore.get(KEYS.logo) || null,
    address: deviceStore.get(KEYS.address) ?? '',
    hourRate: keptRate(),
    weekHours: keptWeek(),
  });
  readonly settings = this.kept.asReadonly();
  /** Whether whoever reaches the server may read and change everything. */
  readonly open = signal(false);

  constructor() {
    this.read();
    inject(Changes)
      .heard.pipe(filter(({ of }) => of === 'shop' || of === 'all'))
      .subscribe(() => this.read());
  }

  private read(): void {
    api.shop().then(
      (shop) => {
        this.keep(shop);
        this.open.set(shop.open);
      },
      () => {
        // The server is away, and the outbox says so: what this device knew stands.
      },
    );
  }

  /** Shown as chosen; what the server does not take is under “Not taken”. @throws Error where it is kept nowhere */
  async choose(settings: Settings): Promise<void> {
    await this.outbox.putSettings(settings);
    this.keep({ ...this.kept(), ...definedOf(settings) });
  }

  /** A price in words, cents only where there are any. */
  say(price: number): string {
    const minimumFractionDigits = Number.isInteger(price) ? 0 : undefined;
    return new Intl.NumberFormat(undefined, {
      style: 'currency',
      currency: this.kept().currency,
      minimumFractionDigits,
    }).format(price);
  }

  private keep(shop: Omit<Shop, 'id' | 'version' | 'open'>): void {
    const { currency, decimal, name, logo, address, hourRate, weekHours } = shop;
    deviceStore.set(KEYS.currency, currency);
    deviceStore.set(KEYS.decimal, decimal ?? '');
    deviceStore.set(KEYS.name, name);
    deviceStore.set(KEYS.logo, logo ?? '');
    deviceStore.set(KEYS.address, address);
    deviceStore.set(KEYS.hourRate, hourRate === null ? '' : String(hourRate));
    deviceStore.set(KEYS.weekHours, weekHours === null ? '' : JSON.stringify(weekHours));
    this.kept.set({ currency, decimal, name, logo, address, hourRate, weekHours });
  }
}
