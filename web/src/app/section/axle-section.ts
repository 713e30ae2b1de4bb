import { Injectable, computed, inject } from '@angular/core';
import { InputError, axleSection } from '@hot-spline/core';
import { looksOf, sectionOfAxle, touchesOf } from '@hot-spline/model';
import { Bench } from '../state/bench';

/** The section of the axle that one stands at, with the state of its metal. */
@Injectable({ providedIn: 'root' })
export class AxleSection {
  private readonly bench = inject(Bench);
  private readonly name = this.bench.axleName;

  /** Null where there is no axle, or its teeth can be no pair. */
  readonly section = computed(() => {
    const axle = this.bench.axle();
    if (!axle) return null;
    const pack = this.bench.derived()?.axles[this.name()]?.pack ?? null;
    try {
      return axleSection(sectionOfAxle(this.name(), axle, pack));
    } catch (error) {
      // What can’t be drawn is refused where it is typed.
      if (!(error instanceof InputError)) throw error;
      return null;
    }
  });
  readonly mesh = computed(() => this.bench.derived()?.mesh[this.name()] ?? null);
  readonly looks = computed(() => looksOf(this.bench.derived()?.work[this.name()]?.steps ?? null, this.mesh()));
  readonly touches = computed(() => {
    const mesh = this.mesh();
    return mesh ? touchesOf(mesh, this.bench.system()) : [];
  });
  /** What the drawing says of itself: which of it is to scale, and what nobody has said. */
  readonly note = computed(() => {
    const said = this.bench.axle()?.identity
      ? ''
      : ' Nobody has said how this axle is put together: drawn is the usual, ours.';
    return `To scale by teeth and plates, the rest in proportion; shims thicker than they are.${said}`;
  });
}
