import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { entryBase } from '@hot-spline/core';
import type { Joint } from '@hot-spline/model';

/** Bolt, flange and hole in section, to scale along the bolt: where it ends, and where its thread begins. */
@Component({
  selector: 'hs-bolt-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawn();
    <svg viewBox="0 0 360 96" role="img" [attr.aria-label]="d.words">
      <rect class="flange" [attr.x]="40" y="14" [attr.width]="d.clamped" height="68" />
      <rect class="body" [attr.x]="40 + d.clamped" y="14" [attr.width]="320 - d.clamped" height="68" />
      <rect class="hole" [attr.x]="40 + d.clamped" y="34" [attr.width]="d.hole" height="28" />
      <line class="thread" [attr.x1]="40 + d.clamped" [attr.x2]="40 + d.clamped + d.thread" y1="32" y2="32" />
      <line class="thread" [attr.x1]="40 + d.clamped" [attr.x2]="40 + d.clamped + d.thread" y1="64" y2="64" />
      <rect class="head" x="12" y="26" width="28" height="44" />
      <rect class="bolt" x="40" y="38" [attr.width]="d.bolt" height="20" [class.bad]="d.bottoms" />
      <rect class="shank" x="40" y="38" [attr.width]="d.shank" height="20" />
      <line class="end" [attr.x1]="40 + d.bolt" [attr.x2]="40 + d.bolt" y1="8" y2="88" [class.bad]="d.bottoms" />
    </svg>
  `,
  styles: `
    svg {
      width: 100%;
      max-width: 420px;
    }
    .flange {
      fill: var(--blue-wash);
      stroke: var(--field);
    }
    .body {
      fill: none;
      stroke: var(--field);
    }
    .hole {
      fill: var(--sheet);
      stroke: var(--field);
    }
    .thread {
      stroke: var(--ochre);
      stroke-width: 3;
      stroke-dasharray: 3 2;
    }
    .head,
    .bolt,
    .shank {
      fill: var(--soft);
      opacity: 0.55;
    }
    .shank {
      opacity: 0.9;
    }
    .end {
      stroke: var(--ink);
      stroke-dasharray: 2 3;
    }
    .bad {
      fill: var(--stop);
      stroke: var(--stop);
    }
  `,
})
export class BoltDrawing {
  readonly joint = input.required<Joint>();

  protected readonly drawn = computed(() => {
    const { underHead, shank, flange, washer, holeDepth, threadDepth } = this.joint();
    const mm = (entry: Joint['shank']): number => (entry ? entryBase(entry) : 0);
    const clamped = mm(flange) + mm(washer);
    const whole = Math.max(mm(underHead), clamped + mm(holeDepth), 1);
    const scale = 300 / whole;
    const full = Math.min(mm(holeDepth), mm(threadDepth ?? holeDepth));
    const bottoms = mm(underHead) >= clamped + full;
    return {
      clamped: clamped * scale,
      hole: mm(holeDepth) * scale,
      thread: full * scale,
      bolt: mm(underHead) * scale,
      shank: mm(shank) * scale,
      bottoms,
      words: `Bolt in its hole: ${bottoms ? 'it bottoms' : 'it ends before the ground'}`,
    };
  });
}
