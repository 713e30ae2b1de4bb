import type { AgainstLog, LogStretch } from '@hot-spline/core';
import { againstLogWords } from './log-words';

const stretch = (change: Partial<LogStretch>): LogStretch => ({
  fromM: 0,
  toM: 100,
  logS: 10,
  modelS: 10,
  logMps: 40,
  modelMps: 40,
  ...change,
});
const against = (...stretches: LogStretch[]): AgainstLog => ({
  logS: stretches.reduce((sum, { logS }) => sum + logS, 0),
  modelS: stretches.reduce((sum, { modelS }) => sum + modelS, 0),
  stretches,
  most: stretches
    .map((_, i) => i)
    .sort((a, b) => {
      const off = (i: number): number => Math.abs((stretches[i]?.modelS ?? 0) - (stretches[i]?.logS ?? 0));
      return off(b) - off(a);
    }),
});
const course = { corners: [{ atM: 90, lengthM: 10, speedMps: 20, brakingMps2: 8 }] };
const words = (...stretches: LogStretch[]): string => againstLogWords(against(...stretches), course, 'metric');

describe('the log against the model, in words', () => {
  it('a difference that is less than the model can tell is none', () => {
    expect(words(stretch({ modelS: 10.04 }))).toMatch(/: level\.$/);
  });

  it('slower and less fast: what takes speed away; the largest first, by the corner it leads to', () => {
    const said = words(stretch({ modelS: 9.7, modelMps: 42 }), stretch({ modelS: 9, modelMps: 45 }));
    expect(said).toContain('1.30 s quicker than driven');
    expect(said).toMatch(
      /1\.00 s on the way to the finish \(.*less thrust, more drag.*; 0\.30 s on the way to corner 1/,
    );
    expect(said).toMatch(/144\skm\/h in the log, 162\skm\/h in the model/);
  });

  it('as fast and slower is braking or a lift; faster and quicker is thrust or a tow', () => {
    expect(words(stretch({ modelS: 9 }))).toContain('braking, or a lift');
    expect(words(stretch({ modelS: 11, modelMps: 37 }))).toContain('more thrust, less drag or a tow');
    expect(words(stretch({ modelS: 11, modelMps: 43 }))).toContain('braked elsewhere');
  });

  it('spread evenly it is said so', () => {
    const many = Array.from({ length: 40 }, () => stretch({ logS: 1, modelS: 0.97 }));
    expect(words(...many)).toContain('A little everywhere.');
  });
});
