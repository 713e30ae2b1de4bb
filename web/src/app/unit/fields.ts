import type { FieldFind } from '../shared/descriptor';

/** Its fields, as the finder knows them: sheet, tab, label, name of the field. A story holds them against the sheets. */
export const FIELDS: readonly FieldFind[] = [
  ['unit', 'unit', 'Type', 'unit-type'],
  ['unit', 'unit', 'Bias ratio of the gears', 'unit-helical-biasRatio'],
  ['unit', 'unit', 'Locking torque at no input', 'unit-helical-preload'],
  ['unit', 'unit', 'Engine drags', 'overrun-share'],
  ['unit', 'compare', 'Torque into the unit 1 777 lbf·ft', 'compare-inputNm'],
  ['unit', 'compare', 'Grip of the slippery side 30 %', 'compare-splitShare'],
  ['unit', 'compare', 'In the turn 0.60 g', 'compare-lateralG'],
  ['unit', 'compare', 'Brake dabbed with 111 lbf·ft', 'compare-brakeNm'],
  ['unit', 'compare', 'Show', 'compare-view'],
  ['unit', 'unit', 'The maker quotes the ramp as', 'ramp-convention'],
  ['unit', 'unit', 'Drive ramp', 'drive-ramp'],
  ['unit', 'unit', 'Overrun ramp', 'overrun-ramp'],
  ['unit', 'unit', 'Pin radius', 'pin-radius'],
  ['unit', 'unit', 'Ramp friction', 'ramp-friction'],
  ['unit', 'tune', 'Where in the turn', 'met-where-pushes-wide'],
  ['unit', 'tune', 'Where in the turn it spins', 'met-where-one-wheel-spins'],
  ['unit', 'tune', 'Where in the turn it drags', 'met-where-drags-in-turns'],
  ['unit', 'tune', 'Which wheel', 'met-wheel-one-wheel-spins'],
];
