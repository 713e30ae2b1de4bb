import {
  cutText,
  InputError,
  courseFromTrace,
  toBase,
  type Course,
  type TraceSample,
  type UnitName,
} from '@hot-spline/core';
import { csvNumber, headerUnit, type BadLine } from '../document/csv';

export type TraceSpeedUnit = 'km/h' | 'mph' | 'm/s';
export interface TraceColumns {
  readonly along: 'time' | 'distance';
  readonly alongAt: number;
  readonly speedAt: number;
  /** Unit of distance, where the trace runs along one. */
  readonly distanceUnit: UnitName;
  readonly timeUnit: 's' | 'ms';
  readonly speedUnit: TraceSpeedUnit;
  /** Whether the header named the units; if not, they want to be confirmed. */
  readonly recognised: boolean;
}

export interface TraceImport {
  readonly columns: TraceColumns;
  readonly rows: number;
  readonly samples: readonly TraceSample[];
  readonly badCount: number;
  /** The first of the bad lines. */
  readonly bad: readonly BadLine[];
  readonly notices: readonly string[];
  readonly course: Course;
}

/** Samples kept at the most: one every metre or less over some ten kilometres. */
const MOST_SAMPLES = 12_000;
const BAD_KEPT = 50;
export const MOST_TRACE_ROWS = 5_000_000;

/**
 * Columns of a trace from its header line, or the first two of one without.
 * @param chosen what it runs along, where the builder has said so; distance is taken where there are both
 */
export function traceColumns(
  first: readonly string[],
  chosen?: TraceColumns['along'],
): { columns: TraceColumns; header: boolean } {
  const header = first.length > 1 && first.every((cell) => cell === '' || Number.isNaN(csvNumber(cell)));
  const find = (pattern: RegExp): number => (header ? first.findIndex((cell) => pattern.test(cell)) : -1);
  const speedAt = find(/speed|velocity|km\/?h|mph|\bv\b|m\/s/i);
  const distanceAt = first.findIndex(
    (cell, i) => header && i !== speedAt && /dist|metre|meter|\bm\b|\bs\s*\[m\]|\bx\b/i.test(cell),
  );
  const timeAt = first.findIndex(
    (cell, i) => header && i !== speedAt && /time|sec|\bt\b|\[s\]|\(s\)|\bms\b/i.test(cell),
  );
  const along = chosen ?? (distanceAt >= 0 ? 'distance' : 'time');
  const named = along === 'distance' ? distanceAt : timeAt;
  // A header that does not name it: whatever column is not the speed.
  const alongAt = named >= 0 ? named : speedAt === 0 ? 1 : 0;
  const at = speedAt >= 0 ? speedAt : alongAt === 0 ? 1 : 0;
  const speedUnit = headerUnit(first[at] ?? '', 'speed') as TraceSpeedUnit | null;
  const timeUnit = headerUnit(first[alongAt] ?? '', 'time') as 's' | 'ms' | null;
  const distanceUnit = headerUnit(first[alongAt] ?? '', 'distance');
  return {
    header,
    columns: {
      along,
      alongAt,
      speedAt: at,
      distanceUnit: distanceUnit ?? 'metre',
      timeUnit: timeUnit ?? 's',
      speedUnit: speedUnit ?? 'km/h',
      recognised: header && speedUnit !== null && (along === 'time' ? timeUnit !== null : distanceUnit !== null),
    },
  };
}

/**
 * Reads a recorded speed row by row, so that a file of a million lines never stands in memory: bad rows are counted and
 * the first listed, the rest is kept, thinned as it comes to a few thousand samples evenly along the way.
 */
export class TraceReader {
  private columns: TraceColumns | null = null;
  private rows = 0;
  private badCount = 0;
  private readonly bad: BadLine[] = [];
  private samples: TraceSample[] = [];
  private stride = 0;
  private thinned = false;
  private usable = 0;
  private last: { along: number; speedMps: number; distanceM: number } | null = null;

  /** @param chosen units and axis that the builder has confirmed, in place of what the header says */
  constructor(
    private readonly chosen: Partial<Pick<TraceColumns, 'along' | 'speedUnit' | 'timeUnit' | 'distanceUnit'>> = {},
  ) {}

  /** @param line number in the file, from 1 @throws InputError on `trace` for a file that is too long */
  push(row: readonly string[], line: number): void {
    if (row.every((cell) => cell.trim() === '')) return;
    if (!this.columns) {
      const { columns, header } = traceColumns(row, this.chosen.along);
      this.columns = { ...columns, ...this.chosen };
      if (header) return;
    }
    if (++this.rows > MOST_TRACE_ROWS)
      throw new InputError('trace', `trace has more than ${MOST_TRACE_ROWS} rows.`, `at most ${MOST_TRACE_ROWS} rows`);
    this.take(row, line, this.columns);
  }

  private refuse(line: number, row: readonly string[], why: string): void {
    this.badCount++;
    if (this.bad.length < BAD_KEPT) this.bad.push({ line, text: cutText(row.join(', '), 60), why });
  }

  private take(row: readonly string[], line: number, columns: TraceColumns): void {
    const { along, alongAt, speedAt } = columns;
    const name = along === 'time' ? 'time' : 'distance';
    const unit = along === 'time' ? columns.timeUnit : columns.distanceUnit;
    const at = toBase(csvNumber(row[alongAt] ?? ''), unit);
    const speedMps = toBase(csvNumber(row[speedAt] ?? ''), columns.speedUnit);
    if (!Number.isFinite(at)) return this.refuse(line, row, `${name} is not a number`);
    if (!Number.isFinite(speedMps)) return this.refuse(line, row, 'speed is not a number');
    if (speedMps < 0 || speedMps > 550) return this.refuse(line, row, 'speed is out of range');
    const { last } = this;
    if (last && at === last.along) return this.refuse(line, row, `${name} repeats`);
    if (last && at < last.along) return this.refuse(line, row, `${name} goes backwards`);
    const distanceM =
      along === 'distance' ? at : last ? last.distanceM + ((speedMps + last.speedMps) / 2) * (at - last.along) : 0;
    this.last = { along: at, speedMps, distanceM };
    this.usable++;
    const before = this.samples.at(-1);
    if (before && distanceM <= before.distanceM + this.stride) return;
    this.samples.push({ distanceM, speedMps });
    if (this.samples.length >= 2 * MOST_SAMPLES) this.thin();
  }

  private thin(): void {
    this.thinned = true;
    this.samples = this.samples.filter((_, i) => i % 2 === 0);
    const [first, last] = [this.samples[0], this.samples.at(-1)];
    this.stride = ((last?.distanceM ?? 0) - (first?.distanceM ?? 0)) / this.samples.length;
  }

  /** @throws InputError on `trace` where too little of it is usable */
  finish(): TraceImport {
    const { columns, rows, badCount, bad } = this;
    if (!columns || this.samples.length < 8) {
      const first = bad[0];
      const why = first ? ` Line ${first.line}: ${first.why}.` : '';
      throw new InputError(
        'trace',
        `trace has ${this.samples.length} usable rows.${why}`,
        'at least 8 rows of time or distance, speed',
      );
    }
    if (this.samples.length > MOST_SAMPLES) this.thin();
    const notices: string[] = [];
    if (this.thinned || this.samples.length < 0.9 * this.usable)
      notices.push(`${rows} rows thinned to ${this.samples.length} samples along the way.`);
    if (badCount > 0) notices.push(`${badCount} bad rows left out.`);
    return { columns, rows, samples: this.samples, badCount, bad, notices, course: courseFromTrace(this.samples) };
  }
}
