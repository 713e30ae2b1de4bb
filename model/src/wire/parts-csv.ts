import { csvText } from '../base/csv';
import type { PartsToOrder } from './hooks';

/** One line a part of a build, by supplier. Prices are in the shop’s currency, for all pieces of the line; days are ISO 8601. */
export const PARTS_CSV_HEADER = [
  'supplier',
  'number',
  'part',
  'count',
  'price',
  'for build',
  'axle',
  'build promised',
  'build id',
] as const;

/** Parts to be ordered as CSV text. */
export const partsCsv = (parts: PartsToOrder): string =>
  csvText(
    PARTS_CSV_HEADER,
    parts.map((one) => [
      ...[one.supplier, one.number, one.name, one.count, one.price ?? ''],
      ...[one.buildName, one.axle, one.promised ?? '', one.build],
    ]),
  );
