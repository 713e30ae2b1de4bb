import type { FieldFind } from '../shared/descriptor';

/** Its fields, as the finder knows them: sheet, tab, label, name of the field. A story holds them against the sheets. */
export const FIELDS: readonly FieldFind[] = [
  ['preload', 'pinion', 'Nut angle', 'nut-angle-{axle}'],
  ['preload', 'pinion', 'Pinion turning torque', 'pinion-torque-{axle}'],
  ['preload', 'pinion', 'The wrench is good to ±', 'wrench'],
  ['preload', 'pinion', 'Drag of the seal alone', 'seal-drag-{axle}'],
  ['preload', 'pinion', 'Total, carrier in', 'total-torque-{axle}'],
  ['preload', 'side', 'Both sides together at zero play', 'side-shims-read-{axle}'],
  ['preload', 'side', 'Read', 'side-carrier-read-{axle}'],
  ['preload', 'pinion', 'Shims beside the spacer', 'beside-{axle}'],
];
