import { dateOf, dayNumber, fitDays, type BoardRow, type BoardWeek, type WeekHours } from '@hot-spline/model';
import type { Queries } from '../db/database';
import { readBoard } from '../keep/board';

/** Builds of one day that come with it; how many there are is said. */
const ROWS = 40;

/** Whether anything is left of what was promised: what is done and due again is promised no more. */
const isOpen = ({ work }: BoardRow): boolean => work.state !== 'done' && (work.state !== 'due' || work.leftH > 0);

/** What is promised from today on, day by day, against the hours of the shop. */
export async function readWeek(
  db: Queries,
  { today, weeks, hours }: { readonly today: string; readonly weeks: number; readonly hours: WeekHours | null },
): Promise<BoardWeek> {
  const days = 7 * weeks;
  const { rows } = await readBoard(db, {
    ...{ search: '', archived: false, sort: 'promised', offset: 0, limit: null, today },
    until: dateOf(dayNumber(today) + days - 1),
  });
  const open = rows.filter(isOpen);
  const jobs = open.map(({ promised, work }) => ({ promised: promised ?? '', leftH: work.leftH }));
  const on = (of: (promised: string) => boolean) => {
    const all = open.filter(({ promised }) => promised !== null && of(promised));
    return { builds: all.length, rows: all.slice(0, ROWS) };
  };
  return {
    days: fitDays(jobs, { today, days, hours }).map((fit) => ({ ...fit, ...on((promised) => promised === fit.day) })),
    overdue: on((promised) => promised < today),
    unplanned: open.filter(({ work }) => work.of === 0).map(({ id, name }) => ({ id, name })),
  };
}
