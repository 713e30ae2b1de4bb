import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { PlaceSpec } from '@hot-spline/model';

/** A place on a face with what is counted of it. */
export interface FaceRow {
  readonly place: PlaceSpec;
  readonly out: number | null;
  readonly back: number | null;
  readonly look: string;
}

const WIDE = { width: 300, height: 160, in: 24 } as const;

/** Evenly round the edge of the face, from its upper middle on: where nobody has said where something lies. */
export function roundTheEdge(index: number, of: number): readonly [number, number] {
  const angle = (2 * Math.PI * index) / of - Math.PI / 2;
  return [50 + 44 * Math.cos(angle), 50 + 40 * Math.sin(angle)];
}

/**
 * One face of a case from outside, everything on it where it lies: in, out, or not touched. By touch or mouse; the buttons and the field
 * beside it do the same by keys.
 */
@Component({
  selector: 'hs-face-map',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      [attr.viewBox]="'0 0 ' + wide.width + ' ' + wide.height"
      role="img"
      [attr.aria-label]="says()"
      [class.placing]="placing() !== null"
      (pointerup)="tap($event)"
    >
      <rect class="face" x="6" y="6" [attr.width]="wide.width - 12" [attr.height]="wide.height - 12" rx="30" />
      @for (one of spots(); track one.key) {
        <g
          [class]="one.look"
          [class.guess]="one.guess"
          [class.hidden]="one.hidden"
          (pointerup)="hit($event, one.place)"
        >
          <circle class="room" [attr.cx]="one.x" [attr.cy]="one.y" r="15" />
          <circle class="dot" [attr.cx]="one.x" [attr.cy]="one.y" r="8" />
          <text [attr.x]="one.x" [attr.y]="one.y + 3.5">{{ one.letter }}</text>
        </g>
      }
    </svg>
    <p class="soft small">{{ placing() === null ? legend() : 'Touch the face where each of them lies.' }}</p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
    }
    svg {
      width: 100%;
      max-width: 420px;
      touch-action: manipulation;
    }
    .placing {
      cursor: crosshair;
    }
    .face {
      fill: var(--sheet);
      stroke: var(--field);
      stroke-width: 1.5;
    }
    .room {
      fill: transparent;
      cursor: pointer;
    }
    .dot {
      fill: var(--sheet);
      stroke: var(--soft);
      stroke-width: 1.6;
      pointer-events: none;
    }
    .guess .dot {
      stroke-dasharray: 3 2;
    }
    .hidden .dot {
      stroke-width: 3;
    }
    .out .dot {
      fill: var(--ochre-wash);
      stroke: var(--ochre);
    }
    .in .dot {
      fill: var(--fits);
      stroke: var(--fits);
    }
    .in text {
      fill: var(--sheet);
    }
    .stop .dot {
      fill: var(--stop-wash);
      stroke: var(--stop);
    }
    text {
      font-size: 10px;
      text-anchor: middle;
      fill: var(--ink);
      pointer-events: none;
    }
  `,
})
export class FaceMap {
  readonly face = input.required<string>();
  readonly rows = input.required<readonly FaceRow[]>();
  /** The place whose pieces are being placed by touch; null: what is touched is counted. */
  readonly placing = input<string | null>(null);
  readonly counted = output<PlaceSpec>();
  readonly placed = output<readonly [number, number]>();
  protected readonly wide = WIDE;

  protected readonly spots = computed(() => {
    const rows = this.rows();
    const unsaid = rows.reduce((sum, { place }) => sum + place.count - place.spots.length, 0);
    let next = 0;
    return rows.flatMap(({ place, out, back, look }, row) =>
      Array.from({ length: place.count }, (_, i) => {
        const said = place.spots[i];
        const [x, y] = said ?? roundTheEdge(next++, unsaid);
        return {
          key: `${place.id}.${i}`,
          place,
          guess: said === undefined,
          hidden: place.hidden,
          letter: String.fromCharCode(65 + (row % 26)),
          look: look === 'stop' ? 'stop' : i < (back ?? 0) ? 'in' : i < (out ?? 0) ? 'out' : 'shut',
          x: WIDE.in + (x / 100) * (WIDE.width - 2 * WIDE.in),
          y: WIDE.in + (y / 100) * (WIDE.height - 2 * WIDE.in),
        };
      }),
    );
  });

  protected readonly legend = computed(() => {
    const guessed = this.spots().some(({ guess }) => guess);
    return `Touched: one out, then one in again – by how many, not by which.${guessed ? ' Dashed: where nobody has said, laid round the edge.' : ''}`;
  });

  protected readonly says = computed(() => {
    const all = this.spots();
    const of = (look: string): number => all.filter((one) => one.look === look).length;
    return `${this.face()}: ${of('out')} out, ${of('in')} in again, ${of('shut')} not touched`;
  });

  protected hit(event: Event, place: PlaceSpec): void {
    if (this.placing() !== null) return;
    event.stopPropagation();
    this.counted.emit(place);
  }

  protected tap(event: PointerEvent): void {
    if (this.placing() === null) return;
    const box = (event.currentTarget as SVGElement).getBoundingClientRect();
    const hundredths = (at: number, drawn: number, wide: number): number => {
      const share = ((at / drawn) * wide - WIDE.in) / (wide - 2 * WIDE.in);
      // Beside the face is its edge.
      return Math.round(100 * Math.min(1, Math.max(0, share)));
    };
    this.placed.emit([
      hundredths(event.clientX - box.left, box.width, WIDE.width),
      hundredths(event.clientY - box.top, box.height, WIDE.height),
    ]);
  }
}
