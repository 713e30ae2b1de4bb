import type { FieldFind } from '../shared/descriptor';

/** Its fields, as the finder knows them: sheet, tab, label, name of the field. A story holds them against the sheets. */
export const FIELDS: readonly FieldFind[] = [
  ['inspect', 'parts', 'In words', 'found-races-{axle}'],
  ['inspect', 'parts', 'A complete unit costs', 'complete-price-{axle}'],
  ['inspect', 'parts', 'Here in days', 'complete-days-{axle}'],
  ['inspect', 'parts', 'Hours to put it in', 'complete-hours-{axle}'],
  ['inspect', 'parts', 'An hour of the shop costs', 'hour-rate'],
  ['inspect', 'pass', 'What was cut, and where', 'cut-new'],
];
