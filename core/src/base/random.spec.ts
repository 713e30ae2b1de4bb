import { oneByOne, seededRandom, uniformBlocks } from './random';

/** xoshiro128** and splitmix32 again, in whole numbers of any size: published algorithms, Blackman and Vigna 2018 [exact]. */
function published(seed: number): () => number {
  const M = (1n << 32n) - 1n;
  const rotated = (x: bigint, k: bigint): bigint => ((x << k) | (x >> (32n - k))) & M;
  let at = BigInt(seed);
  const mix = (): bigint => {
    at = (at + 0x9e3779b9n) & M;
    let z = at;
    z = ((z ^ (z >> 16n)) * 0x85ebca6bn) & M;
    z = ((z ^ (z >> 13n)) * 0xc2b2ae35n) & M;
    return z ^ (z >> 16n);
  };
  const s = [mix(), mix(), mix(), mix()] as [bigint, bigint, bigint, bigint];
  return () => {
    const result = (rotated((s[1] * 5n) & M, 7n) * 9n) & M;
    const t = (s[1] << 9n) & M;
    s[2] ^= s[0];
    s[3] ^= s[1];
    s[1] ^= s[2];
    s[0] ^= s[3];
    s[2] ^= t;
    s[3] = rotated(s[3], 11n);
    return Number(result) / 2 ** 32;
  };
}

describe('seeded random numbers', () => {
  it('are those of the published algorithm, for any seed', () => {
    for (const seed of [0, 1, 2026, 4_294_967_295]) {
      const [ours, theirs] = [seededRandom(seed), published(seed)];
      for (let i = 0; i < 1000; i++) expect(ours()).toBe(theirs());
    }
  });

  it('are the same one by one and in blocks of any length', () => {
    const single = oneByOne(uniformBlocks(7));
    const blocks = uniformBlocks(7);
    for (const length of [1, 255, 256, 3, 1000]) {
      const block = new Float64Array(length);
      blocks(block);
      expect([...block]).toEqual(Array.from({ length }, () => single()));
    }
  });
});
