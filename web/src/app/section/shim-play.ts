import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import type { SectionPart } from '@hot-spline/core';
import { effectOn, effectWords, type Touchable } from '@hot-spline/model';
import { Bench } from '../state/bench';
import { AxleSection } from './axle-section';
import { SectionDrawing, type Said, type Shift } from './section-drawing';

/** A move that is proposed: shown until somebody tries something else. */
export interface Proposed {
  readonly touched: readonly SectionPart[];
  readonly said: readonly Said[];
  readonly shift: Shift;
  readonly text: string;
}

/** What a shim does: one is touched, and everything that it moves moves, in the signs of this axle. */
@Component({
  selector: 'hs-shim-play',
  imports: [SectionDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (axle.section(); as section) {
      <hs-section
        [section]="section"
        [looks]="axle.looks()"
        [touched]="touched()"
        [said]="said()"
        [shift]="shift()"
        [touchable]="touchable()"
        [most]="most()"
        [label]="'Section of the axle. ' + text()"
        (chosen)="choose($event)"
      />
      <p class="text" role="status">{{ text() }}</p>
      @if (parts().length) {
        <details class="no-print" [open]="open()">
          <summary>What a shim does here</summary>
          <p class="note">{{ axle.note() }}</p>
          <div class="parts" role="group" aria-label="What a shim does here">
            @for (one of parts(); track one.label) {
              <button
                type="button"
                class="quiet"
                [attr.aria-pressed]="one === chosen()"
                (click)="chosen.set(one === chosen() ? null : one)"
              >
                {{ one.label }}
              </button>
            }
          </div>
        </details>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    .text {
      min-height: 20px;
      margin: 0 0 4px;
      color: var(--ochre-text);
      font-size: var(--text-s);
      font-weight: 600;
    }
    .note {
      margin: 0 0 4px;
      color: var(--soft);
      font-size: var(--text-s);
    }
    summary {
      min-height: 32px;
      color: var(--soft);
      font-size: var(--text-s);
      cursor: pointer;
    }
    .parts {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
    }
    button {
      min-height: 44px;
      padding: 2px 10px;
      font-size: var(--text-s);
    }
    button[aria-pressed='true'] {
      border-color: var(--ochre-text);
      background: var(--ochre-wash);
      color: var(--ochre-text);
    }
  `,
})
export class ShimPlay {
  readonly proposed = input<Proposed | null>(null);
  /** Which parts are offered; all of them where it is not said. */
  readonly of = input<readonly SectionPart[] | null>(null);
  readonly most = input(330);
  /** Laid open from the beginning: where it is what the sheet is about. */
  readonly open = input(false);
  protected readonly axle = inject(AxleSection);
  private readonly bench = inject(Bench);
  protected readonly parts = computed(() => {
    const of = this.of();
    return this.axle.touches().filter(({ part }) => of === null || of.includes(part));
  });
  protected readonly touchable = computed(() => this.parts().map(({ part }) => part));
  /** What somebody has touched; nothing of it is kept. What arrives from elsewhere meanwhile does not untouch it. */
  protected readonly chosen = linkedSignal<{ of: readonly Touchable[]; proposed: Proposed | null }, Touchable | null>({
    source: () => ({ of: this.parts(), proposed: this.proposed() }),
    computation: ({ of, proposed }, before) =>
      before?.value && before.source.proposed === proposed
        ? (of.find(({ part, label }) => part === before.value?.part && label === before.value.label) ?? null)
        : null,
  });
  private readonly effect = computed(() => {
    const [chosen, mesh] = [this.chosen(), this.axle.mesh()];
    return chosen && mesh ? effectOn(mesh, chosen.touch) : null;
  });
  protected readonly touched = computed<readonly SectionPart[]>(() => {
    const chosen = this.chosen();
    return chosen ? [chosen.part] : (this.proposed()?.touched ?? []);
  });
  protected readonly said = computed<readonly Said[]>(() => {
    const chosen = this.chosen();
    return chosen ? [{ part: chosen.part, text: chosen.label }] : (this.proposed()?.said ?? []);
  });
  protected readonly shift = computed<Shift | null>(() =>
    this.chosen() ? this.effect() : (this.proposed()?.shift ?? null),
  );
  protected readonly text = computed(() => {
    const chosen = this.chosen();
    if (chosen) return `${chosen.label}: ${effectWords(this.effect(), this.bench.system())}. Drawn larger than it is.`;
    return this.proposed()?.text ?? (this.parts().length ? 'Touch a shim in it to see what it moves.' : '');
  });

  /** The first thing that can be done to a part, then the next one, then none. */
  protected choose(part: SectionPart): void {
    const of = this.parts().filter((one) => one.part === part);
    const at = of.findIndex((one) => one === this.chosen());
    this.chosen.set(of[at + 1] ?? null);
  }
}
