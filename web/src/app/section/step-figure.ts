import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { FigureOfStep } from '@hot-spline/core';

/** What each is called for whoever does not see it. */
const SAID: Readonly<Record<FigureOfStep, string>> = {
  padlock: 'Plug out, lock on, meter reads nought',
  tag: 'Where a tag and a stamped number stand on a case',
  turns: 'Chalk on the flange and on a wheel, and turns counted',
  match: 'Ring and pinion carry one number',
  teeth: 'A chalked tooth, counted from it round to it',
  stands: 'Car on stands, wheels chocked, jack away',
  plugs: 'Fill plug first, oil level with its hole',
  lines: 'Lines off, each plugged and labelled',
  'wheel-end': 'Brake off and hung up, hub bolts, shaft',
  sling: 'A sling round the unit, above its middle',
  puller: 'Puller under the inner race, never on the cage',
  pieces: 'Shims one by one and as a pack',
  plate: 'Plate measured at places round it; ears and colour looked at',
  breakaway: 'One wheel held, wrench on the other',
  serials: 'Number on the box is the number on the unit',
  synchro: 'Ring pressed on its cone, gap felt all round',
  'box-shaft': 'Shaft with its gears in order, nut locked last',
  drum: 'Fork in its track, ring between two gears',
  bolt: 'Bolt too long: it stands on the bottom of its hole',
  star: 'Bolts crosswise, numbered in their order',
  press: 'Pressed by the inner race, never by the cage',
  clean: 'Cut, washed, washed again',
  turning: 'Turned steadily by a wrench, or by cord and scale',
  spacer: 'Spacer of the trial beside the final one; the nut goes by small angles',
  paste: 'Paste on five teeth, drag on the ring',
  'air-line': 'Line clear of the ring, gentle bends',
  'end-float': 'Shaft pushed and pulled against the indicator',
  'heat-cycles': 'Short drives, full cooling, again',
  'dummy-pin': 'Dummy pin in place of the cross pin, so that nothing falls',
  'v-blocks': 'Shaft on V-blocks at its bearing seats, indicator in the middle; not on gears, not between centres',
};

let made = 0;

/** Small drawings of what a hand does at a step. Our own. */
@Component({
  selector: 'hs-step-figure',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './step-figure.html',
  styleUrl: './step-figure.scss',
})
export class StepFigure {
  readonly figure = input.required<FigureOfStep>();
  /** Of a star: the bolts in the order that they are drawn up, and how many are. */
  readonly order = input<readonly number[]>([1, 5, 3, 7, 2, 6, 4, 8]);
  readonly drawnUp = input(0);
  protected readonly id = `figure-${++made}`;
  protected readonly label = computed(() => SAID[this.figure()]);
  protected readonly teeth = Array.from({ length: 24 }, (_, i) => i * 15);
  protected readonly bolts = computed(() => {
    const order = this.order();
    return order.map((bolt, i) => {
      const turn = (2 * Math.PI * (bolt - 1)) / order.length - Math.PI / 2;
      return {
        bolt,
        turn: i + 1,
        x: 160 + 66 * Math.cos(turn),
        y: 90 + 66 * Math.sin(turn),
        made: i < this.drawnUp(),
        now: i === this.drawnUp(),
      };
    });
  });
  protected readonly way = computed(() =>
    this.bolts()
      .slice(0, 4)
      .map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`)
      .join('L'),
  );
}
