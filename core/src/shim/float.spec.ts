import { InputError } from '../base/errors';
import { floatShim } from '../mesh/float-shim';

describe('a shim for end float', () => {
  it('53 thou in, 12 measured, 8 wanted: 57 [worked example, common practice, no published source]', () => {
    const thou = (n: number): number => 0.0254 * n;
    const found = floatShim({ shimMm: thou(53), measuredMm: thou(12), wantedMm: thou(8) });
    expect(found).toBeCloseTo(thou(57), 9);
  });

  it('the float that is left with it is the wanted one, whatever was in [exact]', () => {
    for (const shimMm of [0, 0.4, 1.3])
      for (const measuredMm of [0, 0.05, 0.31])
        for (const wantedMm of [0, 0.1, 0.2]) {
          if (shimMm + measuredMm < wantedMm) continue;
          // Shaft and case: what room there is less the shim.
          const room = shimMm + measuredMm;
          expect(room - floatShim({ shimMm, measuredMm, wantedMm })).toBeCloseTo(wantedMm, 9);
        }
  });

  it('refuses by name: no shim thinner than nothing, no float below nothing', () => {
    const refused = (of: Parameters<typeof floatShim>[0], field: string): void => {
      expect(() => floatShim(of)).toThrowMatching((e) => e instanceof InputError && e.field === field);
    };
    refused({ shimMm: 0.1, measuredMm: 0, wantedMm: 0.3 }, 'wantedMm');
    refused({ shimMm: -1, measuredMm: 0, wantedMm: 0 }, 'shimMm');
    refused({ shimMm: 1, measuredMm: -0.1, wantedMm: 0.1 }, 'measuredMm');
    refused({ shimMm: 1, measuredMm: Number.NaN, wantedMm: 0.1 }, 'measuredMm');
  });
});
