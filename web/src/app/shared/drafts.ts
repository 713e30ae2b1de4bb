import { Injectable } from '@angular/core';

const PREFIX = 'hot-spline.draft.';

/** Half-typed text by field, kept over a reload of this tab. */
@Injectable({ providedIn: 'root' })
export class Drafts {
  read(key: string): string | null {
    return sessionStorage.getItem(PREFIX + key);
  }

  write(key: string, text: string | null): void {
    if (text === null) sessionStorage.removeItem(PREFIX + key);
    else sessionStorage.setItem(PREFIX + key, text);
  }
}
