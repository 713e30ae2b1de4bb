import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { PartsToOrder } from '@hot-spline/model';
import { auditTime, filter } from 'rxjs';
import { serverPath } from '../base/server-path';
import { ApiError, api } from '../state/api';
import { Changes } from '../state/changes';
import { ShopSettings } from '../state/shop-settings';

/** Of many changes one after the other, the list is read again so often, ms. */
const FOLLOW_MS = 700;

/** What builds need and nobody has ordered, by supplier: one order each, as a table to send. */
@Component({
  selector: 'hs-orders',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="To order">
      <h2>To order</h2>
      @if (problem(); as why) {
        <p class="caution" role="alert">The parts can’t be read. {{ why }}</p>
      }
      @if (suppliers(); as all) {
        @for (one of all; track one.supplier) {
          <h3>
            {{ one.supplier || 'Nobody has said from whom' }}
            <span class="soft"
              >{{ one.parts.length }} {{ one.parts.length === 1 ? 'line' : 'lines' }}{{ one.price }}</span
            >
          </h3>
          <ul>
            @for (part of one.parts; track part.build + part.axle + part.part) {
              <li>
                <span class="mono count">{{ part.count }} ×</span>
                <strong>{{ part.name }}</strong>
                <span class="mono">{{ part.number || 'no number said' }}</span>
                <a
                  [routerLink]="['/builds', part.build, 'parts']"
                  [queryParams]="{ at: 'part-' + part.part + '-' + part.axle }"
                  >{{ part.buildName }}</a
                >
              </li>
            }
          </ul>
        } @empty {
          <p class="soft">Nothing that is needed waits to be ordered.</p>
        }
        @if (all.length) {
          <a class="quiet" [href]="csv" download><i class="pi pi-table" aria-hidden="true"></i>All of it as CSV</a>
        }
      } @else if (!problem()) {
        <p class="soft" aria-busy="true">Reading the parts…</p>
      }
    </section>
    <button type="button" class="quiet" (click)="closed.emit()">Close</button>
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      justify-items: start;
      padding: 12px 16px;
      margin-bottom: 16px;
      background: var(--sheet);
      border: 1px solid var(--rule);
      border-radius: 8px;
    }
    h3 {
      margin: 12px 0 4px;
      font-size: var(--text-m);
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 12px;
      padding: 3px 0;
    }
    .count {
      min-width: 3em;
      text-align: right;
    }
    a.quiet {
      margin-top: 10px;
    }
  `,
})
export class OrdersPanel {
  readonly closed = output<void>();
  private readonly money = inject(ShopSettings);
  private readonly parts = signal<PartsToOrder | null>(null);
  protected readonly problem = signal('');
  protected readonly csv = serverPath('/parts-to-order?as=csv');
  protected readonly suppliers = computed(() => {
    const bySupplier = new Map<string, PartsToOrder>();
    const parts = this.parts();
    for (const part of parts ?? []) bySupplier.set(part.supplier, [...(bySupplier.get(part.supplier) ?? []), part]);
    return (
      parts &&
      [...bySupplier].map(([supplier, of]) => {
        const priced = of.flatMap(({ price }) => price ?? []);
        const sum = this.money.say(priced.reduce((all, price) => all + price, 0));
        const unpriced = of.length - priced.length;
        return {
          ...{ supplier, parts: of },
          price: priced.length === 0 ? '' : ` · ${sum}${unpriced > 0 ? `, ${unpriced} without a price` : ''}`,
        };
      })
    );
  });

  constructor() {
    void this.read();
    inject(Changes)
      .heard.pipe(
        filter(({ of }) => of === 'build' || of === 'all'),
        auditTime(FOLLOW_MS),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.read());
  }

  private async read(): Promise<void> {
    try {
      this.parts.set(await api.partsToOrder());
      this.problem.set('');
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      this.problem.set(error.message);
    }
  }
}
