import type { Rising } from './contact';
import type { Asked, Formula } from './quadrature';
import type { Car, DriveLimit, Push } from './vehicle';
import type { GearState, Line } from './gear-state';

/** Speeds through which one law holds: one thing is the limit, and the engine is tied to the road or it is not. */
export interface Stretch {
  readonly limit: DriveLimit;
  /** λ that goes with it. */
  readonly factor: number;
  readonly law: Formula | Asked;
  /** Load of the wheels whose rolling resistance is no part of the contact force, N; null where the law tells it speed by speed. */
  readonly rolling: Rising | null;
  /** Acceleration just after its beginning, m/s². */
  readonly mps2: number;
  /** Where it ends. */
  readonly end: number;
  /** Speed before the end at which nothing accelerates any more: the car comes to it and stays. */
  readonly rest: number | null;
}

/** Of the way to a speed at which nothing accelerates any more, what is left when it counts as reached. */
export const AT_REST = 1e-8;

/** A share of the speed, and a speed, that is no stretch of its own. */
const LEAST = 1e-9;

/**
 * The stretch that begins at a speed.
 *
 * Without slip of a converter and growth of the tyre each limit is a quadratic in the speed, engine and clutch by a straight piece of
 * the torque curve, tyre and weight by v² (of a constant power, with P/v beside it): the least of them holds up to the nearest root of
 * a difference. Otherwise the law is asked, and where its limit changes is found by halves.
 * @param upTo speed at which it ends at the latest; below `speed` where the car loses speed
 */
export function stretchFrom(car: Car, gear: GearState, speed: number, locked: boolean, upTo: number): Stretch {
  const upwards = upTo >= speed;
  const curved = upwards ? speed < gear.curvedToMps : speed <= gear.curvedToMps;
  return curved ? curvedFrom(car, gear, speed, locked, upTo) : straightFrom(car, gear, speed, locked, upTo);
}

const NOTHING: Rising = { still: 0, perV2: 0 };
const line: Line = { fromMps: 0, toMps: 0, still: 0, perMps: 0 };
/** What can be the limit, in the order in which the later one has to be less: a place for their formulas. */
const KINDS = ['engine', 'clutch', 'tyre', 'wheelstand'] as const;
const power = new Float64Array(4);
const still = new Float64Array(4);
const perMps = new Float64Array(4);
const perV2 = new Float64Array(4);
const none = new Uint8Array(4);

function put(kind: number, watts: number, constant: number, linear: number, square: number): void {
  power[kind] = watts;
  still[kind] = constant;
  perMps[kind] = linear;
  perV2[kind] = square;
  none[kind] = 0;
}

function straightFrom(car: Car, gear: GearState, speed: number, locked: boolean, upTo: number): Stretch {
  const upwards = upTo >= speed;
  const { contact, massKg, rollingKg, freeFactor, rollingCoefficient: rolls } = car;
  const { whole, load, wheelstand } = contact;
  const probe = upwards ? speed + LEAST * (speed + 1) : speed - LEAST * (speed + 1);
  gear.line(probe, upwards, line);
  const againstN = rolls * whole.still + car.gradeN;
  const againstV2 = rolls * whole.perV2 + car.drag;
  const kg = locked ? gear.inertiaKg : rollingKg;
  put(0, gear.powerW / kg, (line.still - againstN) / kg, line.perMps / kg, -againstV2 / kg);
  const capacity = gear.clutchThrust(probe);
  if (capacity < Number.POSITIVE_INFINITY) put(1, 0, (capacity - againstN) / rollingKg, 0, -againstV2 / rollingKg);
  else none[1] = 1;
  const loaded = load.still + load.perV2 * probe * probe;
  const tyre = loaded < 0 ? contact.lifted : contact.tyre;
  if (tyre) put(2, 0, tyre.still, 0, tyre.perV2);
  else none[2] = 1;
  if (wheelstand) put(3, 0, wheelstand.still, 0, wheelstand.perV2);
  else none[3] = 1;

  let chosen = 0;
  let least = Number.POSITIVE_INFINITY;
  for (let kind = 0; kind < 4; kind++) {
    if (none[kind] === 1) continue;
    const mps2 =
      (power[kind] as number) / probe +
      (still[kind] as number) +
      probe * ((perMps[kind] as number) + probe * (perV2[kind] as number));
    if (mps2 < least) {
      chosen = kind;
      least = mps2;
    }
  }
  const law: Formula = {
    power: power[chosen] as number,
    still: still[chosen] as number,
    perMps: perMps[chosen] as number,
    perV2: perV2[chosen] as number,
  };
  let end = upwards ? Math.min(upTo, line.toMps) : Math.max(upTo, line.fromMps);
  for (let kind = 0; kind < 4; kind++) {
    if (kind === chosen || none[kind] === 1) continue;
    end = nextRoot(
      (power[kind] as number) - law.power,
      (still[kind] as number) - law.still,
      (perMps[kind] as number) - law.perMps,
      (perV2[kind] as number) - law.perV2,
      probe,
      end,
    );
  }
  if (tyre) {
    end = nextRoot(0, load.still, 0, load.perV2, probe, end);
    end = nextRoot(0, load.still - whole.still, 0, load.perV2 - whole.perV2, probe, end);
  }
  const rest = nextRoot(law.power, law.still, law.perMps, law.perV2, probe, end);
  const limit = KINDS[chosen] as DriveLimit;
  let rolling: Rising = whole;
  if (limit === 'wheelstand') rolling = NOTHING;
  else if (limit === 'tyre' && loaded >= 0) {
    const wholeN = whole.still + whole.perV2 * probe * probe;
    rolling = loaded > wholeN ? NOTHING : { still: whole.still - load.still, perV2: whole.perV2 - load.perV2 };
  }
  return {
    limit,
    factor:
      limit === 'engine' ? kg / massKg : limit === 'clutch' ? rollingKg / massKg : limit === 'tyre' ? freeFactor : 1,
    law,
    rolling,
    mps2: least,
    end,
    rest: rest === end ? null : rest,
  };
}

/** The nearest root of P/v + α + β·v + γ·v² beyond a speed and before `end`, whichever way that is; `end` for none. */
function nextRoot(watts: number, c: number, b: number, a: number, speed: number, end: number): number {
  if (watts !== 0) return rootOfPower(watts, c, b, a, speed, end);
  // On one side of zero at both ends, and bent away from it between them.
  const here = c + speed * (b + speed * a);
  if (here * (c + end * (b + end * a)) > 0 && here * a <= 0) return end;
  if (b === 0) {
    const square = -c / a;
    return square >= 0 ? nearer(Math.sqrt(square), speed, end) : end;
  }
  const under = b * b - 4 * a * c;
  if (under < 0) return end;
  // Without cancellation: one root from the sum, the other from the product of the two.
  const q = -0.5 * (b + Math.sign(b) * Math.sqrt(under));
  return nearer(c / q, speed, nearer(q / a, speed, end));
}

/** The root if it lies between, else the end. */
const nearer = (root: number, speed: number, end: number): number =>
  end >= speed ? (root > speed && root < end ? root : end) : root < speed && root > end ? root : end;

/** The same with P, by its product with v, a cubic without a square: between its turning points by halves. */
function rootOfPower(watts: number, c: number, b: number, a: number, speed: number, end: number): number {
  if (b !== 0) throw new RangeError('A constant power goes with no torque curve.');
  const positive = (v: number): boolean => watts + v * (c + v * v * a) > 0;
  const side = positive(speed);
  const turning = Math.sqrt(-c / (3 * a));
  const marks = [speed];
  if ((turning - speed) * (turning - end) < 0) marks.push(turning);
  if (Number.isFinite(end)) marks.push(end);
  else for (let far = 2 * ((marks.at(-1) as number) + 1); far < 1e9; far *= 2) marks.push(far);
  for (let i = 1; i < marks.length; i++) {
    let near = marks[i - 1] as number;
    let far = marks[i] as number;
    if (positive(far) === side) continue;
    for (let middle = (near + far) / 2; middle !== near && middle !== far; middle = (near + far) / 2) {
      if (positive(middle) === side) near = middle;
      else far = middle;
    }
    return far;
  }
  return end;
}

/** Speeds of a law without a formula that are looked at for a change of what limits. */
const LOOKS = 8;

function curvedFrom(car: Car, gear: GearState, speed: number, locked: boolean, upTo: number): Stretch {
  const upwards = upTo >= speed;
  const now: Push = { mps2: 0, limit: 'engine', factor: 1, thrustN: 0, contactN: 0, rollingN: 0 };
  const ask = (v: number): Push => {
    car.push(v, gear, now, locked);
    return now;
  };
  const bends = [...gear.kinks(), gear.curvedToMps];
  const probe = upwards ? speed + LEAST * (speed + 1) : speed - LEAST * (speed + 1);
  let end = upwards
    ? Math.min(upTo, ...bends.filter((bend) => bend > probe))
    : Math.max(upTo, ...bends.filter((bend) => bend < probe));
  const { limit, factor, mps2 } = ask(probe);
  const change = firstChange((v) => ask(v).limit === limit, probe, end);
  if (change !== null) end = change;
  return {
    limit,
    factor,
    law: (v, into) => {
      ask(v);
      into.mps2 = now.mps2;
      into.rollingN = now.rollingN;
    },
    rolling: null,
    mps2,
    end,
    rest: firstChange((v) => ask(v).mps2 > 0 === mps2 > 0, probe, end),
  };
}

/** Where `holds` first fails between two speeds, looked at so many times and then by halves; null where it holds throughout. */
function firstChange(holds: (speed: number) => boolean, from: number, to: number): number | null {
  let low = from;
  for (let i = 1; i <= LOOKS; i++) {
    let high = from + ((to - from) * i) / LOOKS;
    if (holds(high)) {
      low = high;
      continue;
    }
    for (let k = 0; k < 60; k++) {
      const middle = (low + high) / 2;
      if (middle === low || middle === high) break;
      if (holds(middle)) low = middle;
      else high = middle;
    }
    // At the very end the next law begins anyway.
    return Math.abs(high - to) <= LEAST * (to + 1) ? null : high;
  }
  return null;
}
