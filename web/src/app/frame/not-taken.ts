import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { subjects } from '@hot-spline/model';
import { Dialog } from 'primeng/dialog';
import { Outbox, type NotTaken } from '../state/outbox';
import { sayMoment } from '../base/day';

/** What a write was, in a few words. */
function whatOf({ write }: NotTaken): string {
  switch (write.kind) {
    case 'build':
      return `Change of ${write.build.name}`;
    case 'library':
      return `Library: ${write.spec.name}`;
    case 'ledger': {
      const { entry } = write;
      if (entry.kind !== 'reading') return entry.kind;
      const known = subjects.some(({ what }) => what === entry.subject.what);
      return `Reading: ${known ? entry.subject.what.replace(/-/g, ' ') : 'unknown'}`;
    }
    case 'create':
      return `New build: ${write.file.build.name}`;
    case 'archive':
      return `${write.of === 'build' ? 'A build' : 'A spec'} ${write.archived ? 'put away' : 'brought back'}`;
    case 'customer':
      return write.customer ? `Customer: ${write.customer.name}` : 'A customer erased';
    case 'settings':
      return 'Settings of the shop';
    case 'photo':
      return 'A photo';
  }
}

/** What waits for somebody: writes that the server did not take, and why nothing is sent for now. */
@Component({
  selector: 'hs-not-taken',
  imports: [Dialog],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (outbox.paused(); as pause) {
      <button type="button" class="quiet trouble" (click)="open.set(true)" [title]="pause.message">
        {{ pause.why === 'other-shop' ? 'Another shop' : 'Signed out' }}: {{ outbox.waiting() }} wait
      </button>
    }
    @if (rows().length) {
      <button type="button" class="quiet trouble" (click)="open.set(true)">{{ rows().length }} not taken</button>
    }
    <p-dialog
      header="Not taken"
      closeAriaLabel="Close"
      [visible]="open()"
      (visibleChange)="open.set($event)"
      [modal]="true"
      [dismissableMask]="true"
      [style]="{ width: 'min(640px, 94vw)' }"
    >
      @if (outbox.paused(); as pause) {
        <p class="caution">
          <span>{{ pause.message }} {{ outbox.waiting() }} changes are kept here until it goes on.</span>
        </p>
        <p class="actions">
          <button type="button" class="quiet" (click)="outbox.resume()">
            {{ pause.why === 'other-shop' ? 'Ask the server again' : 'I am signed in: go on' }}
          </button>
        </p>
      }
      @if (rows().length) {
        <p class="soft">
          The server did not take these. They stay here, over a reload too, until it does or until you throw them away.
        </p>
        <ul>
          @for (row of rows(); track row.key) {
            <li>
              <div>
                <strong>{{ row.what }}</strong>
                <span class="soft">{{ row.why }}</span>
              </div>
              <button type="button" class="quiet" (click)="outbox.sendAgain(row.key)">Send again</button>
              @if (sure() === row.key) {
                <button type="button" class="quiet stop" (click)="discard(row.key)">Yes, throw it away</button>
              } @else {
                <button type="button" class="quiet bare" (click)="sure.set(row.key)">Throw away</button>
              }
            </li>
          }
        </ul>
        <p class="actions"><button type="button" class="quiet" (click)="save()">Export all of them</button></p>
      } @else if (!outbox.paused()) {
        <p>Everything has been taken.</p>
      }
    </p-dialog>
  `,
  styles: `
    :host {
      display: contents;
    }
    .trouble {
      min-height: 28px;
      border-color: var(--ochre);
      background: var(--ochre-wash);
      color: var(--ochre-text);
      white-space: nowrap;
    }
    ul {
      margin: var(--space-3) 0;
      max-height: 50vh;
      overflow-y: auto;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: var(--space-2);
      padding: var(--space-2) 0;
      border-top: 1px solid var(--rule);
    }
    li div {
      flex: 1 1 240px;
      min-width: 0;
      overflow-wrap: anywhere;
    }
    li span {
      display: block;
      font-size: var(--text-s);
    }
    .actions {
      margin-top: var(--space-2);
    }
    .stop {
      border-color: var(--stop);
      color: var(--stop);
    }
  `,
})
export class NotTakenPanel {
  protected readonly outbox = inject(Outbox);
  protected readonly open = signal(false);
  /** The one that is about to be thrown away. */
  protected readonly sure = signal<number | null>(null);
  protected readonly rows = computed(() =>
    this.outbox.notTaken().map((one) => ({
      key: one.key,
      what: whatOf(one),
      why: `${one.refusal.message} (${sayMoment(one.refusal.at)})`,
    })),
  );

  protected discard(key: number): void {
    this.sure.set(null);
    void this.outbox.discard(key);
  }

  protected async save(): Promise<void> {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(await this.outbox.exportNotTaken());
    link.download = 'not-taken.hot-spline.json';
    link.click();
    URL.revokeObjectURL(link.href);
  }
}
