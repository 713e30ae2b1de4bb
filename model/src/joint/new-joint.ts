import { entryOf } from '@hot-spline/core';
import type { Joint } from './schema';

/** A joint of which nobody has said anything: friction and shock are guards of ours. */
export const newJoint = (): Joint => ({
  grade: '',
  finish: 'lubricated',
  threadlocker: 'high',
  headLubricant: 'oil',
  tabs: false,
  caseHardness: null,
  threadFriction: entryOf(0.12, ''),
  headFriction: entryOf(0.12, ''),
  headOuter: null,
  underHead: null,
  shank: null,
  flange: null,
  washer: entryOf(0, 'mm'),
  holeDepth: null,
  threadDepth: null,
  boltCircle: null,
  faceFriction: entryOf(0.15, ''),
  shock: entryOf(1.5, ''),
  torque: null,
  stages: [40, 70, 100],
  fit: null,
});
