import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { StationKind } from '@hot-spline/model';

/** The driveline's parts as line drawings on one shaft line at half height. */
@Component({
  selector: 'hs-station-icon',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      viewBox="0 0 72 44"
      aria-hidden="true"
      fill="var(--sheet)"
      stroke="currentColor"
      stroke-width="1.6"
      stroke-linejoin="round"
    >
      @switch (kind()) {
        @case ('engine') {
          <path d="M14 10h44v28H14z" />
          <path d="M20 10V6h6v4M33 10V6h6v4M46 10V6h6v4M58 20h6M58 28h6M14 24H8" fill="none" />
        }
        @case ('coupling') {
          <path d="M26 6h6v32h-6zM36 6h5v32h-5zM41 14h6v16h-6z" />
        }
        @case ('gearbox') {
          <path d="M8 8h32l22 8v14l-22 6H8z" />
          <path d="M18 8v28M30 8v28" fill="none" stroke-width="1" />
        }
        @case ('transfer') {
          <path d="M18 6h36v16H40v16H26V22h-8z" />
        }
        @case ('prop') {
          <path d="M12 18h48v8H12z" />
          <circle cx="10" cy="22" r="5" />
          <circle cx="62" cy="22" r="5" />
        }
        @case ('final') {
          <path d="M14 18l16-5v18l-16-5z" />
          <path d="M34 4l14 6v24l-14 6z" />
        }
        @case ('unit') {
          <rect x="20" y="5" width="32" height="34" rx="6" />
          <path d="M36 12l8 10-8 10-8-10z" fill="none" />
        }
        @case ('packs') {
          <path d="M14 4h6v36h-6zM24 9h6v26h-6zM34 4h6v36h-6zM44 9h6v26h-6zM54 4h6v36h-6z" />
        }
        @case ('shafts') {
          <path d="M6 18h60v8H6z" />
          <path d="M52 18v8M56 18v8M60 18v8" fill="none" stroke-width="1.2" />
        }
        @case ('tyres') {
          <circle cx="36" cy="22" r="19" />
          <circle cx="36" cy="22" r="11" />
        }
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      height: 40px;
    }
    svg {
      height: 100%;
      display: block;
      margin: 0 auto;
    }
  `,
})
export class StationIcon {
  readonly kind = input.required<StationKind>();
}
