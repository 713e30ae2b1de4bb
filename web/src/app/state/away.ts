import { Injectable, inject, signal } from '@angular/core';
import { SwUpdate } from '@angular/service-worker';
import { ApiError, api } from './api';

const AGAIN_MS = 10_000;
/** A version that is ready so soon after the start is taken at once: nobody has begun anything. */
const AT_START_MS = 15_000;

/** Whether the server is there. While it is not, what is shown comes out of this device's own cache. */
@Injectable({ providedIn: 'root' })
export class Away {
  private readonly state = signal(false);
  readonly away = this.state.asReadonly();
  /** A newer version of the application waits for the next reload. */
  readonly newer = signal(false);

  private begun = false;
  private readonly worker = inject(SwUpdate, { optional: true });

  /** Begins to watch: once, for the whole application. */
  begin(): void {
    if (this.begun) return;
    this.begun = true;
    const started = performance.now();
    // Not there in tests and where the browser has none.
    this.worker?.versionUpdates.subscribe(({ type }) => {
      if (type !== 'VERSION_READY') return;
      if (performance.now() - started < AT_START_MS) location.reload();
      else this.newer.set(true);
    });
    addEventListener('online', () => void this.look());
    addEventListener('offline', () => void this.look());
    void this.look();
  }

  /** Asks the server; asks again while it does not answer. */
  async look(): Promise<void> {
    try {
      await api.shop();
      this.state.set(false);
    } catch (error) {
      // Whatever it says, a server that says something is there.
      const away = error instanceof ApiError && error.status === 0;
      this.state.set(away);
      if (away) setTimeout(() => void this.look(), AGAIN_MS);
    }
  }
}
