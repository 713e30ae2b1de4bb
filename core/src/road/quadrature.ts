/** What a stretch between two speeds sums up to: ∫dv/a, ∫v·dv/a, ∫v³·dv/a, and ∫R_r·v·dv/a with the rolling resistance R_r. */
export interface Sums {
  timeS: number;
  distanceM: number;
  /** Drag takes ½·ρ·C_d·A times this, m³/s²·m. */
  cubed: number;
  /** 0 where the rolling resistance is a formula: it follows from the others. */
  rollingJ: number;
}

export const noSums = (): Sums => ({ timeS: 0, distanceM: 0, cubed: 0, rollingJ: 0 });

/** Acceleration `power`/v + `still` + `perMps`·v + `perV2`·v², m/s². */
export interface Formula {
  readonly power: number;
  readonly still: number;
  readonly perMps: number;
  readonly perV2: number;
}

/** Acceleration and rolling resistance that are asked for speed by speed. */
export type Asked = (speedMps: number, into: { mps2: number; rollingN: number }) => void;

// Gauss–Kronrod, 7 and 15 points: Piessens, de Doncker-Kapenga, Überhuber & Kahaner, QUADPACK (1983), routine QK15; from memory,
// the spec holds them against polynomials up to the degree that they are exact for.
const NODES = [
  0.991455371120812639206854697526329, 0.949107912342758524526189684047851, 0.864864423359769072789712788640926,
  0.741531185599394439863864773280788, 0.58608723546769113029414469169316, 0.405845151377397166906606412076961,
  0.207784955007898467600689403773245, 0,
];
const KRONROD = [
  0.02293532201052922496373200805897, 0.063092092629978553290700663189204, 0.104790010322250183839876322541518,
  0.140653259715525918745189590510238, 0.16900472663926790282658342659855, 0.190350578064785409913256402421014,
  0.204432940075298892414161999234649, 0.209482141084727828012999174891714,
];
const GAUSS = [
  0, 0.129484966168869693270611432679082, 0, 0.27970539148927666790146777142378, 0, 0.38183005050511894495036977548897,
  0, 0.417959183673469387755102040816327,
];
/** All fifteen, from the lower end to the upper. */
const [X, W, G] = [NODES, KRONROD, GAUSS].map((half, which) =>
  Float64Array.from({ length: 15 }, (_, i) => (which === 0 && i < 7 ? -1 : 1) * (half[i < 8 ? i : 14 - i] as number)),
) as [Float64Array, Float64Array, Float64Array];

export const POINTS = 15;

/** Nodes and weights of the rule of 7 points on −1 to 1, for what is smooth through and through. */
export function gauss(visit: (node: number, weight: number) => void): void {
  for (let i = 1; i < POINTS; i += 2) visit(X[i] as number, G[i] as number);
}

/**
 * Sums over the speeds from one to another, either way.
 * @returns how far the rule of 7 points is from that of 15, as a share: where it is small, the latter is far more exact
 */
export function sumBetween(law: Formula | Asked, from: number, to: number, into: Sums): number {
  return typeof law === 'function' ? asked(law, from, to, into) : formula(law, from, to, into);
}

// Here and below no pairs are taken apart in loops: it costs more than the arithmetic.
function formula({ power, still, perMps, perV2 }: Formula, from: number, to: number, into: Sums): number {
  const middle = (from + to) / 2;
  const half = (to - from) / 2;
  let time = 0;
  let distance = 0;
  let cubed = 0;
  let time7 = 0;
  let distance7 = 0;
  const nodes = X;
  const wide = W;
  const narrow = G;
  for (let i = 0; i < POINTS; i++) {
    const v = middle + half * (nodes[i] as number);
    const a = still + v * (perMps + v * perV2);
    // Of a power the two are multiplied by v, so that standstill is no singularity.
    const slow = power === 0 ? 1 / a : v / (power + v * a);
    const weighed = (wide[i] as number) * slow;
    const seventh = (narrow[i] as number) * slow;
    time += weighed;
    distance += weighed * v;
    cubed += weighed * v * v * v;
    time7 += seventh;
    distance7 += seventh * v;
  }
  into.timeS = half * time;
  into.distanceM = half * distance;
  into.cubed = half * cubed;
  into.rollingJ = 0;
  return Math.max(Math.abs(time7 / time - 1), Math.abs(distance7 / distance - 1));
}

const here = { mps2: 0, rollingN: 0 };

function asked(law: Asked, from: number, to: number, into: Sums): number {
  const middle = (from + to) / 2;
  const half = (to - from) / 2;
  let time = 0;
  let distance = 0;
  let cubed = 0;
  let rolling = 0;
  let time7 = 0;
  let distance7 = 0;
  for (let i = 0; i < POINTS; i++) {
    const v = middle + half * (X[i] as number);
    law(v, here);
    const slow = 1 / here.mps2;
    const weighed = (W[i] as number) * slow;
    const seventh = (G[i] as number) * slow;
    time += weighed;
    distance += weighed * v;
    cubed += weighed * v * v * v;
    rolling += weighed * v * here.rollingN;
    time7 += seventh;
    distance7 += seventh * v;
  }
  into.timeS = half * time;
  into.distanceM = half * distance;
  into.cubed = half * cubed;
  into.rollingJ = half * rolling;
  return Math.max(Math.abs(time7 / time - 1), Math.abs(distance7 / distance - 1));
}

/** Acceleration of a law at a speed, m/s². */
export function accelerationOf(law: Formula | Asked, speed: number): number {
  if (typeof law !== 'function')
    return (law.power === 0 ? 0 : law.power / speed) + law.still + speed * (law.perMps + speed * law.perV2);
  law(speed, here);
  return here.mps2;
}
