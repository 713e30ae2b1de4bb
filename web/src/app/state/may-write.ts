import { Injectable, signal } from '@angular/core';

/** Whether who is signed in on this device may write: a looker is told before the server refuses. */
@Injectable({ providedIn: 'root' })
export class MayWrite {
  /** Somebody who only looks. */
  readonly looks = signal(false);
}

/** What a looker is told where they would change something. */
export const LOOKS_ON = 'You look on here: ask somebody who builds, or sign in as one.';
