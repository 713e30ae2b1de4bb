import { signal } from '@angular/core';

/** Something that is asked of the server from a form: under way, and what it said where it was not done. */
export class Asking {
  private readonly running = signal(false);
  readonly busy = this.running.asReadonly();
  readonly problem = signal('');

  /** What the server does not do is said; nothing is shown as done. */
  async run(work: () => Promise<void>): Promise<void> {
    this.running.set(true);
    this.problem.set('');
    try {
      await work();
    } catch (error) {
      this.problem.set(error instanceof Error ? error.message : String(error));
    } finally {
      this.running.set(false);
    }
  }
}
