import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, inject, output, signal, viewChild } from '@angular/core';
import type { ArrivalPlan } from '@hot-spline/model';
import { sayMoment } from '../base/day';
import { ArrivalState } from './arrival-state';

const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

const FATES = {
  longer: 'goes on where ours ends: what it has more comes in',
  other: 'is another one here: ours stays, the archive’s does not come in',
  broken: 'does not add up in the archive: stays out',
} as const;

interface Row {
  readonly what: string;
  readonly becomes: string;
}

/** What bringing an archive in does, a line each; what is nothing is left out. */
function rowsOf({ builds, specs, entries, photos, customers }: ArrivalPlan): Row[] {
  const row = (n: number, what: string, [one, many]: readonly [string, string], plural?: string): Row[] =>
    n > 0 ? [{ what: counted(n, what, plural), becomes: n === 1 ? one : many }] : [];
  const COMES = ['comes in', 'come in'] as const;
  const STAYS = ['stays as it is here', 'stay as they are here'] as const;
  const HERE = ['is here already: nothing changes', 'are here already: nothing changes'] as const;
  return [
    ...row(builds.new, 'build', COMES),
    ...row(builds.longer, 'build', ['goes on behind what is here', 'go on behind what is here']),
    ...row(entries, 'ledger entry', ['comes with them', 'come with them'], 'ledger entries'),
    ...row(specs.new + specs.longer, 'spec', ['comes into the library', 'come into the library']),
    ...row(photos, 'photo', COMES),
    ...row(customers, 'customer', COMES),
    ...row(builds.same + builds.older, 'build', HERE),
    ...row(specs.same + specs.older, 'spec', HERE),
    ...row(builds.other, 'build', STAYS),
    ...row(specs.other, 'spec', STAYS),
    ...row(builds.broken, 'build', ['stays out: it does not add up', 'stay out: they do not add up']),
  ];
}

/** The whole shop as one file: out, and in beside what is here. */
@Component({
  selector: 'hs-archive',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="panel">
      <section aria-label="Archive of the shop">
        <h2>All of it in one file</h2>
        <p class="soft">
          Every build with its versions, readings and photos, the library, the shop’s settings. It can be brought back
          into any shop.
        </p>
        <label class="tick"
          ><input
            type="checkbox"
            [checked]="withCustomers()"
            (change)="withCustomers.set(!withCustomers())"
          />Customers’ names and addresses too</label
        >
        <a class="quiet" [href]="'api/archive?customers=' + withCustomers()" download
          ><i class="pi pi-download" aria-hidden="true"></i>Save the archive</a
        >
      </section>
      <section aria-label="Bring an archive in">
        <h2>Bring one in</h2>
        @switch (at()) {
          @case ('none') {
            <p class="soft">Beside what is here: nothing here is written over. First it says what it would do.</p>
            <button type="button" class="quiet" (click)="picker.click()">
              <i class="pi pi-upload" aria-hidden="true"></i>Choose an archive
            </button>
          }
          @case ('sending') {
            <p aria-busy="true">Sending it…</p>
          }
          @case ('reading') {
            <p aria-busy="true">Reading it: {{ share() }} %</p>
            <progress [value]="share()" max="100" aria-label="Read"></progress>
            <button type="button" class="quiet" (click)="state.drop()">Stop</button>
          }
          @case ('ready') {
            <p>
              Made {{ made() }}.
              @if (nothing()) {
                All of it is here already.
              }
            </p>
            <ul>
              @for (row of rows(); track row.what + row.becomes) {
                <li>
                  <strong>{{ row.what }}</strong> <span>{{ row.becomes }}</span>
                </li>
              }
            </ul>
            @if (named(); as list) {
              <details>
                <summary>Which</summary>
                <ul>
                  @for (one of list; track one.id) {
                    <li>
                      <span>{{ one.name }}</span> <span class="soft">{{ one.says }}</span>
                    </li>
                  }
                </ul>
              </details>
            }
            @if (state.arrival()?.plan?.customers) {
              <label class="tick"
                ><input
                  type="checkbox"
                  [checked]="bringCustomers()"
                  (change)="bringCustomers.set(!bringCustomers())"
                />With customers</label
              >
            }
            <p class="soft">The settings of this shop stay as they are.</p>
            <div class="doing">
              @if (!nothing()) {
                <button type="button" class="quiet main" (click)="state.take(bringCustomers())">Bring it in</button>
              }
              <button type="button" class="quiet" (click)="state.forget()">Leave it</button>
            </div>
          }
          @case ('arriving') {
            <p aria-busy="true">
              Bringing it in: {{ share() }} %. You can go on working; it is seen when all of it is here.
            </p>
            <progress [value]="share()" max="100" aria-label="Brought in"></progress>
            <button type="button" class="quiet" (click)="state.drop()">Stop and take it back</button>
          }
          @default {
            <p role="status">{{ ended() }}</p>
            <button type="button" class="quiet" (click)="state.forget()">Choose another</button>
          }
        }
        @if (state.problem() || state.arrival()?.problem; as why) {
          <p class="caution" role="alert">{{ why }}</p>
        }
        <input
          #picker
          type="file"
          accept=".zip,application/zip"
          aria-label="Archive to bring in"
          class="visually-hidden"
          tabindex="-1"
          (change)="send()"
        />
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
      margin-bottom: 12px;
    }
    section {
      display: grid;
      gap: 8px;
      align-content: start;
      justify-items: start;
    }
    h2 {
      font-size: var(--text-l);
    }
    .tick {
      display: flex;
      gap: 8px;
      align-items: center;
      min-height: 40px;
    }
    ul {
      width: 100%;
      max-height: 260px;
      margin: 0;
      padding: 0;
      overflow-y: auto;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: minmax(110px, 1fr) 2fr;
      gap: 0 10px;
      padding: 4px 0;
      border-bottom: 1px solid var(--rule);
    }
    progress {
      width: 100%;
      accent-color: var(--blue);
    }
    .main {
      background: var(--blue);
      border-color: var(--blue);
      color: var(--on-blue);
      font-weight: 600;
    }
    .doing {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    @media #{$narrow} {
      .panel {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class ArchivePanel {
  readonly closed = output();
  private readonly picker = viewChild.required<ElementRef<HTMLInputElement>>('picker');
  protected readonly state = inject(ArrivalState);
  protected readonly withCustomers = signal(true);
  protected readonly bringCustomers = signal(true);
  protected readonly at = computed(() =>
    this.state.sending() ? ('sending' as const) : (this.state.arrival()?.state ?? ('none' as const)),
  );
  protected readonly share = computed(() => {
    const { done = 0, of = 0 } = this.state.arrival() ?? {};
    return of === 0 ? 0 : Math.floor((100 * done) / of);
  });
  protected readonly made = computed(() => sayMoment(this.state.arrival()?.made ?? ''));
  protected readonly rows = computed(() => {
    const plan = this.state.arrival()?.plan;
    return plan ? rowsOf(plan) : [];
  });
  protected readonly named = computed(() => {
    const named = (this.state.arrival()?.plan?.named ?? []).flatMap(({ id, name, fate }) =>
      fate in FATES ? [{ id, name, says: FATES[fate as keyof typeof FATES] }] : [],
    );
    return named.length > 0 ? named : null;
  });
  protected readonly nothing = computed(() => {
    const plan = this.state.arrival()?.plan;
    if (!plan) return false;
    const { builds, specs, photos, customers } = plan;
    return builds.new + builds.longer + specs.new + specs.longer + photos + customers === 0;
  });
  protected readonly ended = computed(() => {
    switch (this.state.arrival()?.state) {
      case 'arrived':
        return 'All of it is here.';
      case 'failed':
        return 'It was not brought in; nothing of it was kept.';
      default:
        return 'Stopped; nothing of it was kept.';
    }
  });

  constructor() {
    void this.state.look();
  }

  protected async send(): Promise<void> {
    const input = this.picker().nativeElement;
    const file = input.files?.[0];
    input.value = '';
    if (file) await this.state.send(file);
  }
}
