/**
 * Loads on the driven axle, and what its tyres let pass. The only outside forces are at the tyres and in the air, so it is
 * the contact force that moves the car [exact, Newton]: m·λ_f·a = F_x − R.
 */
export interface Ground {
  readonly massKg: number;
  /** λ_f: the wheels that roll along. */
  readonly freeFactor: number;
  readonly grip: number;
  readonly axle: 'rear' | 'front' | 'both';
  /** Share of the standing weight on the driven axle. */
  readonly share: number;
  readonly cgHeightM: number;
  readonly wheelbaseM: number;
  /** Height at which drag pulls. */
  readonly dragHeightM: number;
  /** Weight across the road, N. */
  readonly weightN: number;
  /** Weight along the road, N, upwards positive. */
  readonly gradeN: number;
  /** ½·ρ·C_d·A and ½·ρ·C_l·A, N/(m/s)². */
  readonly drag: number;
  readonly down: number;
  readonly rollingCoefficient: number;
}

/** What the tyres and the weight on the other axle allow at a speed. */
export interface ContactLimit {
  /** Acceleration at which the tyres of the driven axle are at their grip, m/s². */
  tyreMps2: number;
  /** Acceleration at which the other axle has nothing left to stand on; infinite where it never lifts. */
  wheelstandMps2: number;
  /** Ground force at that tyre limit, N. */
  gripN: number;
  /** Load of the undriven wheels at the tyre limit, N. */
  undrivenN: number;
  /** Weight and downforce on all wheels, and of it on the driven ones while nothing accelerates, N. */
  wholeN: number;
  drivenN: number;
  /** What a m/s² puts on the driven wheels, N. */
  perMps2: number;
}

/** A place for the limits of a speed. */
export const noLimit = (): ContactLimit => ({
  tyreMps2: 0,
  wheelstandMps2: 0,
  gripN: 0,
  undrivenN: 0,
  wholeN: 0,
  drivenN: 0,
  perMps2: 0,
});

/** Load of the undriven wheels while the car accelerates by so much, N. */
export const undrivenLoad = ({ wholeN, drivenN, perMps2 }: ContactLimit, mps2: number): number =>
  wholeN - Math.max(0, Math.min(wholeN, drivenN + perMps2 * mps2));

/**
 * The limits at a speed, for many speeds in turn.
 *
 * The driven axle carries N = share·P ± (m·a·h + W·sinθ·h + D·h_drag)/L, P the weight and downforce. At the tyre limit
 * m·λ_f·a = μ·N − D − W·sinθ − C_rr·(P − N): rolling resistance of the driven wheels is inside the ground force. The
 * wheelstand limit is where N is all of P.
 *
 * Not counted: wheels' angular momentum, suspension and squat, downforce in another share than weight, tyre grip that
 * falls with load.
 */
export function contactLimits(ground: Ground): (speedMps: number, into: ContactLimit) => void {
  const { massKg, freeFactor, grip, axle, share, cgHeightM, wheelbaseM, dragHeightM } = ground;
  const { weightN, gradeN, drag, down, rollingCoefficient } = ground;
  const inertia = massKg * freeFactor;
  if (axle === 'both') {
    return (speed, into) => {
      into.gripN = Math.max(0, grip * (weightN + down * speed * speed));
      into.tyreMps2 = (into.gripN - drag * speed * speed - gradeN) / inertia;
      into.wheelstandMps2 = Number.POSITIVE_INFINITY;
      into.undrivenN = 0;
      into.wholeN = into.drivenN = weightN + down * speed * speed;
      into.perMps2 = 0;
    };
  }
  const sign = axle === 'rear' ? 1 : -1;
  const perAcceleration = (sign * massKg * cgHeightM) / wheelbaseM;
  const slopeMove = (sign * gradeN * cgHeightM) / wheelbaseM;
  const airMove = (sign * drag * dragHeightM) / wheelbaseM;
  const holds = grip + rollingCoefficient;
  const under = inertia - holds * perAcceleration;
  return (speed, into) => {
    const speed2 = speed * speed;
    const whole = weightN + down * speed2;
    const still = share * whole + slopeMove + airMove * speed2;
    const against = drag * speed2 + gradeN;
    // Under nothing left, grip alone never lets go: the other axle lifts first.
    let tyre = under > 0 ? (holds * still - rollingCoefficient * whole - against) / under : Number.POSITIVE_INFINITY;
    let load = still + perAcceleration * tyre;
    if (load < 0) {
      // A tyre off the ground pushes nothing [physics, not a guard].
      load = 0;
      tyre = -(rollingCoefficient * whole + against) / inertia;
    }
    into.tyreMps2 = tyre;
    into.wheelstandMps2 = perAcceleration > 0 ? (whole - still) / perAcceleration : Number.POSITIVE_INFINITY;
    // Past the wheelstand limit all of the weight is on the driven axle, and no more than that.
    const carried = Math.min(load, whole);
    into.gripN = grip * carried;
    into.undrivenN = whole - carried;
    into.wholeN = whole;
    into.drivenN = still;
    into.perMps2 = perAcceleration;
  };
}
