import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, InjectionToken, inject, signal, viewChild } from '@angular/core';
import { sayMoment } from '../base/day';
import { ApiError, api } from '../state/api';

/** Loads the page anew: the data is another shop’s then. */
export const LOAD_ANEW = new InjectionToken<() => void>('load anew', { factory: () => () => location.reload() });

/** On the board of a new shop: brings a backup back. */
@Component({
  selector: 'hs-restore',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="soft" [hidden]="done() !== ''">
      Was there a shop before?
      <button type="button" class="quiet" [disabled]="busy()" (click)="picker.click()">
        {{ busy() ? 'Bringing it back…' : 'Bring a backup back' }}
      </button>
      <input
        #picker
        type="file"
        accept=".zip,application/zip"
        aria-label="Backup to bring back"
        class="visually-hidden"
        tabindex="-1"
        (change)="restore()"
      />
    </p>
    @if (problem(); as why) {
      <p class="caution" role="alert">{{ why }}</p>
    }
    @if (done(); as what) {
      <p role="status">{{ what }} <button type="button" class="quiet main" (click)="anew()">Open it</button></p>
    }
  `,
  styles: `
    :host {
      display: grid;
      justify-items: center;
      gap: 10px;
    }
    button {
      margin-left: 8px;
    }
  `,
})
export class Restore {
  private readonly picker = viewChild.required<ElementRef<HTMLInputElement>>('picker');
  protected readonly anew = inject(LOAD_ANEW);
  protected readonly busy = signal(false);
  protected readonly problem = signal('');
  protected readonly done = signal('');

  protected async restore(): Promise<void> {
    const input = this.picker().nativeElement;
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    this.busy.set(true);
    this.problem.set('');
    try {
      const { builds, entries, photos, made } = await api.restore(file);
      this.done.set(`${builds} builds, ${entries} ledger entries and ${photos} photos of ${sayMoment(made)} are here.`);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      this.problem.set(error.message);
    } finally {
      this.busy.set(false);
    }
  }
}
