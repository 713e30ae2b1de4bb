import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Entry } from '@hot-spline/core';
import { TURNED, TURNED_WORDS, identityFigures, ratioTurns } from '@hot-spline/model';
import { EntryField } from '../shared/entry-field';
import { FigureButton } from '../shared/figure-button';
import { VerdictMark } from '../shared/verdict';
import { Bench } from '../state/bench';

/** The ratio while the axle is closed: turns of the prop shaft and of each wheel, and the tooth pairs that they leave. */
@Component({
  selector: 'hs-turns',
  imports: [EntryField, FigureButton, VerdictMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 class="section-title">Ratio by turns, while it is closed</h2>
    <div class="turns">
      @for (one of fields(); track one.of) {
        <hs-entry
          [name]="'turns-' + one.of + '-' + axle()"
          [label]="one.label"
          quantity="count"
          [range]="range"
          [usual]="plausible"
          [entry]="one.entry"
          [enterOnly]="true"
          [compact]="true"
          [echo]="false"
          (taken)="write(one.of, $event.entry)"
        />
      }
      <div class="found" role="status">
        @if (found(); as f) {
          <hs-figure [id]="figure()" label="" />
          <p><hs-verdict [verdict]="f.verdict" /> {{ f.words.title }}</p>
          <p class="soft">{{ f.words.detail }}</p>
        } @else {
          <p class="soft">
            Wheels off the ground, a mark on each: turns until a wheel is round, backward negative, 0 for one that was
            held. A tag is no count.
          </p>
        }
      </div>
    </div>
  `,
  styles: `
    @use 'breakpoints' as *;
    .turns {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr)) 2.4fr;
      gap: 8px;
      align-items: start;
    }
    .found {
      display: grid;
      gap: 2px;
      p {
        margin: 0;
        font-size: var(--text-s);
      }
    }
    @media #{$narrow} {
      .turns {
        grid-template-columns: repeat(3, minmax(0, 1fr));
      }
      .found {
        grid-column: 1 / -1;
      }
    }
  `,
})
export class Turns {
  private readonly bench = inject(Bench);
  protected readonly axle = this.bench.axleName;
  protected readonly range = ratioTurns.value.range;
  protected readonly plausible = ratioTurns.value.plausible;

  protected readonly fields = computed(() =>
    TURNED.map((of) => {
      const value = this.bench.readingOf(ratioTurns.of({ axle: this.axle(), of }))?.value;
      return {
        of,
        label: `${TURNED_WORDS[of]}, turns`,
        entry: value?.of === 'number' ? (value.entries[0] ?? null) : null,
      };
    }),
  );
  protected readonly figure = computed(() => identityFigures.closed(this.axle()));
  protected readonly found = computed(() => {
    const finding = this.bench.derived()?.findings.find(({ id }) => id === `identity.closed.${this.axle()}`);
    return finding ? { verdict: finding.verdict, words: finding.say(this.bench.system()) } : null;
  });

  protected write(of: (typeof TURNED)[number], entry: Entry): void {
    this.bench.record(ratioTurns.of({ axle: this.axle(), of }), entry, 'By mark and eye');
  }
}
