import { Injectable, signal } from '@angular/core';
import type { Arrival } from '@hot-spline/model';
import { ApiError, api } from '../state/api';

/** While the server reads or brings in, it is asked so often, ms. */
const ASK_MS = 400;

/** An archive on its way into this shop: the server’s work, seen from every page. Nothing of it waits in this browser. */
@Injectable({ providedIn: 'root' })
export class ArrivalState {
  readonly arrival = signal<Arrival | null>(null);
  readonly sending = signal(false);
  readonly problem = signal('');
  private asking = false;

  /** What is on its way, also what another page has sent. */
  look(): Promise<void> {
    return this.run(async () => this.arrival.set((await api.arrivals())[0] ?? null));
  }

  async send(file: File): Promise<void> {
    this.sending.set(true);
    this.arrival.set(null);
    await this.run(async () => {
      this.arrival.set(await api.sendArchive(await this.shop(), file));
    });
    this.sending.set(false);
  }

  take(customers: boolean): Promise<void> {
    return this.change(async (shop, id) => api.takeArchive(shop, id, customers));
  }

  /** Stops what is on its way. */
  async drop(): Promise<void> {
    await this.change((shop, id) => api.dropArchive(shop, id));
  }

  /** Puts out of sight what has ended, for every page. */
  async forget(): Promise<void> {
    await this.drop();
    this.arrival.set(null);
  }

  private async shop(): Promise<string> {
    return (await api.shop()).id;
  }

  private change(work: (shop: string, id: string) => Promise<Arrival>): Promise<void> {
    return this.run(async () => {
      const { id } = this.arrival() ?? {};
      if (id === undefined) return;
      this.arrival.set(await work(await this.shop(), id));
    });
  }

  private follow(): void {
    const { state } = this.arrival() ?? {};
    if (this.asking || (state !== 'reading' && state !== 'arriving')) return;
    this.asking = true;
    setTimeout(() => {
      this.asking = false;
      void this.look();
    }, ASK_MS);
  }

  private async run(work: () => Promise<void>): Promise<void> {
    this.problem.set('');
    try {
      await work();
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      this.problem.set(error.message);
    }
    // Also where the server was away for a moment: what it does goes on.
    this.follow();
  }
}
