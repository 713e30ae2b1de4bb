import { InputError, entryBase, type SearchProblem } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import type { AxleGearingState } from '../gearing/axle-gearing';
import { vehicleOf } from './vehicle';

/** The search over a build's shelf on its course. @throws InputError on `course` where there is none yet */
export function searchProblemOf(build: Build, main: AxleName, own: AxleGearingState): SearchProblem {
  const { shelf, course } = build;
  if (!course) throw new InputError('course', 'course is missing.', 'a speed trace or a list of corners');
  const { lengthM, startMps, fastestMps, corners, slopes } = course;
  return {
    vehicle: vehicleOf(build, main, own),
    course: { lengthM, startMps, fastestMps, corners, ...(slopes.length > 0 ? { slopes } : {}) },
    pairs: shelf.pairs.map(({ driver, driven, positions, torqueLimit }) => ({
      driver,
      driven,
      ...(positions.length > 0 ? { positions } : {}),
      ...(torqueLimit ? { torqueLimitNm: entryBase(torqueLimit) } : {}),
    })),
    finals: shelf.finals.length > 0 ? shelf.finals : [own.finalDrive],
    rules: { steps: shelf.steps, floorRpm: shelf.floorRpm, limiterMargin: entryBase(shelf.limiterMargin) / 100 },
  };
}
