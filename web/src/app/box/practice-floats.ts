import { Injectable, computed, inject } from '@angular/core';
import type { BoxShaft } from '@hot-spline/core';
import { trueBoxFloat } from '@hot-spline/core/practice';
import { boxFloatsOf } from '@hot-spline/model/practice';
import { BoxBench } from './box-bench';

/** What stands behind a practice box: what micrometer and indicator read there, never the truth itself. */
@Injectable({ providedIn: 'root' })
export class PracticeFloats {
  private readonly box = inject(BoxBench);
  private readonly floats = computed(() => {
    const build = this.box.bench.build();
    return build && boxFloatsOf(build);
  });

  /** The shim that lay in its seat; another one is measured as it was asked for. Null for a build that is not for practice. */
  shim(shaft: BoxShaft, wantedMm: number | null): number | null {
    const floats = this.floats();
    return floats && (wantedMm ?? floats.shafts[shaft].startShimMm);
  }

  /** End float with a shim; null for a build that is not for practice. */
  float(shaft: BoxShaft, shimMm: number | null): number | null {
    const floats = this.floats();
    return floats && shimMm !== null ? trueBoxFloat(floats, shaft, shimMm) : null;
  }
}
