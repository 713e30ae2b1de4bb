/**
 * Fills arrays with seeded random numbers, the same everywhere: xoshiro128** by Blackman and Vigna (2018), seeded by
 * splitmix32. Numbers are uniform in [0, 1) with 32 bits.
 */
export function uniformBlocks(seed: number): (into: Float64Array) => void {
  let s = seed >>> 0;
  const mix = (): number => {
    s = (s + 0x9e3779b9) >>> 0;
    let z = s;
    z = Math.imul(z ^ (z >>> 16), 0x85ebca6b);
    z = Math.imul(z ^ (z >>> 13), 0xc2b2ae35);
    return (z ^ (z >>> 16)) >>> 0;
  };
  const state = Int32Array.of(mix(), mix(), mix(), mix());
  return (into) => {
    // Four locals stay in registers over the whole block.
    let [a = 0, b = 0, c = 0, d = 0] = state;
    for (let i = 0; i < into.length; i++) {
      const x = Math.imul(b, 5);
      into[i] = (Math.imul((x << 7) | (x >>> 25), 9) >>> 0) / 4294967296;
      const t = b << 9;
      c ^= a;
      d ^= b;
      b ^= c;
      a ^= d;
      c ^= t;
      d = (d << 11) | (d >>> 21);
    }
    state.set([a, b, c, d]);
  };
}

/** The numbers of blocks one by one. */
export function oneByOne(fill: (into: Float64Array) => void): () => number {
  const block = new Float64Array(256);
  let at = block.length;
  return () => {
    if (at === block.length) {
      fill(block);
      at = 0;
    }
    return block[at++] as number;
  };
}

/** Seeded random numbers, uniform in [0, 1), see {@link uniformBlocks}. */
export const seededRandom = (seed: number): (() => number) => oneByOne(uniformBlocks(seed));

/** Standard normal numbers from uniform ones: Marsaglia's polar method (1964), both of each pair used. */
export function normalFrom(uniform: () => number): () => number {
  let spare: number | null = null;
  return () => {
    if (spare !== null) {
      const kept = spare;
      spare = null;
      return kept;
    }
    for (;;) {
      const u = 2 * uniform() - 1;
      const v = 2 * uniform() - 1;
      const s = u * u + v * v;
      if (s >= 1 || s === 0) continue;
      const factor = Math.sqrt((-2 * Math.log(s)) / s);
      spare = v * factor;
      return u * factor;
    }
  };
}
