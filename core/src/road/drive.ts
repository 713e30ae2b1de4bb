import { InputError } from '../base/errors';
import type { GearState } from './gear-state';
import { POINTS, accelerationOf, gauss, noSums, sumBetween, type Asked, type Formula, type Sums } from './quadrature';
import type { LimitedBy, Mark, TracePoint } from './run';
import { AT_REST, stretchFrom, type Stretch } from './stretch';
import type { Car } from './vehicle';

const LONGEST_S = 3600;
/** Two rules of a stretch that agree to this share: the one of 15 points is then good to some 1e-10. */
const AGREED = 1e-6;
const MOST_HALVES = 60;
/** Of what is looked for: so near to it Simpson's rule does the rest, whose error goes with the fifth power. */
const NEAR = 1e-2;
/** Of a stretch, what rounding makes of it. */
const NOTHING = 1e-13;
const TRACE_S = 0.1;
/** 80, 100 and 120 km/h. */
const WATCHED = [80 / 3.6, 100 / 3.6, 120 / 3.6] as const;

/**
 * One run. While the law depends on the speed alone, time and way are integrals over the speed: t = ∫dv/a, x = ∫v·dv/a. Stretches
 * of one law each ({@link stretchFrom}) are summed by {@link sumBetween}, halved where its two rules disagree.
 */
export class Drive {
  t = 0;
  x = 0;
  v = 0;
  stretches = 0;
  evaluations = 0;
  /** Where it came to each of the distances. */
  readonly passed: Mark[] = [];
  readonly reached: (number | null)[] = WATCHED.map(() => null);
  readonly limitTimesS: Record<LimitedBy, number> = {
    tyre: 0,
    wheelstand: 0,
    clutch: 0,
    engine: 0,
    shift: 0,
    limiter: 0,
  };
  readonly gearTimesS: number[];
  readonly energy = { drive: 0, rotating: 0, drag: 0, rolling: 0 };
  readonly trace: TracePoint[] = [];
  private coming = 0;
  /** How far the two rules of the last sum are apart. */
  private apart = 0;
  private readonly part = noSums();

  constructor(
    private readonly car: Car,
    private readonly distances: readonly number[],
    public gear: GearState,
    private readonly traced: boolean,
  ) {
    this.gearTimesS = car.gears.map(() => 0);
  }

  get done(): boolean {
    return this.coming === this.distances.length;
  }

  /** Full thrust in the gear up to a speed, or to the last distance. */
  to(speed: number): void {
    const { car, gear } = this;
    while (!this.done && this.v < speed) {
      let stretch = stretchFrom(car, gear, this.v, this.v >= gear.lockMps, this.above(speed));
      if (stretch.mps2 <= 0) {
        const locked = this.v > gear.lockMps;
        const down = stretchFrom(car, gear, this.v, locked, locked ? gear.lockMps : 0);
        if (down.mps2 >= 0) {
          this.hold(stretch.limit);
          return;
        }
        stretch = down;
      }
      this.stretches++;
      const { rest, end } = stretch;
      // Of a power without limiter and drag no end is known: on to twice the speed, and so on.
      const to = rest === null ? Math.min(end, 2 * this.v + 1) : rest + (this.v - rest) * AT_REST;
      this.over(stretch, this.v, to, 0);
      if (rest !== null && !this.done) {
        this.v = rest;
        this.hold(stretch.limit);
      } else if (!this.done) this.land(to);
    }
  }

  /** No thrust for a time: the engine is off the road and all that turns behind it rolls. */
  coast(seconds: number): void {
    if (seconds <= 0) return;
    const { car } = this;
    const law: Formula = {
      power: 0,
      still: -car.resistance(0) / car.rollingKg,
      perMps: 0,
      perV2: -(car.drag + car.rollingCoefficient * car.contact.whole.perV2) / car.rollingKg,
    };
    let left = seconds;
    const atEnd = speedAfter(law, this.v, left);
    const stops = !(atEnd > 0);
    if (stops) left = this.sum(law, this.v, 0).timeS;
    while (!this.done && left > 0) {
      const from = this.v;
      const span = this.traced ? Math.min(left, TRACE_S) : left;
      const whole = this.coasted(law, from, span);
      const target = (this.distances[this.coming] as number) - this.x;
      const marked = whole.distanceM >= target;
      let part = whole;
      let took = span;
      if (marked) {
        took = span * (target / whole.distanceM);
        for (let i = 0; i < 30; i++) {
          part = this.coasted(law, from, took);
          const excess = part.distanceM - target;
          if (Math.abs(excess) <= 1e-13 * target) break;
          took -= excess / speedAfter(law, from, took);
        }
        part.distanceM = target;
      }
      const to = took < left ? speedAfter(law, from, took) : stops ? 0 : atEnd;
      part.timeS = took;
      for (let i = 0; i < WATCHED.length; i++) {
        const speed = WATCHED[i] as number;
        if (this.reached[i] === null && from < speed && to >= speed)
          this.reached[i] = this.t + this.sum(law, from, speed).timeS;
      }
      this.add(part, 'shift', car.rollingKg / car.massKg, from, to, false);
      this.note('shift');
      if (marked) this.pass();
      left -= took;
    }
    if (stops && !this.done) this.never();
  }

  /** The rest goes by at the speed that it has. */
  hold(limit: LimitedBy): void {
    while (!this.done) this.steady(limit);
  }

  /** How far a stretch may go up. */
  private above(speed: number): number {
    let to = this.v >= this.gear.lockMps ? speed : Math.min(speed, this.gear.lockMps);
    for (let i = 0; i < WATCHED.length; i++) {
      const watched = WATCHED[i] as number;
      if (this.reached[i] === null && watched > this.v && watched < to) to = watched;
    }
    return to;
  }

  private land(speed: number): void {
    this.v = speed;
    for (let i = 0; i < WATCHED.length; i++)
      if (this.reached[i] === null && WATCHED[i] === speed) this.reached[i] = this.t;
    if (speed <= 0) this.never();
  }

  /** At the speed that it has to the next distance. */
  private steady(limit: LimitedBy): void {
    const distanceM = (this.distances[this.coming] as number) - this.x;
    const timeS = distanceM / this.v;
    const rollingJ = this.car.rolling(this.v) * distanceM;
    this.add({ timeS, distanceM, cubed: this.v ** 2 * distanceM, rollingJ }, limit, 1, this.v, this.v, true);
    this.note(limit);
    this.pass();
  }

  private never(): never {
    throw new InputError('distanceM', `distanceM is not reached in ${LONGEST_S} s.`, 'a shorter distance');
  }

  private sum(law: Formula | Asked, from: number, to: number, into = noSums()): Sums {
    this.evaluations += POINTS;
    this.apart = sumBetween(law, from, to, into);
    return into;
  }

  /** Sums a stretch, halving it where it has to be, and stops at every distance on the way. */
  private over(stretch: Stretch, from: number, to: number, depth: number): void {
    const rest = this.sum(stretch.law, from, to);
    if (!(this.apart <= AGREED) && depth < MOST_HALVES) {
      const middle = (from + to) / 2;
      this.over(stretch, from, middle, depth + 1);
      if (!this.done) this.over(stretch, middle, to, depth + 1);
      return;
    }
    if (!Number.isFinite(rest.timeS)) this.never();
    let start = from;
    while (!this.done) {
      const target = (this.distances[this.coming] as number) - this.x;
      if (rest.distanceM < target) break;
      const speed = this.meet(stretch.law, start, to, rest, 'distanceM', target);
      this.take(stretch, this.part, start, speed);
      this.pass();
      start = speed;
      leave(rest, this.part);
    }
    if (!this.done) this.take(stretch, rest, start, to);
  }

  /**
   * Where between two speeds the time or the way has come to `target`: Newton on the sums, the last bit of the way by Simpson.
   * @returns the speed there; the sums up to it lie in {@link part}
   */
  private meet(
    law: Formula | Asked,
    from: number,
    to: number,
    whole: Sums,
    what: 'timeS' | 'distanceM',
    target: number,
  ): number {
    const sums = this.part;
    const byTime = what === 'timeS';
    const share = Math.max(target / whole[what], 0);
    let low = from;
    let high = to;
    // As if the acceleration were the same throughout.
    let speed = byTime ? from + (to - from) * share : Math.sqrt(from * from + (to * to - from * from) * share);
    for (let i = 0; i < MOST_HALVES; i++) {
      this.sum(law, from, speed, sums);
      const excess = sums[what] - target;
      if (Math.abs(excess) <= NEAR * target + NOTHING * whole[what]) break;
      if (excess > 0) high = speed;
      else low = speed;
      const next = speed - excess * this.rate(law, speed, byTime);
      speed = (next - low) * (next - high) < 0 ? next : (low + high) / 2;
    }
    const excess = sums[what] - target;
    const half = speed - (excess * this.rate(law, speed, byTime)) / 2;
    const near = speed - excess * this.rate(law, half, byTime);
    this.onTo(law, speed, near, sums);
    // A millionth of it is left.
    const left = sums[what] - target;
    this.move(sums, byTime ? -left : -left / near, byTime ? -left * near : -left, near);
    sums[what] = target;
    return near - left * this.rate(law, near, byTime);
  }

  /** dv/dt or dv/dx. */
  private rate(law: Formula | Asked, speed: number, byTime: boolean): number {
    this.evaluations++;
    const mps2 = accelerationOf(law, speed);
    return byTime ? mps2 : mps2 / speed;
  }

  /** Adds to sums up to one speed what lies between it and another close by: Simpson's rule. */
  private onTo(law: Formula | Asked, from: number, to: number, sums: Sums): void {
    this.evaluations += 3;
    const middle = (from + to) / 2;
    const sixth = (to - from) / 6;
    this.move(sums, sixth / accelerationOf(law, from), (sixth * from) / accelerationOf(law, from), from);
    const slow = (4 * sixth) / accelerationOf(law, middle);
    this.move(sums, slow, slow * middle, middle);
    this.move(sums, sixth / accelerationOf(law, to), (sixth * to) / accelerationOf(law, to), to);
  }

  /** Adds a little time and way at a speed; rolling resistance as it was on the way so far. */
  private move(sums: Sums, seconds: number, metres: number, speed: number): void {
    if (sums.rollingJ !== 0) sums.rollingJ *= (sums.distanceM + metres) / sums.distanceM;
    sums.timeS += seconds;
    sums.distanceM += metres;
    sums.cubed += metres * speed * speed;
  }

  private take(stretch: Stretch, sums: Sums, from: number, to: number): void {
    const { rolling, limit, factor, law } = stretch;
    if (rolling)
      sums.rollingJ = this.car.rollingCoefficient * (rolling.still * sums.distanceM + rolling.perV2 * sums.cubed);
    if (this.traced) {
      const whole = { ...sums };
      this.draw(law, limit, whole, from, to);
      Object.assign(sums, whole);
    }
    this.add(sums, limit, factor, from, to, true);
    this.note(limit);
  }

  private add(sums: Sums, limit: LimitedBy, factor: number, from: number, to: number, driven: boolean): void {
    const { car, energy } = this;
    this.t += sums.timeS;
    this.x += sums.distanceM;
    this.v = to;
    this.limitTimesS[limit] += sums.timeS;
    this.gearTimesS[this.gear.index] = (this.gearTimesS[this.gear.index] as number) + sums.timeS;
    const kinetic = (car.massKg * (to * to - from * from)) / 2;
    const drag = car.drag * sums.cubed;
    energy.drag += drag;
    energy.rolling += sums.rollingJ;
    energy.rotating += (factor - 1) * kinetic;
    if (driven) energy.drive += factor * kinetic + drag + sums.rollingJ + car.gradeN * sums.distanceM;
    if (this.t >= LONGEST_S) this.never();
  }

  private pass(): void {
    const distanceM = this.distances[this.coming++] as number;
    this.x = distanceM;
    this.passed.push({ distanceM, timeS: this.t, speedMps: this.v });
  }

  private coasted(law: Formula, from: number, seconds: number): Sums {
    const sums = noSums();
    const { whole } = this.car.contact;
    gauss((node, weight) => {
      const v = speedAfter(law, from, (seconds * (1 + node)) / 2);
      const way = (seconds / 2) * weight * v;
      sums.distanceM += way;
      sums.cubed += way * v * v;
    });
    sums.rollingJ = this.car.rollingCoefficient * (whole.still * sums.distanceM + whole.perV2 * sums.cubed);
    return sums;
  }

  /** Points of a picture within a stretch. */
  private draw(law: Formula | Asked, limit: LimitedBy, whole: Sums, from: number, to: number): void {
    const count = Math.ceil(whole.timeS / TRACE_S);
    for (let i = 1; i < count; i++) {
      const speed = this.meet(law, from, to, whole, 'timeS', (whole.timeS * i) / count);
      this.trace.push({
        timeS: this.t + this.part.timeS,
        distanceM: this.x + this.part.distanceM,
        speedMps: speed,
        rpm: this.gear.rpm(speed),
        gear: this.gear.index,
        limit,
      });
    }
  }

  note(limit: LimitedBy): void {
    if (!this.traced) return;
    const { t: timeS, x: distanceM, v: speedMps, gear } = this;
    this.trace.push({ timeS, distanceM, speedMps, rpm: gear.rpm(speedMps), gear: gear.index, limit });
  }
}

/** Takes a part from a sum. */
function leave(whole: Sums, part: Sums): void {
  whole.timeS -= part.timeS;
  whole.distanceM -= part.distanceM;
  whole.cubed -= part.cubed;
  whole.rollingJ -= part.rollingJ;
}

/**
 * Speed after a time under dv/dt = α + γ·v² [exact]: v = (v₀ + α·T)/(1 − γ·v₀·T) with T = tan(ωt)/ω, ω² = α·γ; tanh where that is
 * negative. Below 0 where it would have come to a stop before.
 */
function speedAfter({ still, perV2 }: Formula, from: number, seconds: number): number {
  const angle2 = still * perV2 * seconds * seconds;
  if (angle2 >= (Math.PI / 2) ** 2) return -1;
  let scaled = seconds;
  if (Math.abs(angle2) < 1e-3) scaled *= 1 + angle2 * (1 / 3 + angle2 * (2 / 15 + (angle2 * 17) / 315));
  else {
    const angle = Math.sqrt(Math.abs(angle2));
    scaled *= (angle2 > 0 ? Math.tan(angle) : Math.tanh(angle)) / angle;
  }
  return (from + still * scaled) / (1 - perV2 * from * scaled);
}
