import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { Customer } from '@hot-spline/model';
import { MessageService } from 'primeng/api';
import { Choice } from '../shared/choice';
import { Field } from '../shared/field';
import { textReader } from '../shared/readers';
import { readDay } from '../shared/day-reader';
import { ApiError } from '../state/api';
import { readCustomers } from '../state/customers';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { filter } from 'rxjs';
import { Changes } from '../state/changes';
import { Outbox } from '../state/outbox';
import { Bench } from '../state/bench';
import { newId } from '../base/new-id';

/** Whose it is, by when, and who works on it. */
@Component({
  selector: 'hs-whose',
  imports: [Choice, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="Whose, and by when">
      <h2 class="section-title">Whose, and by when</h2>
      <hs-field
        name="job-promised"
        label="Promised for"
        [text]="build()?.promised ?? ''"
        [read]="readDay"
        placeholder="2026-12-24"
        [compact]="true"
        (taken)="set({ promised: $event })"
      />
      <hs-field
        name="job-worker"
        label="Who works on it"
        [text]="build()?.worker ?? ''"
        [read]="readWorker"
        [compact]="true"
        (taken)="set({ worker: $event })"
      />
      <hs-choice
        name="job-customer"
        label="Customer"
        [options]="options()"
        [value]="build()?.customer ?? ''"
        (chosen)="set({ customer: $event === '' ? null : $event })"
      />
      <hs-field
        name="job-customer-new"
        label="Another customer"
        text=""
        [read]="readName"
        [enterOnly]="true"
        verb="Add"
        [compact]="true"
        (taken)="add($event)"
      />
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
      margin-bottom: 14px;
    }
  `,
})
export class WhosePanel {
  private readonly bench = inject(Bench);
  private readonly messages = inject(MessageService);
  private readonly outbox = inject(Outbox);
  protected readonly build = this.bench.build;
  protected readonly readDay = readDay;
  protected readonly readWorker = textReader('Who', 60);
  protected readonly readName = textReader('Name', 80, 1);
  private readonly customers = signal<readonly Customer[]>([]);
  protected readonly options = computed(() => {
    const now = this.build()?.customer ?? null;
    const known = this.customers();
    return [
      { value: '', label: 'nobody said' },
      ...known.map(({ id, name }) => ({ value: id, label: name })),
      ...(now !== null && !known.some(({ id }) => id === now)
        ? [{ value: now, label: 'erased, or not known here' }]
        : []),
    ];
  });

  constructor() {
    void this.read();
    inject(Changes)
      .heard.pipe(
        filter(({ of }) => of === 'customers' || of === 'all'),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.read());
  }

  private async read(): Promise<void> {
    try {
      this.customers.set(await readCustomers(this.outbox));
    } catch (error) {
      // The header says that the server is away; who it is stays as it was.
      if (!(error instanceof ApiError)) throw error;
    }
  }

  protected set(change: { promised?: string | null; worker?: string; customer?: string | null }): void {
    this.bench.change((build) => Object.assign(build, change));
  }

  protected async add(name: string): Promise<void> {
    const id = newId();
    try {
      await this.outbox.putCustomer(id, { name, reach: '' });
      this.set({ customer: id });
      await this.read();
    } catch (error) {
      const detail = error instanceof Error ? error.message : String(error);
      this.messages.add({ severity: 'error', summary: 'Not kept', detail, life: 8000 });
    }
  }
}
