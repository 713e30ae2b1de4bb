import type { FieldFind } from '../shared/descriptor';

/** Its fields, as the finder knows them: sheet, tab, label, name of the field. A story holds them against the sheets. */
export const FIELDS: readonly FieldFind[] = [
  ['parts', 'parts', 'Count', 'part-count-ring-bolts'],
  ['parts', 'parts', 'Price', 'part-price-ring-bolts'],
  ['parts', 'parts', 'Number, box = part', 'part-number-ring-bolts'],
  ['parts', 'parts', 'Supplier', 'part-supplier-gear-set'],
  ['parts', 'parts', 'Promised for', 'part-promised-gear-set'],
  ['parts', 'parts', 'Another part, while it is open', 'part-new'],
  ['parts', 'trays', 'Something else that came off', 'tray-new'],
  ['parts', 'trays', 'Length or facing of Wheels', 'tray-facing-t1'],
  ['parts', 'trays', 'Wheels, out', 'tray-out-t1'],
  ['parts', 'trays', 'Length or facing of Carrier nuts', 'tray-facing-t2'],
  ['parts', 'trays', 'Carrier nuts, out', 'tray-out-t2'],
  ['parts', 'trays', 'Length or facing of Adjuster locks', 'tray-facing-t3'],
  ['parts', 'trays', 'Adjuster locks, out', 'tray-out-t3'],
  ['parts', 'trays', 'Length or facing of Bearing caps', 'tray-facing-t4'],
  ['parts', 'trays', 'Bearing caps, out', 'tray-out-t4'],
  ['parts', 'trays', 'Length or facing of Cap bolts', 'tray-facing-t5'],
  ['parts', 'trays', 'Cap bolts, out', 'tray-out-t5'],
  ['parts', 'trays', 'Length or facing of Prop shaft bolts', 'tray-facing-t6'],
  ['parts', 'trays', 'Prop shaft bolts, out', 'tray-out-t6'],
];
