import type { FieldFind } from '../shared/descriptor';

/** Its fields, as the finder knows them: sheet, tab, label, name of the field. A story holds them against the sheets. */
export const FIELDS: readonly FieldFind[] = [
  ['papers', '', 'Name', 'shop-name'],
  ['papers', '', 'Address on the shop’s network, for codes', 'shop-address'],
  ['papers', '', 'Label sheet', 'label-sheet'],
  ['papers', '', 'First free label', 'label-first'],
  ['papers', '', 'Of each', 'label-copies'],
];
