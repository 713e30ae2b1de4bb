import { signal } from '@angular/core';
import { InputError, toothPair } from '@hot-spline/core';
import { attempt } from './attempt';

describe('an attempt', () => {
  it('gives what was worked out, or why its input is refused, never both', () => {
    const pinion = signal<number | null>(11);
    const tried = attempt(() => {
      const teeth = pinion();
      return teeth === null ? null : toothPair({ ring: 41, pinion: teeth }).ratio;
    });
    expect(tried.value()).toBeCloseTo(41 / 11, 12);
    expect(tried.problem()).toBeNull();
    pinion.set(0);
    expect(tried.value()).toBeNull();
    expect(tried.problem()).toMatch(/^pinion .* Allowed: .*\.$/);
    pinion.set(null);
    expect([tried.value(), tried.problem()]).toEqual([null, null]);
    pinion.set(10);
    expect(tried.value()).toBe(4.1);
  });

  it('says the sentence of the refusal with what is allowed', () => {
    const tried = attempt<number>(() => {
      throw new InputError('Height', 'Height is 3.', 'at most 2');
    });
    expect(tried.problem()).toBe('Height is 3. Allowed: at most 2.');
  });

  it('lets errors of our own pass', () => {
    const tried = attempt<number>(() => {
      throw new TypeError('ours');
    });
    expect(() => tried.value()).toThrowError(TypeError, 'ours');
  });
});
