import type { FieldFind } from '../shared/descriptor';

/** Its fields, as the finder knows them: sheet, tab, label, name of the field. A story holds them against the sheets. */
export const FIELDS: readonly FieldFind[] = [
  ['road', '', 'Finish at', 'run-distance'],
  ['road', '', 'Slope', 'run-grade'],
  ['road', '', 'Grip μ', 'run-grip'],
  ['road', '', 'Efficiency', 'run-efficiency'],
  ['road', '', 'A shift takes', 'run-shift'],
  ['road', '', 'Rotating mass', 'run-inertia'],
  ['road', '', 'Drawn', 'run-along'],
  ['road', '', 'Clock', 'run-clock'],
  ['sets', 'shelf', 'Steps', 'shelf-steps'],
  ['sets', 'shelf', 'No shift ends below', 'shelf-floor'],
  ['sets', 'shelf', 'Limiter at most short of top speed by', 'shelf-margin'],
  ['sets', 'shelf', 'Every pair stands', 'shelf-torque'],
  ['sets', 'shelf', 'Add final drives, with commas', 'shelf-final'],
  ['sets', 'shelf', 'Pairs, sorted to the gears by their ratio', 'shelf-pairs'],
  ['sets', 'shelf', 'Pairs for gear 1', 'shelf-pair-1'],
  ['road', '', 'Launches at', 'run-launch'],
  ['sets', 'search', 'Time for the search', 'search-limit'],
  ['sets', 'course', 'Course', 'course-name'],
  ['sets', 'course', 'Length', 'course-length'],
  ['sets', 'course', 'Starts at', 'course-start'],
  ['sets', 'course', 'Add a slope: from where, percent', 'course-slope'],
  ['sets', 'course', 'Add a corner: where, length, speed, braking in g', 'course-corner'],
];
