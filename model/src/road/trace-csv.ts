import {
  GRADE,
  UNITS,
  cutText,
  InputError,
  courseFromTrace,
  logTime,
  thinLog,
  toBase,
  type Course,
  type LogSample,
  type Quantity,
  type TraceSample,
  type UnitName,
} from '@hot-spline/core';
import { bestColumn, clockSeconds, columnUnit, columnsOf, isDataRow, type Column, type Wanted } from '../base/columns';
import { csvNumber, type BadLine } from '../base/csv';

export type TraceSpeedUnit = 'km/h' | 'mph' | 'm/s' | 'kn';
export type TraceTimeUnit = 's' | 'ms' | 'min';
export interface TraceColumns {
  readonly along: 'time' | 'distance';
  readonly alongAt: number;
  readonly speedAt: number;
  /** Where the altitude stands, in metres per unit; null for a file without one. */
  readonly altitude: { readonly at: number; readonly perUnit: number; readonly said: boolean } | null;
  /** Unit of distance, where the trace runs along one. */
  readonly distanceUnit: UnitName;
  readonly timeUnit: TraceTimeUnit;
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
  /** Columns by name; of a file that names none by number. */
  readonly names: readonly string[];
  /** The first lines of values, as they stand in the file. */
  readonly first: readonly (readonly string[])[];
  readonly course: Course;
  /** What was recorded, thinned to a picture of it, and what it took. */
  readonly log: { readonly timeS: number; readonly samples: readonly LogSample[] };
}

/** Samples kept at the most: one every metre or less over some ten kilometres. */
const MOST_SAMPLES = 12_000;
const BAD_KEPT = 50;
const FIRST_KEPT = 3;
/** Lines before the values, at the most. */
const MOST_LEAD = 200;
/** A step this many times as long as those before is a gap, if it is longer than a second or 30 m too (ours). */
const GAP = { times: 8, s: 1, m: 30 } as const;
/** From 2001 to 5138 counted in seconds, and in ms. */
const UNIX_S = 1e9;
const UNIX_MS = 1e11;
export const MOST_TRACE_ROWS = 5_000_000;

/** Ground speed of the car; speeds of an engine, a wheel or the wind are not. */
const SPEED: Wanted = {
  names: /speed|velocity|vitesse|geschw|\bvel\b|^v\b/i,
  weak: /wheel/i,
  never: /engine|motor|rpm|drehzahl|crank|turbo|turbine|\bfan|\bprop|\bwind|shaft|rotation|accuracy|limit|error/i,
  quantities: ['speed'],
};
const TIME: Wanted = {
  names: /time|zeit|temps|clock|utc|elapsed|^t\b|^seconds?$|^sec$/i,
  never: /date$|lap ?time|best|delta|throttle|sector|gap|timing/i,
  quantities: ['time'],
};
/** Way along the ground; a height, a place or how well it is known are not. */
const DISTANCE: Wanted = {
  names: /dist|strecke|odo|chainage|metres?$|meters?$/i,
  weak: /^(s|x|way|path|pos|position)$/i,
  never:
    /\balt|elev|height|höhe|accur|precis|dop|\blat|\blon|\blng|head|radius|ride|susp|damper|stroke|travel|gap|error|left|right/i,
  quantities: ['distance', 'length'],
};

/** Height above anything; how well it is known, and heights of the car itself, are none. */
const ALTITUDE: Wanted = {
  names: /altitude|elevation|height|höhe|\balt\b|\bele\b|ellipsoid/i,
  never: /ride|susp|damper|accur|precis|error|cg\b|roof|dop/i,
  quantities: ['distance', 'length'],
};

/** What the builder has said, in place of what the header says. */
export type TraceChosen = Partial<
  Pick<TraceColumns, 'along' | 'alongAt' | 'speedAt' | 'speedUnit' | 'timeUnit' | 'distanceUnit'>
>;

/**
 * Columns of a trace by their names and units, or the first two of a file that names none.
 * @param chosen what the builder has said; time is taken where there are both
 */
export function traceColumns(columns: readonly Column[], chosen: TraceChosen = {}): TraceColumns {
  const speedAt = bestColumn(columns, SPEED);
  const timeAt = bestColumn(columns, TIME, [speedAt]);
  const distanceAt = bestColumn(columns, DISTANCE, [speedAt, timeAt]);
  const along = chosen.along ?? (timeAt < 0 && distanceAt >= 0 ? 'distance' : 'time');
  const named = along === 'distance' ? distanceAt : timeAt;
  // A header that does not name it: whatever column is not the speed.
  const alongAt = chosen.alongAt ?? (named >= 0 ? named : speedAt === 0 ? 1 : 0);
  const at = chosen.speedAt ?? (speedAt >= 0 ? speedAt : alongAt === 0 ? 1 : 0);
  const unit = <T extends UnitName>(i: number, ...quantities: Quantity[]): T | null =>
    (columns[i] ? columnUnit(columns[i], quantities) : null) as T | null;
  const speedUnit = unit<TraceSpeedUnit>(at, 'speed');
  const timeUnit = unit<TraceTimeUnit>(alongAt, 'time');
  const distanceUnit = unit(alongAt, 'distance') ?? (unit(alongAt, 'length') === 'm' ? ('metre' as const) : null);
  const found = speedAt >= 0 && named >= 0;
  const altitudeAt = bestColumn(columns, ALTITUDE, [at, alongAt]);
  // A height without a unit is in metres: loggers and receivers know no other default [common practice].
  const altitudeSaid = unit(altitudeAt, 'distance') ?? unit(altitudeAt, 'length');
  const altitudeUnit = altitudeSaid ?? ('metre' as const);
  const perUnit =
    toBase(1, altitudeUnit) / (UNITS[altitudeUnit as keyof typeof UNITS].quantity === 'length' ? 1000 : 1);
  return {
    along,
    alongAt,
    speedAt: at,
    altitude: altitudeAt < 0 ? null : { at: altitudeAt, perUnit, said: altitudeSaid !== null },
    distanceUnit: chosen.distanceUnit ?? distanceUnit ?? 'metre',
    timeUnit: chosen.timeUnit ?? timeUnit ?? 's',
    speedUnit: chosen.speedUnit ?? speedUnit ?? 'km/h',
    recognised: found && speedUnit !== null && (along === 'time' ? timeUnit : distanceUnit) !== null,
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

  private lead: (readonly string[])[] = [];
  private names: readonly string[] = [];
  private readonly first: (readonly string[])[] = [];
  private readonly gaps = { count: 0, longest: 0, at: 0 };
  private step = 0;

  /** @param chosen columns, units and axis that the builder has confirmed, in place of what the header says */
  constructor(private readonly chosen: TraceChosen = {}) {}

  /** @param line number in the file, from 1 @throws InputError on `trace` for a file that is too long */
  push(row: readonly string[], line: number): void {
    if (row.every((cell) => cell.trim() === '')) return;
    if (!this.columns) {
      if (!isDataRow(row)) {
        if (this.lead.length < MOST_LEAD) this.lead.push(row);
        return;
      }
      this.begin(row);
    }
    if (++this.rows > MOST_TRACE_ROWS)
      throw new InputError('trace', `trace has more than ${MOST_TRACE_ROWS} rows.`, `at most ${MOST_TRACE_ROWS} rows`);
    if (this.first.length < FIRST_KEPT) this.first.push(row);
    if (this.columns) this.take(row, line, this.columns);
  }

  private begin(row: readonly string[]): void {
    const named = columnsOf(this.lead, row.length);
    const columns = traceColumns(named, this.chosen);
    const value = csvNumber(row[columns.alongAt] ?? '');
    const clock = columns.along === 'time' && clockSeconds(row[columns.alongAt] ?? '') !== null;
    // Time since 1970 says itself whether it is counted in seconds or in ms.
    const unix =
      columns.along !== 'time' || this.chosen.timeUnit ? null : value > UNIX_MS ? 'ms' : value > UNIX_S ? 's' : null;
    this.columns = {
      ...columns,
      timeUnit: unix ?? columns.timeUnit,
      recognised: columns.recognised || ((unix !== null || clock) && this.saysSpeed(named, columns)),
    };
    this.names = row.map((_, i) => named[i]?.name || `column ${i + 1}`);
    this.lead = [];
  }

  private saysSpeed(named: readonly Column[], { speedAt }: TraceColumns): boolean {
    const column = named[speedAt];
    return column !== undefined && columnUnit(column, ['speed']) !== null;
  }

  private refuse(line: number, row: readonly string[], why: string): void {
    this.badCount++;
    if (this.bad.length < BAD_KEPT) this.bad.push({ line, text: cutText(row.join(', '), 60), why });
  }

  private take(row: readonly string[], line: number, columns: TraceColumns): void {
    const { along, alongAt, speedAt } = columns;
    const name = along === 'time' ? 'time' : 'distance';
    const unit = along === 'time' ? columns.timeUnit : columns.distanceUnit;
    const cell = row[alongAt] ?? '';
    const at = (along === 'time' ? clockSeconds(cell) : null) ?? toBase(csvNumber(cell), unit);
    const speedMps = toBase(csvNumber(row[speedAt] ?? ''), columns.speedUnit);
    if (!Number.isFinite(at)) return this.refuse(line, row, `${name} is not a number`);
    if (!Number.isFinite(speedMps)) return this.refuse(line, row, 'speed is not a number');
    if (speedMps < 0 || speedMps > 550) return this.refuse(line, row, 'speed is out of range');
    const { last } = this;
    if (last && at === last.along) return this.refuse(line, row, `${name} repeats`);
    if (last && at < last.along) return this.refuse(line, row, `${name} goes backwards`);
    const distanceM =
      along === 'distance' ? at : last ? last.distanceM + ((speedMps + last.speedMps) / 2) * (at - last.along) : 0;
    if (last) this.mind(at - last.along, along);
    this.last = { along: at, speedMps, distanceM };
    this.usable++;
    const before = this.samples.at(-1);
    if (before && distanceM <= before.distanceM + this.stride) return;
    const altitudeM = columns.altitude
      ? columns.altitude.perUnit * csvNumber(row[columns.altitude.at] ?? '')
      : Number.NaN;
    this.samples.push({ distanceM, speedMps, ...(Number.isFinite(altitudeM) ? { altitudeM } : {}) });
    if (this.samples.length >= 2 * MOST_SAMPLES) this.thin();
  }

  /** Whether a step is a gap: much longer than those before. */
  private mind(step: number, along: TraceColumns['along']): void {
    const gap = this.usable > 20 && step > GAP.times * this.step && step > (along === 'time' ? GAP.s : GAP.m);
    if (!gap) {
      this.step += (step - this.step) / Math.min(this.usable, 100);
      return;
    }
    this.gaps.count++;
    if (step <= this.gaps.longest) return;
    this.gaps.longest = step;
    this.gaps.at = this.rows;
  }

  private thin(): void {
    this.thinned = true;
    this.samples = this.samples.filter((_, i) => i % 2 === 0);
    const [first, last] = [this.samples[0], this.samples.at(-1)];
    this.stride = ((last?.distanceM ?? 0) - (first?.distanceM ?? 0)) / this.samples.length;
  }

  private log(): TraceImport['log'] {
    const origin = this.samples[0]?.distanceM ?? 0;
    const samples = this.samples.map(({ distanceM, speedMps }) => ({ atM: distanceM - origin, speedMps }));
    const kept = thinLog(samples).map(({ atM, speedMps }) => ({
      atM: Number(atM.toFixed(2)),
      speedMps: Number(speedMps.toFixed(3)),
    }));
    return {
      timeS: Number(logTime(samples).toFixed(3)),
      samples: kept.filter(({ atM }, i) => i === 0 || atM > (kept[i - 1]?.atM ?? 0)),
    };
  }

  /** @throws InputError on `trace` where too little of it is usable */
  finish(): TraceImport {
    const { columns, rows, badCount, bad, names, first, gaps } = this;
    if (!columns || this.samples.length < 8) {
      const why = bad[0] ? ` Line ${bad[0].line}: ${bad[0].why}.` : '';
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
    if (gaps.count > 0) {
      const unit = columns.along === 'time' ? 's' : 'm';
      notices.push(
        `${gaps.count === 1 ? 'A gap' : `${gaps.count} gaps, the longest`} of ${gaps.longest.toFixed(1)} ${unit} before row ${gaps.at}: a straight line there.`,
      );
    }
    const course = courseFromTrace(this.samples);
    if (columns.altitude && course.slopes) {
      const unsaid = columns.altitude.said
        ? ''
        : ', in metres: the file does not say; take the slopes out again if it is feet';
      notices.push(`Slopes are from “${names[columns.altitude.at]}”${unsaid}.`);
      if (course.slopes.some(({ gradePercent }) => Math.abs(gradePercent) >= GRADE.max))
        notices.push(`The altitude jumps: what is steeper than ${GRADE.max} % is taken as ${GRADE.max} %.`);
    }
    return {
      columns,
      rows,
      names,
      first,
      samples: this.samples,
      badCount,
      bad,
      notices,
      course,
      log: this.log(),
    };
  }
}
