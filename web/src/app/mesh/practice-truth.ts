import { Injectable, computed, inject } from '@angular/core';
import { assemble, practiceTorque, trueFloat } from '@hot-spline/core/practice';
import { type FlankPattern } from '@hot-spline/model';
import { floatUnitOf, practiceAxleOf, practiceBacklash, practicePlace } from '@hot-spline/model/practice';
import { CENTRED, edgesOf } from './patch';
import { SetUp } from './set-up';

/** What stands behind a practice build: what gauges and eyes see there, never the truth itself. */
@Injectable({ providedIn: 'root' })
export class PracticeTruth {
  private readonly setUp = inject(SetUp);
  readonly axle = computed(() => {
    const build = this.setUp.bench.build();
    return build && practiceAxleOf(build);
  });
  private readonly unit = computed(() => {
    const build = this.setUp.bench.build();
    return build && floatUnitOf(build);
  });
  private readonly place = computed(() => {
    const mesh = this.setUp.mesh();
    return mesh && practicePlace(mesh);
  });
  private readonly final = computed(() => this.setUp.stage() === 'final');

  /** Backlash at every place; null for a build that is not for practice. */
  readonly backlash = computed(() => {
    const [axle, place, setup] = [this.axle(), this.place(), this.setUp.setup()];
    return axle && place && setup ? practiceBacklash(axle, place, setup.places, this.final()) : null;
  });

  /** Both flanks as they are seen after painting; null for a build that is not for practice. */
  readonly pattern = computed<{ drive: FlankPattern; coast: FlankPattern } | null>(() => {
    const [axle, place, setup] = [this.axle(), this.place(), this.setUp.setup()];
    if (!axle || !place || !setup) return null;
    const { drive, coast } = assemble(axle, place.pinionShimMm, place.ringShiftMm, this.setUp.number());
    const faint = setup.state.drag === 'light';
    const seen = ({ u, v }: { u: number; v: number }): FlankPattern => {
      const patch = { ...CENTRED, u, v, shape: faint ? ('faint' as const) : ('one' as const) };
      return { ...patch, edges: edgesOf(patch) };
    };
    return { drive: seen(drive), coast: seen(coast) };
  });

  /** Turning torque of the pinion at a nut angle, N·m; null for a build that is not for practice. */
  torque(angleDeg: number): number | null {
    const axle = this.axle();
    return axle && practiceTorque(axle, angleDeg, this.setUp.setup()?.state.oil === 'oiled');
  }

  /** End float with the shim that is in; null for a build that is not for practice. */
  endFloat(final: boolean): number | null {
    const [unit, now] = [this.unit(), this.setUp.mesh()?.now];
    return unit && now ? trueFloat(unit, now.leftMm, final) : null;
  }

  /** What the micrometer reads of the shims that came out, mm. */
  readonly cameOut = computed(() => {
    const [axle, unit] = [this.axle(), this.unit()];
    if (unit) return { pinion: 0, left: unit.startShimMm, right: 0 };
    return axle && { pinion: axle.startShimMm, left: 6, right: 6 };
  });
}
