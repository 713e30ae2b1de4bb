import { InputError } from '@hot-spline/core';
import { h2, list, saidAt } from '../papers/blocks';
import type { PaperInput, PaperLines } from '../shared/paper';
import { choiceOf, type Choice } from './choice';

/** The final drive that is in and why; null where there is none, or it would rest on what nobody has said. */
function judged({ build, derived, systems }: PaperInput): Choice | null {
  try {
    const choice = choiceOf(build, derived, systems[0] ?? 'metric');
    return choice && choice.standIns === '' ? choice : null;
  } catch (error) {
    // What can’t be judged is said on the sheet where it is chosen.
    if (!(error instanceof InputError)) throw error;
    return null;
  }
}

export const paper: PaperLines = {
  explains: [/^gearing\.\w+\.final$/, /^gearing\.\w+\.speed$/],
  why(input) {
    const choice = judged(input);
    return choice ? [h2(`Final drive ${choice.pair}, and why`), list(choice.reasons)] : [];
  },
  done(input, name) {
    const axle = input.build.axles[name];
    if (!axle) return [];
    const { ring, pinion } = axle.finalDrive;
    const ratio = `${ring}/${pinion}, ${(ring / pinion).toFixed(3)}`;
    const gears = input.derived.work[name]?.facts.gears;
    const old = saidAt(input, name)('ring-off', 'old-pair');
    return [
      gears === 'stay'
        ? `Final drive ${ratio}: the gears that were in it.`
        : `Final drive ${ratio}${gears === 'used' ? ', another used pair' : ', new gears'}.${old ? ` Before: ${old}.` : ''}`,
    ];
  },
  label({ build }, name) {
    const drive = build.axles[name]?.finalDrive;
    return drive ? { what: `${drive.ring}/${drive.pinion} ${(drive.ring / drive.pinion).toFixed(3)}` } : {};
  },
};
