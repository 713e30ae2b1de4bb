import { meshSensitivity } from './sensitivity';

/** What is read of a mesh: mean backlash in mm, and where the patch lies on both flanks (u −1 toe … +1 heel, v −1 root … +1 face). */
export const OBSERVED = ['backlash', 'drive.u', 'drive.v', 'coast.u', 'coast.v'] as const;
export type Observed = (typeof OBSERVED)[number];
export const COUNT = OBSERVED.length;

/** Pinion deeper and ring towards the pinion, mm, from the first try. */
export interface Position {
  readonly deeperMm: number;
  readonly closerMm: number;
}

export interface Spread {
  readonly mean: number;
  readonly deviation: number;
}

/** Change of each reading, in the order of {@link OBSERVED}, for one mm deeper and one mm closer. */
export type Changes = readonly (readonly [Spread, Spread])[];

/** What is thought of an axle before anything was read. */
export interface AxlePrior {
  /** Change of each reading for one mm deeper and one mm closer. */
  readonly perMm: Changes;
  /** Each reading where everything is right: middle of the band, and how far an axle's own lies off it. */
  readonly right: readonly Spread[];
  /** How far the first try lies off the right position, one deviation. */
  readonly firstMm: readonly [number, number];
  /** Scatter of a reading, the assembly's own included. */
  readonly noise: readonly number[];
  /** Share of readings that are simply wrong, and how far those scatter. */
  readonly wrong: { readonly share: number; readonly scatter: readonly number[] };
}

const of = (mean: number, deviation: number): Spread => ({ mean, deviation });

/**
 * Ours, from memory and wide: backlash by the geometry of bevel gears with the larger share that a hypoid's pinion has; pattern per
 * 0.25 mm of depth 0.4–0.8 in v and 0.1–0.4 in u, per 0.25 mm of ring 0.05–0.2 in v and 0.2–0.5 in u (common practice for the
 * directions). A reading by eye is good to about 0.1, and one in twenty is simply wrong.
 */
export function axlePrior(set: {
  readonly ringTeeth: number;
  readonly pinionTeeth: number;
  readonly middleMm: number;
}): AxlePrior {
  const { backlashPerRingMm: ring, backlashPerPinionMm: pinion } = meshSensitivity({ ...set, pressureAngleDeg: 20 });
  return {
    perMm: [
      // The handbooks' bevel value for the ring; for the pinion what offsets add on top.
      [of(-(pinion + 0.04), 0.06), of(-ring, 0.09)],
      [of(-1, 0.45), of(-1.4, 0.45)],
      [of(-2.4, 0.6), of(-0.5, 0.23)],
      [of(1, 0.45), of(-1.4, 0.45)],
      [of(-2.4, 0.6), of(-0.5, 0.23)],
    ],
    right: [of(set.middleMm, 0.04), of(0, 0.105), of(0, 0.105), of(0, 0.105), of(0, 0.105)],
    firstMm: [0.3, 0.3],
    noise: [0.011, 0.115, 0.115, 0.115, 0.115],
    wrong: { share: 0.05, scatter: [0.1, 0.6, 0.6, 0.6, 0.6] },
  };
}

/**
 * Unknowns: where all is right (depth, ring), what each reading is there, and what each does for a mm of depth and of ring. A
 * reading at a position is own + change · (position − right position): nearly straight in what is unknown, so a normal
 * distribution round the best fit stands for what is believed.
 */
const SIZE = 2 + 3 * COUNT;
const ownSlot = (observed: number): number => 2 + observed;
export const changeSlot = (observed: number, axis: 0 | 1): number => 2 + COUNT + 2 * observed + axis;

/** A normal distribution over the unknowns. */
export interface Belief {
  readonly mean: Float64Array<ArrayBuffer>;
  /** Cholesky root of the information, lower triangle, row by row. */
  readonly root: Float64Array<ArrayBuffer>;
}

/** One value that was read at a position; `scatter` is its deviation. */
export interface Value {
  readonly observed: number;
  readonly at: Position;
  readonly value: number;
  readonly scatter: number;
  /** Share of such readings that are simply wrong, where it is not the prior's. */
  readonly wrongShare?: number;
}

interface Start {
  readonly mean: Float64Array<ArrayBuffer>;
  readonly information: Float64Array;
}

function startOf({ perMm, right, firstMm }: AxlePrior): Start {
  const mean = new Float64Array(SIZE);
  const information = new Float64Array(SIZE);
  const set = (i: number, of: Spread): void => {
    mean[i] = of.mean;
    information[i] = 1 / of.deviation ** 2;
  };
  firstMm.forEach((deviation, i) => {
    set(i, { mean: 0, deviation });
  });
  for (let i = 0; i < COUNT; i++) {
    set(ownSlot(i), right[i] as Spread);
    const [deeper, closer] = perMm[i] as readonly [Spread, Spread];
    set(changeSlot(i, 0), deeper);
    set(changeSlot(i, 1), closer);
  }
  return { mean, information };
}

/** A reading of an axle with these unknowns. */
export function readingOf(axle: Float64Array, observed: number, { deeperMm, closerMm }: Position): number {
  return (
    (axle[ownSlot(observed)] as number) +
    (axle[changeSlot(observed, 0)] as number) * (deeperMm - (axle[0] as number)) +
    (axle[changeSlot(observed, 1)] as number) * (closerMm - (axle[1] as number))
  );
}

/** What a reading changes by with each unknown that it touches. */
function slopes(axle: Float64Array, observed: number, at: Position, into: Float64Array): readonly number[] {
  const [deeper, closer] = [changeSlot(observed, 0), changeSlot(observed, 1)];
  into[0] = -(axle[deeper] as number);
  into[1] = -(axle[closer] as number);
  into[2] = 1;
  into[3] = at.deeperMm - (axle[0] as number);
  into[4] = at.closerMm - (axle[1] as number);
  return [0, 1, ownSlot(observed), deeper, closer];
}

/** Cholesky root of a matrix that is positive by its making. */
function choleskyOf(matrix: Float64Array): Float64Array<ArrayBuffer> {
  const root = new Float64Array(SIZE * SIZE);
  for (let i = 0; i < SIZE; i++)
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i * SIZE + j] as number;
      for (let k = 0; k < j; k++) sum -= (root[i * SIZE + k] as number) * (root[j * SIZE + k] as number);
      root[i * SIZE + j] = i === j ? Math.sqrt(sum) : sum / (root[j * SIZE + j] as number);
    }
  return root;
}

/** Solves root · y = b in place. */
function forward(root: Float64Array, b: Float64Array): void {
  for (let i = 0; i < SIZE; i++) {
    let sum = b[i] as number;
    for (let k = 0; k < i; k++) sum -= (root[i * SIZE + k] as number) * (b[k] as number);
    b[i] = sum / (root[i * SIZE + i] as number);
  }
}

/** Solves rootᵀ · x = b in place. */
function backward(root: Float64Array, b: Float64Array): void {
  for (let i = SIZE - 1; i >= 0; i--) {
    let sum = b[i] as number;
    for (let k = i + 1; k < SIZE; k++) sum -= (root[k * SIZE + i] as number) * (b[k] as number);
    b[i] = sum / (root[i * SIZE + i] as number);
  }
}

const ROUNDS = 12;

/** The best fit of prior and readings, and the normal distribution round it [Gauss–Newton; Laplace]. */
function believe(
  { mean: from, information }: Start,
  values: readonly Value[],
  leftOut: number,
  guess: Float64Array<ArrayBuffer>,
): Belief {
  const mean = guess.slice();
  const matrix = new Float64Array(SIZE * SIZE);
  const step = new Float64Array(SIZE);
  const slope = new Float64Array(5);
  let root = new Float64Array(0);
  for (let round = 0; round < ROUNDS; round++) {
    matrix.fill(0);
    for (let i = 0; i < SIZE; i++) {
      matrix[i * (SIZE + 1)] = information[i] as number;
      step[i] = (information[i] as number) * ((from[i] as number) - (mean[i] as number));
    }
    values.forEach((value, v) => {
      if (v === leftOut) return;
      const index = slopes(mean, value.observed, value.at, slope);
      const weight = 1 / value.scatter ** 2;
      const off = weight * (value.value - readingOf(mean, value.observed, value.at));
      for (let a = 0; a < 5; a++) {
        const i = index[a] as number;
        step[i] = (step[i] as number) + off * (slope[a] as number);
        for (let b = 0; b < 5; b++) {
          const at = i * SIZE + (index[b] as number);
          matrix[at] = (matrix[at] as number) + weight * (slope[a] as number) * (slope[b] as number);
        }
      }
    });
    root = choleskyOf(matrix);
    forward(root, step);
    backward(root, step);
    let moved = 0;
    for (let i = 0; i < SIZE; i++) {
      mean[i] = (mean[i] as number) + (step[i] as number);
      moved = Math.max(moved, Math.abs(step[i] as number));
    }
    if (moved < 1e-6) break;
  }
  return { mean, root };
}

/** Mean and deviation of one unknown. */
export function spreadOf({ mean, root }: Belief, slot: number): Spread {
  const along = new Float64Array(SIZE);
  along[slot] = 1;
  forward(root, along);
  return { mean: mean[slot] as number, deviation: Math.hypot(...along) };
}

export interface Predicted {
  readonly mean: number;
  /** The scatter of the reading itself is not in it. */
  readonly variance: number;
}

/** Mean and variance of a reading, for many positions: what it changes by is straight in the position. */
export function predictor({ mean, root }: Belief, observed: number): (at: Position) => Predicted {
  const slope = new Float64Array(5);
  const index = slopes(mean, observed, { deeperMm: 0, closerMm: 0 }, slope);
  const solved = [slope, [0, 0, 0, 1, 0], [0, 0, 0, 0, 1]].map((of) => {
    const along = new Float64Array(SIZE);
    for (let a = 0; a < 5; a++) along[index[a] as number] = of[a] as number;
    forward(root, along);
    return along;
  }) as [Float64Array, Float64Array, Float64Array];
  const dot = (a: Float64Array, b: Float64Array): number => a.reduce((sum, one, i) => sum + one * (b[i] as number), 0);
  const [here, deeper, closer] = solved;
  const [hh, hd, hc, dd, dc, cc] = [
    dot(here, here),
    dot(here, deeper),
    dot(here, closer),
    dot(deeper, deeper),
    dot(deeper, closer),
    dot(closer, closer),
  ];
  return (at) => {
    const { deeperMm: p, closerMm: r } = at;
    return {
      mean: readingOf(mean, observed, at),
      variance: hh + 2 * (p * hd + r * hc) + p * p * dd + 2 * p * r * dc + r * r * cc,
    };
  };
}

export interface Learned {
  readonly belief: Belief;
  /** For each value, the chance that it is simply wrong: it does not fit what the others say. */
  readonly wrong: readonly number[];
}

const bell = (off: number, deviation: number): number => Math.exp(-((off / deviation) ** 2) / 2) / deviation;

/**
 * What readings teach about an axle. Each is held against what all others say; one that does not fit counts for less, as far as it
 * is likelier to be simply wrong than to be scatter.
 * @param rounds of holding each against the others; one tells well enough how likely all of it is
 */
export function learnAxle(prior: AxlePrior, values: readonly Value[], rounds = 3): Learned {
  const start = startOf(prior);
  let wrong: number[] = values.map(() => 0);
  let guess = start.mean;
  const weighed = (): readonly Value[] =>
    values.map((value, i) => ({
      ...value,
      scatter: value.scatter / Math.sqrt(Math.max(1e-4, 1 - (wrong[i] as number))),
    }));
  for (let round = 0; round < rounds; round++) {
    const now = weighed();
    guess = believe(start, now, -1, guess).mean;
    wrong = values.map((value, i) => {
      const { mean, variance } = predictor(believe(start, now, i, guess), value.observed)(value.at);
      const off = value.value - mean;
      const { scatter } = prior.wrong;
      const share = value.wrongShare ?? prior.wrong.share;
      if (share === 0) return 0;
      const good = (1 - share) * bell(off, Math.sqrt(variance + value.scatter ** 2));
      const bad = share * bell(off, Math.sqrt(variance + (scatter[value.observed] as number) ** 2));
      return bad / (good + bad);
    });
  }
  return { belief: believe(start, weighed(), -1, guess), wrong };
}

/** How far the value at a place lies from what all others say, in deviations of both. */
export function oddness(prior: AxlePrior, values: readonly Value[], { belief, wrong }: Learned, place: number): number {
  const start = startOf(prior);
  const weighed = values.map((value, i) => ({
    ...value,
    scatter: value.scatter / Math.sqrt(Math.max(1e-4, 1 - (wrong[i] as number))),
  }));
  const odd = values[place] as Value;
  const { mean, variance } = predictor(believe(start, weighed, place, belief.mean), odd.observed)(odd.at);
  return Math.abs(odd.value - mean) / Math.sqrt(variance + odd.scatter ** 2);
}

/**
 * Logarithm of how likely the readings are by the prior, each simply wrong with its share, up to what is the same for every way of
 * reading them [Laplace round the best fit].
 */
export function evidence(prior: AxlePrior, values: readonly Value[], { belief }: Learned): number {
  const { mean: from, information } = startOf(prior);
  let log = 0;
  for (let i = 0; i < SIZE; i++) {
    const off = (belief.mean[i] as number) - (from[i] as number);
    log -= ((information[i] as number) * off * off) / 2 + Math.log(belief.root[i * (SIZE + 1)] as number);
  }
  for (const value of values) {
    const off = value.value - readingOf(belief.mean, value.observed, value.at);
    const share = value.wrongShare ?? prior.wrong.share;
    const wild = Math.hypot(value.scatter, prior.wrong.scatter[value.observed] as number);
    log += Math.log((1 - share) * bell(off, value.scatter) + share * bell(off, wild));
  }
  return log;
}

/**
 * How badly the readings fit any axle of the prior: what is left of them and of the prior at the best fit, none weighed down, which of
 * axles as they are expected is chi-squared with a degree for each reading [exact for what is straight].
 */
export function misfit(prior: AxlePrior, values: readonly Value[], near: Belief): number {
  const { mean: from, information } = startOf(prior);
  const { mean } = believe(startOf(prior), values, -1, near.mean);
  let sum = 0;
  for (let i = 0; i < SIZE; i++) sum += (information[i] as number) * ((mean[i] as number) - (from[i] as number)) ** 2;
  for (const { value, observed, at, scatter } of values)
    sum += ((value - readingOf(mean, observed, at)) / scatter) ** 2;
  return sum;
}

/** What is believed with these values all taken as they are, none weighed down; from a belief that lies near. */
export function beliefBy(prior: AxlePrior, values: readonly Value[], near: Belief): Belief {
  return believe(startOf(prior), values, -1, near.mean);
}

/** Draws of the unknowns: mean + L⁻ᵀ·z, L the root of the information. */
export function drawAxles({ mean, root }: Belief, draws: number, normal: () => number): readonly Float64Array[] {
  return Array.from({ length: draws }, () => {
    const axle = Float64Array.from({ length: SIZE }, normal);
    backward(root, axle);
    for (let i = 0; i < SIZE; i++) axle[i] = (axle[i] as number) + (mean[i] as number);
    return axle;
  });
}
