import { Injectable, signal } from '@angular/core';
import { DECIMAL_SIGNS, type DecimalSign } from '@hot-spline/core';
import type { Shop, ShopSettings as Settings } from '@hot-spline/model';
import { api } from './api';

const KEYS = {
  currency: 'hot-spline.currency',
  decimal: 'hot-spline.decimal',
  name: 'hot-spline.shop-name',
  logo: 'hot-spline.shop-logo',
  address: 'hot-spline.shop-address',
  hourRate: 'hot-spline.hour-rate',
} as const;
/** In place of the shop's until it is known. */
const BEFORE = 'EUR';

const keptSign = (): DecimalSign | null =>
  DECIMAL_SIGNS.find((sign) => sign === localStorage.getItem(KEYS.decimal)) ?? null;

const keptRate = (): number | null => {
  const kept = localStorage.getItem(KEYS.hourRate);
  return kept ? Number(kept) : null;
};

/** What the shop has set: currency and decimal sign, what an hour costs; kept on the device for while the server is away. */
@Injectable({ providedIn: 'root' })
export class ShopSettings {
  private readonly kept = signal({
    currency: localStorage.getItem(KEYS.currency) ?? BEFORE,
    decimal: keptSign(),
    name: localStorage.getItem(KEYS.name) ?? '',
    logo: localStorage.getItem(KEYS.logo) || null,
    address: localStorage.getItem(KEYS.address) ?? '',
    hourRate: keptRate(),
  });
  readonly settings = this.kept.asReadonly();

  constructor() {
    api.shop().then(
      (shop) => this.keep(shop),
      () => {
        // The server is away, and the outbox says so: what this device knew stands.
      },
    );
  }

  /** @throws ApiError where the shop was not changed */
  async choose(settings: Settings): Promise<void> {
    this.keep(await api.saveShop(settings));
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

  private keep({ currency, decimal, name, logo, address, hourRate }: Omit<Shop, 'id' | 'version'>): void {
    localStorage.setItem(KEYS.currency, currency);
    localStorage.setItem(KEYS.decimal, decimal ?? '');
    localStorage.setItem(KEYS.name, name);
    localStorage.setItem(KEYS.logo, logo ?? '');
    localStorage.setItem(KEYS.address, address);
    localStorage.setItem(KEYS.hourRate, hourRate === null ? '' : String(hourRate));
    this.kept.set({ currency, decimal, name, logo, address, hourRate });
  }
}
