import { Injectable, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router } from '@angular/router';
import { filter, map } from 'rxjs';
import { SHEETS } from '../shared/sheet-list';

/** The sheet that is open, by the address. */
@Injectable({ providedIn: 'root' })
export class OpenSheet {
  private readonly router = inject(Router);
  private readonly sheets = inject(SHEETS);
  private readonly url = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      map(() => this.router.url),
    ),
    { initialValue: this.router.url },
  );
  readonly sheet = computed(() => {
    const address = this.url().split(/[/?#]/)[3];
    return this.sheets.find(({ sheet }) => sheet === address) ?? null;
  });
}
