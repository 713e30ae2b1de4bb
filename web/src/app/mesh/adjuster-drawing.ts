import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { AdjusterMove } from '@hot-spline/model';

/** Carrier between its adjusters, the ring on one side: arrows show which adjuster a move turns, and which way. Our own drawing. */
@Component({
  selector: 'hs-adjuster-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 120 44" role="img" [attr.aria-label]="label()">
      <rect class="part" x="40" y="10" width="40" height="24" rx="3" />
      <rect class="ring" [attr.x]="ringX()" y="4" width="6" height="36" />
      <rect class="part" [class.now]="moves('left')" x="26" y="12" width="9" height="20" />
      <rect class="part" [class.now]="moves('right')" x="85" y="12" width="9" height="20" />
      @if (moves('left')) {
        <path class="arrow" [attr.d]="arrow('left')" />
      }
      @if (moves('right')) {
        <path class="arrow" [attr.d]="arrow('right')" />
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 92px;
      height: auto;
    }
    .part,
    .ring {
      fill: var(--sheet);
      stroke: var(--ink);
      stroke-width: 1;
    }
    .ring {
      fill: var(--ink);
    }
    .now {
      fill: var(--ochre-wash);
      stroke: var(--ochre-text);
      stroke-width: 1.5;
    }
    .arrow {
      fill: none;
      stroke: var(--ochre-text);
      stroke-width: 2;
    }
  `,
})
export class AdjusterDrawing {
  readonly move = input.required<AdjusterMove>();
  /** The side that the back of the ring looks to. */
  readonly ringSide = input.required<'left' | 'right'>();
  protected readonly label = computed(() => `${this.move().side} side ${this.move().way}`);
  protected readonly ringX = computed(() => (this.ringSide() === 'left' ? 46 : 68));

  protected moves(side: 'left' | 'right'): boolean {
    const { side: of } = this.move();
    return of === 'both' || (of === 'ring') === (side === this.ringSide());
  }

  protected arrow(side: 'left' | 'right'): string {
    // In is toward the carrier.
    const right = (side === 'left') === (this.move().way === 'in');
    const [from, to] = side === 'left' ? (right ? [4, 22] : [22, 4]) : right ? [98, 116] : [116, 98];
    const tip = right ? -5 : 5;
    return `M${from} 22H${to}M${to + tip} 17L${to} 22L${to + tip} 27`;
  }
}
