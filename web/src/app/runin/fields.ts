import type { FieldFind } from '../shared/descriptor';

/** Its fields, as the finder knows them: sheet, tab, label, name of the field. A story holds them against the sheets. */
export const FIELDS: readonly FieldFind[] = [
  ['close', 'run-in', 'Distance', 'trip-distance-{axle}'],
  ['close', 'run-in', 'Highest oil temperature', 'trip-temperature-{axle}'],
  ['close', 'run-in', 'Heard, seen', 'trip-noise-{axle}'],
  ['close', 'run-in', 'Run in by', 'run-in-school-{axle}'],
  ['close', 'run-in', 'Temperature alarm', 'run-in-alarm-{axle}'],
  ['close', 'run-in', 'The day', 'run-in-on-{axle}'],
  ['close', 'run-in', 'A distance of', 'run-in-distance-{axle}'],
  ['close', 'run-in', 'Races', 'run-in-races-{axle}'],
  ['close', 'run-in', 'Heat cycles', 'run-in-cycles-{axle}'],
  ['close', 'run-in', 'Total turning torque, read again', 'total-after-{axle}'],
];
