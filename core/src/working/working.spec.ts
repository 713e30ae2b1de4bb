import { InputError } from '../base/errors';
import { explain } from './working';

describe('working', () => {
  it('evaluates the formula and ranks what the result is most sensitive to', () => {
    const shown = explain({
      title: 'Area',
      formula: 'π · r² · count',
      inputs: [
        { key: 'r', label: 'radius', value: 3, quantity: 'length' },
        { key: 'k', label: 'factor', value: 2, quantity: 'ratio' },
        { key: 'n', label: 'count', value: 4, quantity: 'count' },
      ],
      sources: [{ kind: 'exact', text: 'geometry' }],
      result: { label: 'area', quantity: 'ratio' },
      compute: ({ r = 0, k = 0, n = 0 }) => ({ value: Math.PI * r * r * k * n }),
    });
    expect(shown.result.value).toBeCloseTo(Math.PI * 72, 9);
    expect(shown.sensitivity.map((s) => s.label)).toEqual(['radius', 'factor']);
    expect(shown.sensitivity[0]?.percentPerPercent).toBeCloseTo(2, 6); // power rule [exact]
  });

  it('stays one-sided where the next step would leave the allowed range, and hides no other error', () => {
    const build = (fail: () => never) => ({
      title: 't',
      formula: 'x',
      inputs: [{ key: 'x', label: 'x', value: 1, quantity: 'ratio' as const }],
      sources: [],
      result: { label: 'x', quantity: 'ratio' as const },
      compute: ({ x = 0 }) => ({ value: x > 1 ? fail() : x }),
    });
    const edge = explain(
      build(() => {
        throw new InputError('x', 'past the end', 'up to 1');
      }),
    );
    expect(edge.sensitivity[0]?.percentPerPercent).toBeCloseTo(1, 6);
    expect(() =>
      explain(
        build(() => {
          throw new TypeError('a mistake');
        }),
      ),
    ).toThrowError(TypeError);
  });
});
