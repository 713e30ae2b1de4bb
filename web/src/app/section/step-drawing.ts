import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { starPattern, type SectionPart } from '@hot-spline/core';
import { PART_NAMES, partsOfPiece, type StepState } from '@hot-spline/model';
import { Bench } from '../state/bench';
import { AxleSection } from './axle-section';
import { SectionDrawing, type Moving } from './section-drawing';
import { StepFigure } from './step-figure';

/** What is held against the parts, in a word beside the drawing. */
const AID_WORDS = {
  'indicator-tooth': 'Square to a tooth, near its heel. Not on the ring’s body, not at the toe.',
  'indicator-ring-back': 'On the back face of the ring. Not on its teeth, not on the flange.',
  'indicator-shaft': 'In line with the shaft, on its end. Not on its side.',
  'depth-gauge': 'From the ring’s axis to the pinion’s head.',
  'race-to-flange': 'Outer race to the ring’s flange, both sides.',
  'cap-marks': 'One dot right, two left.',
  'match-marks': 'One mark over both flanges.',
  'insert-gap': 'Gap between the halves.',
  faces: 'Clean, stoned flat, dry.',
  'pin-way': 'The pin has to pass the ring, out and in.',
} as const;

/** A label for each of these at the most: more is noise. */
const LABELS = 4;

/** The drawing of one step: the section with what a hand is on, or a small figure of ours. */
@Component({
  selector: 'hs-step-drawing',
  imports: [SectionDrawing, StepFigure],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let drawing = state().step.drawing;
    @if (drawing.of === 'section') {
      @if (axle.section(); as section) {
        <hs-section
          [section]="section"
          [looks]="looks()"
          [touched]="touched()"
          [moving]="moving()"
          [said]="said()"
          [aid]="drawing.aid"
          [label]="'Section of the axle: ' + state().step.title"
          [most]="most()"
        />
        @if (drawing.aid; as aid) {
          <p>{{ words[aid] }}</p>
        }
        <p class="soft">{{ axle.note() }}</p>
      }
    } @else if (drawing.of === 'figure') {
      <hs-step-figure [figure]="drawing.figure" [order]="star()" />
    }
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    p {
      margin: 2px 0 0;
      font-size: var(--text-s);
    }
  `,
})
export class StepDrawing {
  readonly state = input.required<StepState>();
  readonly most = input(330);
  protected readonly axle = inject(AxleSection);
  private readonly bench = inject(Bench);
  protected readonly words = AID_WORDS;
  private readonly there = computed(() => new Set(this.axle.section()?.parts.map(({ part }) => part)));

  /** What comes off, or goes on where nothing does: each with the way that it has. */
  protected readonly moving = computed<readonly Moving[]>(() => {
    const { takes, returns } = this.state().step;
    const [pieces, way] = takes.length > 0 ? [takes, 'off' as const] : [returns, 'on' as const];
    // A piece that is many parts goes by the first of them.
    const firsts = pieces.flatMap(({ part }) => partsOfPiece(part).slice(0, part === 'Carrier' ? 1 : 2));
    return [...new Set(firsts)].filter((part) => this.there().has(part)).map((part) => ({ part, way }));
  });
  protected readonly touched = computed<readonly SectionPart[]>(() => {
    const { drawing } = this.state().step;
    const own = drawing.of === 'section' ? drawing.touches : [];
    return [...new Set([...own, ...this.moving().map(({ part }) => part)])].filter((part) => this.there().has(part));
  });
  /** What is off is no longer drawn as off while this step puts it back. */
  protected readonly looks = computed(() => {
    const looks = { ...this.axle.looks() };
    for (const part of this.touched()) if (looks[part] === 'out') looks[part] = 'in';
    return looks;
  });
  protected readonly said = computed(() =>
    this.touched()
      .slice(0, LABELS)
      .map((part) => ({ part, text: PART_NAMES[part] })),
  );
  protected readonly star = computed(() => {
    const count = this.bench.axle()?.identity?.ringBolts?.value.count ?? 10;
    return starPattern(count);
  });
}
