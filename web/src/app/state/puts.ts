import { Injectable } from '@angular/core';

/** What was put into the outbox last: whoever caused it can hear whether this device keeps it. */
@Injectable({ providedIn: 'root' })
export class Puts {
  /** Settles when it is kept; null before anything was put. */
  newest: Promise<void> | null = null;
}
