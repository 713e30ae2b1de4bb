import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { AXLES } from '@hot-spline/model';
import { ApiError, api } from '../state/api';
import { Choice, type Option } from '../shared/choice';
import { WorkEdit } from './work-edit';

/** Takes the order of work of another build: its job, what it left out and moved, its own steps. */
@Component({
  selector: 'hs-work-like',
  imports: [Choice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="Like another job">
      <h2 class="section-title">Like another job</h2>
      @if (builds() === null) {
        <button type="button" class="quiet" (click)="look()">Choose one</button>
      } @else {
        <hs-choice
          name="work-like"
          label="Build"
          [options]="builds()!"
          [value]="chosen()"
          (chosen)="chosen.set($event)"
        />
        <button type="button" class="quiet" [disabled]="chosen() === ''" (click)="take()">
          Work as it was done there
        </button>
      }
      @if (problem(); as why) {
        <p class="caution" role="alert">{{ why }}</p>
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
      justify-items: start;
    }
  `,
})
export class WorkLike {
  private readonly edit = inject(WorkEdit);
  protected readonly builds = signal<readonly Option<string>[] | null>(null);
  protected readonly chosen = signal('');
  protected readonly problem = signal('');
  private readonly own = computed(() => this.edit.bench.editor().id);

  protected async look(): Promise<void> {
    try {
      const all = await api.builds();
      this.builds.set([
        { value: '', label: 'which one?' },
        ...all
          .filter(({ id, archived, unreadable }) => !archived && unreadable === null && id !== this.own())
          .map(({ id, name }) => ({ value: id, label: name })),
      ]);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      this.problem.set(error.message);
    }
  }

  protected async take(): Promise<void> {
    try {
      const { build } = await api.build(this.chosen());
      const there = AXLES.map((name) => build.axles[name]?.work ?? null).find((work) => work !== null);
      if (!there) return this.problem.set(`“${build.name}” has no order of work.`);
      this.problem.set('');
      if (!this.edit.work())
        this.edit.begin(this.edit.jobs().some(({ value }) => value === there.job) ? there.job : 'ratio-swap');
      this.edit.change((work) => {
        if (this.edit.jobs().some(({ value }) => value === there.job)) work.job = there.job;
        Object.assign(work, structuredClone({ facts: there.facts, schools: there.schools, runIn: there.runIn }));
        Object.assign(work, structuredClone({ skipped: there.skipped, moves: there.moves, own: there.own }));
      });
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      this.problem.set(error.message);
    }
  }
}
