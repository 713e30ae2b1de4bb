import { entryOf } from '@hot-spline/core';
import { USUAL_SCHOOLS, type Schools } from '../library/schools';
import type { Joint } from './schema';

/** A joint of which nobody has said anything, locked as the shop does it: friction of the faces is a guard of ours. */
export const newJoint = ({ threadlocker }: Pick<Schools, 'threadlocker'> = USUAL_SCHOOLS): Joint => ({
  grade: '',
  finish: 'lubricated',
  threadlocker,
  headLubricant: 'oil',
  tabs: false,
  caseHardness: null,
  threadFriction: null,
  headFriction: null,
  headOuter: null,
  underHead: null,
  shank: null,
  flange: null,
  washer: entryOf(0, 'mm'),
  holeDepth: null,
  threadDepth: null,
  boltCircle: null,
  faceFriction: entryOf(0.15, ''),
  torque: null,
  stages: [40, 70, 100],
  fit: null,
});
