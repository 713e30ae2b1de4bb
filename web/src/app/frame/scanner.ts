import { DOCUMENT, Injectable, inject, signal } from '@angular/core';
import { Router, type UrlTree } from '@angular/router';
import type { Scanned } from '@hot-spline/model';
import { MessageService } from 'primeng/api';
import { ScanBurst } from '../shared/scan-burst';
import { ApiError, api } from '../state/api';

type Hit = Scanned[number];

/** What of a code is said, where nobody knows it. */
const SHOWN = 60;

/** What is scanned, anywhere in the app, by a scanner that is a keyboard, opens what it is. */
@Injectable({ providedIn: 'root' })
export class Scanner {
  private readonly document = inject(DOCUMENT);
  private readonly router = inject(Router);
  private readonly messages = inject(MessageService);
  /** What a code may be, where it may be several things. */
  readonly choice = signal<{ readonly code: string; readonly hits: readonly Hit[] } | null>(null);

  begin(): void {
    const burst = new ScanBurst((code) => void this.open(code));
    // Before anybody else: what is scanned is nobody’s command.
    this.document.addEventListener('keydown', (event) => burst.down(event), { capture: true });
  }

  /** Opens what it stands for; asks where that may be several things, and says so where it is nothing. */
  async open(code: string): Promise<void> {
    try {
      const hits = await api.scan(code.slice(0, 1000));
      const [only] = hits;
      if (only && hits.length === 1) await this.router.navigateByUrl(this.addressOf(only));
      else if (only) this.choice.set({ code, hits });
      else this.say('warn', `Nobody here knows what “${cut(code)}” is.`);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      this.say('error', `“${cut(code)}” was scanned, and can’t be looked up: ${error.message}`);
    }
  }

  addressOf({ what, id, part, axle, piece }: Hit): UrlTree {
    switch (what) {
      case 'build':
        return this.router.createUrlTree(['/builds', id]);
      case 'part':
        return this.router.createUrlTree(['/builds', id, 'parts'], { queryParams: { at: `part-${part}-${axle}` } });
      case 'spec':
        return this.router.createUrlTree(['/library'], { queryParams: { spec: id, ...(piece ? { piece } : {}) } });
    }
  }

  private say(severity: 'warn' | 'error', detail: string): void {
    this.messages.add({ severity, summary: 'Scanned', detail, life: 6000 });
  }
}

const cut = (code: string): string => (code.length > SHOWN ? `${code.slice(0, SHOWN - 1)}…` : code);
