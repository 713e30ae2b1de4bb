import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Verdict } from '@hot-spline/model';

export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  stop: 'stop',
  watch: 'watch',
  'not-yet': 'not yet',
  fits: 'fits',
};

/** The four marks: disc with a tick, triangle, octagon with a bar, ring. Shape carries the meaning, colour repeats it. */
@Component({
  selector: 'hs-verdict',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 16 16" role="img" [attr.aria-label]="word()">
      @switch (verdict()) {
        @case ('fits') {
          <circle cx="8" cy="8" r="7" fill="var(--fits)" />
          <path d="M4.6 8.3l2.3 2.3 4.4-4.9" fill="none" stroke="var(--sheet)" stroke-width="1.8" />
        }
        @case ('watch') {
          <path d="M8 1.2L15.4 14.6H.6Z" fill="var(--ochre)" />
          <path d="M8 6v4.2M8 11.6v1.6" stroke="var(--sheet)" stroke-width="1.8" />
        }
        @case ('stop') {
          <path d="M5.1 1h5.8L15 5.1v5.8L10.9 15H5.1L1 10.9V5.1Z" fill="var(--stop)" />
          <path d="M4.2 8h7.6" stroke="var(--sheet)" stroke-width="2.4" />
        }
        @default {
          <circle cx="8" cy="8" r="6" fill="none" stroke="var(--soft)" stroke-width="1.6" />
        }
      }
    </svg>
  `,
  styles: `
    :host {
      display: inline-flex;
      flex: none;
      width: 14px;
      height: 14px;
    }
    svg {
      width: 100%;
      height: 100%;
    }
  `,
})
export class VerdictMark {
  readonly verdict = input.required<Verdict>();
  protected readonly word = computed(() => VERDICT_WORDS[this.verdict()]);
}
