import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { FigureOfStep } from '@hot-spline/core';
import { WHOLE_BOX, stepWords, type BoxRoundStep } from '@hot-spline/model';
import { Radios } from '../shared/radios';
import { VoidButton } from '../shared/void-button';
import { StepFigure } from '../section/step-figure';
import { BoxBench } from './box-bench';

type Way = 'apart' | 'together';

/** One step at a time: taken apart, put together, in the order of the stack itself; what is ticked off stays. */
@Component({
  selector: 'hs-box-steps',
  imports: [Radios, StepFigure, VoidButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './steps-tab.html',
  styleUrl: './steps-tab.scss',
})
export class StepsTab {
  protected readonly box = inject(BoxBench);
  protected readonly ways = [
    { value: 'apart', label: 'Apart' },
    { value: 'together', label: 'Together' },
  ] as const;
  private readonly picked = signal<Way | null>(null);

  private done(way: Way, step: BoxRoundStep): boolean {
    return this.box.done(this.box.step(way, step.id));
  }

  /** Apart while something of it is left and nothing has gone together; else together. */
  protected readonly way = computed<Way>(() => {
    const picked = this.picked();
    if (picked) return picked;
    const round = this.box.round();
    if (!round) return 'together';
    const begun = round.together.some((step) => this.done('together', step));
    return begun || round.apart.every((step) => this.done('apart', step)) ? 'together' : 'apart';
  });
  protected readonly list = computed(() => {
    const [inside, round] = [this.box.kept(), this.box.round()];
    if (!inside || !round) return [];
    const way = this.way();
    const system = this.box.bench.system();
    return round[way].map((step) => ({
      step,
      ...stepWords(inside, step, way, system),
      entry: this.box.bench.readingOf(this.box.step(way, step.id)),
    }));
  });
  /** What the hand does at it, drawn; null where words are enough. */
  protected readonly figure = computed<FigureOfStep | null>(() => {
    const step = this.now()?.step;
    if (!step) return null;
    switch (step.act) {
      case 'run-out-before':
      case 'run-out-after':
        return 'v-blocks';
      case 'into-case':
      case 'lock':
        return 'box-shaft';
      case 'piece':
        return step.piece?.fit === 'press' ? 'press' : step.piece?.kind === 'hub' ? 'drum' : null;
      default:
        return null;
    }
  });
  protected readonly looked = signal<string | null>(null);
  protected readonly next = computed(() => this.list().find(({ entry }) => entry === null) ?? null);
  protected readonly now = computed(() => this.list().find(({ step }) => step.id === this.looked()) ?? this.next());
  protected readonly place = computed(() => {
    const list = this.list();
    return { done: list.filter(({ entry }) => entry !== null).length, all: list.length };
  });
  /** What has come off and has not gone on again. */
  protected readonly out = computed(() => {
    const [inside, round] = [this.box.kept(), this.box.round()];
    if (!inside || !round) return [];
    return round.apart
      .filter((step) => step.act === 'piece' && this.done('apart', step) && !this.done('together', step))
      .map((step) => stepWords(inside, step, 'apart', 'metric').title.replace(/ off$/, ''));
  });

  protected choose(way: Way): void {
    this.picked.set(way);
    this.looked.set(null);
  }

  protected tick(step: BoxRoundStep): void {
    this.box.bench.record(this.box.step(this.way(), step.id), { of: 'choice', choice: 'done' }, 'By hand');
    this.looked.set(null);
  }

  /** Another round of the whole box: what was ticked off before stays in the ledger, under its own round. */
  protected again(): void {
    this.box.bench.change((draft) => {
      const { round } = draft.boxWork ?? WHOLE_BOX;
      draft.boxWork = { round: round + 1, pieces: null };
    });
    this.picked.set(null);
  }
}
