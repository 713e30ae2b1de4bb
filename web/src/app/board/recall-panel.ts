import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Customer, Recall } from '@hot-spline/model';
import { MessageService } from 'primeng/api';
import { Field } from '../shared/field';
import { textReader } from '../shared/readers';
import { RemoveButton } from '../shared/remove-button';
import { api } from '../state/api';
import { readCustomers } from '../state/customers';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { filter } from 'rxjs';
import { Changes } from '../state/changes';
import { Outbox } from '../state/outbox';
import { newId } from '../base/new-id';

/** When something fails on one car: every other build that has it, and whom to call. Customers are kept and erased here. */
@Component({
  selector: 'hs-recall',
  imports: [Field, RemoveButton, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="panel">
      <section aria-label="Recall">
        <h2>Who else has it?</h2>
        <p class="soft">A carrier, bolt, part or set that failed on one car sits in others too: find them, and call.</p>
        <label for="recall-of">What failed</label>
        <input
          #box
          id="recall-of"
          class="control"
          type="search"
          autocomplete="off"
          placeholder="carrier, M10x1.25, part number …"
          (input)="typed.set(box.value)"
        />
        <ul>
          @for (one of found(); track one.facet) {
            <li>
              <button type="button" class="quiet bare" (click)="ask(one.facet)">{{ one.facet }}</button>
              <span class="mono soft">{{ one.builds }}</span>
            </li>
          } @empty {
            <li class="soft">Nothing of that is in any build.</li>
          }
        </ul>
        @if (answer(); as a) {
          <h3>{{ a.of }}</h3>
          <ul class="calls">
            @for (build of a.builds; track build.id) {
              <li>
                <a [routerLink]="['/builds', build.id, 'work']">{{ build.name }}</a>
                <span class="soft">{{ build.vehicle }}</span>
                <strong>{{ build.customer || 'no customer said' }}</strong>
                <span class="mono">{{ build.reach }}</span>
              </li>
            }
          </ul>
        }
      </section>
      <section aria-label="Customers">
        <h2>Customers</h2>
        <p class="soft">A name and a way to reach them, no more. Erased, nothing of it is left; the builds stay.</p>
        <ul class="people">
          @for (one of customers(); track one.id) {
            <li>
              <hs-field
                [name]="'customer-' + one.id"
                label="Name"
                [text]="one.name"
                [read]="readName"
                [compact]="true"
                (taken)="save(one, { name: $event })"
              />
              <hs-field
                [name]="'reach-' + one.id"
                label="Telephone or mail"
                [text]="one.reach"
                [read]="readReach"
                [compact]="true"
                (taken)="save(one, { reach: $event })"
              />
              <span class="soft mono">{{ one.builds }} {{ one.builds === 1 ? 'build' : 'builds' }}</span>
              <hs-remove [what]="one.name" [asks]="true" (removed)="erase(one)" />
            </li>
          }
        </ul>
        <hs-field
          name="customer-new"
          label="Another customer"
          text=""
          [read]="readName"
          [enterOnly]="true"
          verb="Add"
          (taken)="add($event)"
        />
        <a class="quiet" href="api/customers" download="customers.json">Export them</a>
      </section>
    </div>
    <button type="button" class="quiet" (click)="closed.emit()">Close</button>
  `,
  styles: `
    @use 'breakpoints' as *;
    :host {
      display: block;
      padding: 12px 16px;
      margin-bottom: 16px;
      background: var(--sheet);
      border: 1px solid var(--rule);
      border-radius: 8px;
    }
    .panel {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 24px;
    }
    section {
      display: grid;
      gap: 6px;
      align-content: start;
    }
    h2 {
      font-size: var(--text-l);
    }
    ul {
      max-height: 260px;
      margin: 0;
      padding: 0;
      overflow-y: auto;
      list-style: none;
    }
    li {
      display: flex;
      gap: 10px;
      justify-content: space-between;
      align-items: center;
      border-bottom: 1px solid var(--rule);
    }
    li button {
      text-align: left;
    }
    .calls li {
      display: grid;
      grid-template-columns: 1fr 1.4fr;
      gap: 0 12px;
      padding: 6px 0;
    }
    .people li {
      display: grid;
      grid-template-columns: 1fr 1fr auto auto;
      align-items: end;
      padding: 4px 0;
    }
    @media #{$narrow} {
      .panel {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class RecallPanel {
  readonly closed = output();
  private readonly messages = inject(MessageService);
  private readonly outbox = inject(Outbox);
  protected readonly readName = textReader('Name', 80, 1);
  protected readonly readReach = textReader('Telephone or mail', 120);
  protected readonly typed = signal('');
  private readonly facets = signal<Recall['facets']>([]);
  protected readonly customers = signal<readonly Customer[]>([]);
  protected readonly answer = signal<{ readonly of: string; readonly builds: Recall['builds'] } | null>(null);
  protected readonly found = computed(() => {
    const words = this.typed().toLowerCase().split(/\s+/).filter(Boolean);
    return this.facets()
      .filter(({ facet }) => words.every((word) => facet.toLowerCase().includes(word)))
      .slice(0, 60);
  });

  constructor() {
    void this.run(async () => this.facets.set((await api.recall()).facets));
    void this.read();
    inject(Changes)
      .heard.pipe(
        filter(({ of }) => of === 'customers' || of === 'all'),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.read());
  }

  private async run(work: () => Promise<unknown>): Promise<void> {
    try {
      await work();
    } catch (error) {
      const detail = error instanceof Error ? error.message : String(error);
      this.messages.add({ severity: 'error', summary: 'Not done', detail, life: 8000 });
    }
  }

  private read(): Promise<void> {
    return this.run(async () => this.customers.set(await readCustomers(this.outbox)));
  }

  protected ask(of: string): Promise<void> {
    return this.run(async () => this.answer.set({ of, builds: (await api.recall(of)).builds }));
  }

  protected add(name: string): Promise<void> {
    return this.run(async () => {
      await this.outbox.putCustomer(newId(), { name, reach: '' });
      await this.read();
    });
  }

  protected save({ id, name, reach }: Customer, change: { name?: string; reach?: string }): Promise<void> {
    return this.run(async () => {
      await this.outbox.putCustomer(id, { name, reach, ...change });
      await this.read();
    });
  }

  protected erase({ id }: Customer): Promise<void> {
    return this.run(async () => {
      await this.outbox.putCustomer(id, null);
      await this.read();
    });
  }
}
