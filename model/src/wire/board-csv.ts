import { csvText } from '../base/csv';
import type { BoardRow } from './bodies';
import { BOARD_STATE_WORDS } from '../board/board-states';

/** One line a build, in the order of the board. Days are ISO 8601, hours are those with hands on the car. */
export const BOARD_CSV_HEADER = [
  'id',
  'build',
  'vehicle',
  'use',
  'customer',
  'state',
  'next step',
  'steps done',
  'steps',
  'waits for',
  'why',
  'waits since',
  'waits until',
  'due by',
  'recheck on',
  'promised',
  'worker',
  'taken h',
  'left h',
  'changed',
  'version',
  'unreadable',
] as const;

const tenth = (hours: number): number => Math.round(hours * 10) / 10;

/** The list of the board as CSV text: what a row of the board shows, each in a column of its own. */
export function boardCsv(rows: readonly BoardRow[]): string {
  return csvText(
    BOARD_CSV_HEADER,
    rows.map(({ work, ...row }) => [
      ...[row.id, row.name, row.vehicle, row.use, row.customer ?? '', BOARD_STATE_WORDS[work.state], work.next],
      ...[
        work.done,
        work.of,
        work.rest?.for ?? '',
        work.rest?.what ?? '',
        work.rest?.since ?? '',
        work.rest?.until ?? '',
      ],
      ...[work.due, row.rechecks[0]?.on ?? '', row.promised ?? '', row.worker],
      ...[tenth(work.takenH), tenth(work.leftH), row.updatedAt, row.version, row.unreadable ?? ''],
    ]),
  );
}
