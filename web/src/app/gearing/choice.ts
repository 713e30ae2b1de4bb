import { findFinals, type UnitSystem } from '@hot-spline/core';
import { findProblemOf, findStandIns, reasonWords, type Build, type Derived } from '@hot-spline/model';

export interface Choice {
  readonly pair: string;
  /** What nobody has said and it would rest on; empty where it is judged. */
  readonly standIns: string;
  readonly reasons: readonly string[];
}

/** The final drive that is in, and what speaks for and against it; null where there is none to judge. @throws InputError */
export function choiceOf(build: Build, derived: Derived, system: UnitSystem): Choice | null {
  const own = derived.gearing[derived.main];
  const pair = build.axles[derived.main]?.finalDrive;
  if (!pair || !own) return null;
  const found = findFinals(findProblemOf(build, derived.main, own)).find(
    ({ candidate }) => candidate.ring === pair.ring && candidate.pinion === pair.pinion,
  );
  if (!found) return null;
  return {
    pair: `${pair.ring}/${pair.pinion}`,
    standIns: findStandIns(build, derived.main).join(', '),
    reasons: found.reasons.map((reason) =>
      reason.side === 'against' ? `Against: ${reasonWords(reason, system)}` : reasonWords(reason, system),
    ),
  };
}
