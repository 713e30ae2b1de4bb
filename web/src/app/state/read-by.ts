import { Injectable } from '@angular/core';
import type { GaugeSent } from '@hot-spline/model';

/** What a gauge sent for the value that a field is handing on: whoever writes it to the ledger in that moment writes this beside it. */
@Injectable({ providedIn: 'root' })
export class ReadBy {
  private now: GaugeSent | null = null;

  /** What the value in hand was read by; null where it was typed. */
  get gauge(): GaugeSent | null {
    return this.now;
  }

  /** Hands a value on. */
  during(gauge: GaugeSent | null, handOn: () => void): void {
    const before = this.now;
    this.now = gauge;
    try {
      handOn();
    } finally {
      this.now = before;
    }
  }
}
