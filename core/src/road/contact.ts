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

/** A quantity that grows with the square of the speed: `still` + `perV2`·v². */
export interface Rising {
  readonly still: number;
  readonly perV2: number;
}

/**
 * The same limits as formulas in v². Without a wheelstand (`wheelstand` null) the other axle never lifts; without a `tyre` grip alone
 * never lets go, the other axle lifts first.
 */
export interface ContactForms {
  /** Weight and downforce on all wheels, and of it on the driven ones while nothing accelerates, N. */
  readonly whole: Rising;
  readonly driven: Rising;
  /** What a m/s² puts on the driven wheels, N. */
  readonly perMps2: number;
  readonly tyre: Rising | null;
  /** Load of the driven wheels at that limit, N; below nothing the tyre is off the ground. */
  readonly load: Rising;
  /** Acceleration of a car whose driven tyres are off the ground, m/s²: nothing pushes it. */
  readonly lifted: Rising;
  readonly wheelstand: Rising | null;
}

const at = ({ still, perV2 }: Rising, speed2: number): number => still + perV2 * speed2;
/** a·x + b·y. */
const sum = (a: number, x: Rising, b: number, y: Rising): Rising => ({
  still: a * x.still + b * y.still,
  perV2: a * x.perV2 + b * y.perV2,
});

/**
 * The driven axle carries N = share·P ± (m·a·h + W·sinθ·h + D·h_drag)/L, P the weight and downforce. At the tyre limit
 * m·λ_f·a = μ·N − D − W·sinθ − C_rr·(P − N): rolling resistance of the driven wheels is inside the ground force. The
 * wheelstand limit is where N is all of P.
 *
 * Not counted: wheels' angular momentum, suspension and squat, downforce in another share than weight, tyre grip that
 * falls with load.
 */
export function contactForms(ground: Ground): ContactForms {
  const { massKg, freeFactor, grip, axle, share, cgHeightM, wheelbaseM, dragHeightM } = ground;
  const { weightN, gradeN, drag, down, rollingCoefficient } = ground;
  const inertia = massKg * freeFactor;
  const whole: Rising = { still: weightN, perV2: down };
  const against: Rising = { still: gradeN, perV2: drag };
  if (axle === 'both') {
    const tyre = sum(grip / inertia, whole, -1 / inertia, against);
    const lifted = sum(0, whole, -1 / inertia, against);
    return { whole, driven: whole, perMps2: 0, tyre, load: whole, lifted, wheelstand: null };
  }
  const sign = axle === 'rear' ? 1 : -1;
  const lever = (sign * cgHeightM) / wheelbaseM;
  const moved: Rising = { still: gradeN * lever, perV2: (sign * drag * dragHeightM) / wheelbaseM };
  const driven = sum(share, whole, 1, moved);
  const perMps2 = massKg * lever;
  const holds = grip + rollingCoefficient;
  const under = inertia - holds * perMps2;
  const outside = sum(rollingCoefficient, whole, 1, against);
  const tyre = under > 0 ? sum(holds / under, driven, -1 / under, outside) : null;
  return {
    whole,
    driven,
    perMps2,
    tyre,
    load: tyre ? sum(1, driven, perMps2, tyre) : whole,
    // A tyre off the ground pushes nothing [physics, not a guard].
    lifted: sum(0, whole, -1 / inertia, outside),
    wheelstand: perMps2 > 0 ? sum(1 / perMps2, whole, -1 / perMps2, driven) : null,
  };
}

/** The limits at a speed, for many speeds in turn. */
export function contactLimits(forms: ContactForms, grip: number): (speedMps: number, into: ContactLimit) => void {
  const { whole, driven, perMps2, tyre, load, lifted, wheelstand } = forms;
  return (speed, into) => {
    const speed2 = speed * speed;
    into.wholeN = at(whole, speed2);
    into.drivenN = at(driven, speed2);
    into.perMps2 = perMps2;
    const loaded = at(load, speed2);
    into.tyreMps2 = loaded < 0 ? at(lifted, speed2) : tyre ? at(tyre, speed2) : Number.POSITIVE_INFINITY;
    into.wheelstandMps2 = wheelstand ? at(wheelstand, speed2) : Number.POSITIVE_INFINITY;
    // Past the wheelstand limit all of the weight is on the driven axle, and no more than that.
    const carried = Math.min(Math.max(loaded, 0), Math.max(into.wholeN, 0));
    into.gripN = grip * carried;
    into.undrivenN = Math.max(0, into.wholeN - carried);
  };
}
