import { packSure, type PackSure, type SurePack } from '@hot-spline/core';
import { defineHeavy } from '../frame/heavy';

export interface SureAsked {
  readonly packs: readonly SurePack[];
  readonly samples: number;
  readonly seed: number;
}

/** Draws each pack so many times; the same seed gives the same answer, anywhere. */
export const heavySure = defineHeavy<'pack.sure', SureAsked, PackSure[]>({
  name: 'pack.sure',
  run({ packs, samples, seed }, { tell, goOn }) {
    const results: PackSure[] = [];
    packs.forEach((pack, i) => {
      const result = packSure(pack, samples, seed, (share) => {
        tell((i + share) / packs.length);
        return goOn();
      });
      if (result) results.push(result);
    });
    return results;
  },
});
