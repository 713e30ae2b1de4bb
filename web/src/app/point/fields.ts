import type { FieldFind } from '../shared/descriptor';

/** Its fields, as the finder knows them: sheet, tab, label, name of the field. A story holds them against the sheets. */
export const FIELDS: readonly FieldFind[] = [
  ['engine', '', 'Driven by', 'engine-kind'],
  ['engine', '', 'Limiter', 'limit-rpm'],
  ['engine', '', 'Coupling', 'coupling-kind'],
  ['engine', '', 'Rated stall', 'converter-stall'],
  ['engine', '', 'Multiplies at stall', 'converter-torque'],
  ['engine', '', 'Couples at speed ratio', 'converter-coupling'],
  ['engine', '', 'Slips after that', 'converter-slip'],
  ['engine', '', 'Takes all up to, ours', 'converter-full'],
  ['engine', '', 'Left at coupling, ours', 'converter-share'],
  ['engine', '', 'A shift takes', 'shift-time'],
  ['engine', '', 'Point 1 rpm', 'curve-rpm-0'],
  ['engine', '', 'Point 1 torque', 'curve-torque-0'],
  ['engine', '', 'Point 2 rpm', 'curve-rpm-1'],
  ['engine', '', 'Point 2 torque', 'curve-torque-1'],
  ['engine', '', 'Kind of gearbox', 'kind-of-gearbox'],
  ['engine', '', 'Gearbox of the library', 'gearbox-spec'],
  ['engine', '', 'Driven axles', 'driven-axles'],
  ['engine', '', 'Gear 1', 'gear-0'],
  ['engine', '', 'Gear 2', 'gear-1'],
  ['engine', '', 'Range High', 'range-0'],
  ['engine', '', 'Range Low', 'range-1'],
  ['engine', '', 'Clutch holds', 'clutch-capacity'],
  ['engine', '', 'Launches at', 'launch-rpm'],
];
