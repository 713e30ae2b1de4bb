import { Injectable, signal } from '@angular/core';
import { api } from './api';

const KEY = 'hot-spline.currency';
/** In place of the shop's until it is known. */
const BEFORE = 'EUR';

/** The currency of the shop's prices; kept on the device for while the server is away. */
@Injectable({ providedIn: 'root' })
export class Prices {
  private readonly kept = signal(localStorage.getItem(KEY) ?? BEFORE);
  readonly currency = this.kept.asReadonly();

  constructor() {
    api.shop().then(
      ({ currency }) => this.keep(currency),
      () => {
        // The server is away, and the outbox says so: what this device knew stands.
      },
    );
  }

  /** @throws ApiError where the shop was not changed */
  async choose(currency: string): Promise<void> {
    this.keep((await api.saveShop(currency)).currency);
  }

  /** A price in words, cents only where there are any. */
  say(price: number): string {
    const minimumFractionDigits = Number.isInteger(price) ? 0 : undefined;
    return new Intl.NumberFormat(undefined, {
      style: 'currency',
      currency: this.kept(),
      minimumFractionDigits,
    }).format(price);
  }

  private keep(currency: string): void {
    localStorage.setItem(KEY, currency);
    this.kept.set(currency);
  }
}
