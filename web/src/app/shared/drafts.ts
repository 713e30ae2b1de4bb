import { Injectable } from '@angular/core';
import { tabStore } from '../base/device-store';

const PREFIX = 'hot-spline.draft.';

/** Half-typed text by field, kept over a reload of this tab. */
@Injectable({ providedIn: 'root' })
export class Drafts {
  read(key: string): string | null {
    return tabStore.get(PREFIX + key);
  }

  write(key: string, text: string | null): void {
    if (text === null) tabStore.remove(PREFIX + key);
    else tabStore.set(PREFIX + key, text);
  }
}
