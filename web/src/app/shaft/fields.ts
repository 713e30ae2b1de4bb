import type { FieldFind } from '../shared/descriptor';

/** Its fields, as the finder knows them: sheet, tab, label, name of the field. A story holds them against the sheets. */
export const FIELDS: readonly FieldFind[] = [
  ['shafts', '', 'Shock, ours, for all links', 'shock-{axle}'],
  ['shafts', '', 'Splines', 'splines-left-{axle}'],
  ['shafts', '', 'Pitch', 'pitch-left-{axle}'],
  ['shafts', '', 'Spline angle', 'angle-left-{axle}'],
  ['shafts', '', 'Steel, shear yield, from memory', 'material-left-{axle}'],
  ['shafts', '', 'Shear yield by its maker, MPa', 'shear-left-{axle}'],
  ['shafts', '', 'Thinnest beside the spline', 'neck-left-{axle}'],
  ['shafts', '', 'Bore, where it is hollow', 'bore-left-{axle}'],
  ['shafts', '', 'Spline in its gear, full travel', 'engagement-left-{axle}'],
  ['shafts', '', 'End to pin or block', 'pin-gap-left-{axle}'],
  ['shafts', '', 'End float', 'float-left-{axle}'],
  ['shafts', '', 'Tube, across', 'prop-outer-{axle}'],
  ['shafts', '', 'Wall', 'prop-wall-{axle}'],
  ['shafts', '', 'Between the joints', 'prop-between-{axle}'],
  ['shafts', '', 'Front joint', 'prop-front-angle-{axle}'],
  ['shafts', '', 'Rear joint', 'prop-rear-angle-{axle}'],
  ['shafts', '', 'Most torque of a joint, its maker', 'prop-joint-{axle}'],
  ['shafts', '', 'Tube, shear yield, from memory', 'prop-material-{axle}'],
];
