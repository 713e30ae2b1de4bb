import { cutText, InputError, UNITS, entryOf, powerTorque, toBase, type Entry, type UnitName } from '@hot-spline/core';
import { bestColumn, columnUnit, columnsOf, isDataRow, type Column, type Wanted } from '../base/columns';
import { csvNumber, csvRows, csvWhole, headerUnit, type BadLine } from '../base/csv';

export const MOST_CURVE_POINTS = 100;
const MOST_LINES = 20_000;
const MOST_RPM = 100_000;
const MOST_TORQUE = 20_000;
/** A step in engine speed wider than this share of the range is called a gap. */
const GAP = 0.3;

export type CurveUnit = 'N·m' | 'lbf·ft' | 'kgf·m' | 'kW' | 'W' | 'hp' | 'PS';
export const CURVE_UNITS: readonly CurveUnit[] = ['N·m', 'lbf·ft', 'kgf·m', 'kW', 'W', 'hp', 'PS'];

export interface TorqueImport {
  /** Unit of the second column, as recognised or as chosen. */
  readonly unit: CurveUnit;
  readonly recognised: boolean;
  readonly points: readonly { readonly rpm: number; readonly torque: Entry }[];
  readonly bad: readonly BadLine[];
  /** What was done to the data, for confirmation. */
  readonly notices: readonly string[];
}

/** A cell with its own unit, `320 Nm` or `240 lbf ft`. */
function cellUnit(cell: string): { number: string; unit: UnitName | null } {
  const match = /^([+-]?[\d.,\s\u202f]+)([^\d\s.,].*)$/.exec(cell);
  if (!match) return { number: cell, unit: null };
  const unit = (headerUnit(match[2] ?? '', 'torque') ?? headerUnit(match[2] ?? '', 'power')) as UnitName | null;
  return unit ? { number: match[1] ?? '', unit } : { number: cell, unit: null };
}

const isCurveUnit = (unit: UnitName | null): unit is CurveUnit => CURVE_UNITS.includes(unit as CurveUnit);

function toTorque(value: number, unit: UnitName, rpm: number): Entry {
  if (unit !== '' && UNITS[unit].quantity === 'power') {
    const torque = powerTorque(toBase(value, unit), rpm);
    return entryOf(Number(torque.toFixed(2)), 'N·m');
  }
  return entryOf(value, unit);
}

const RPM_TAIL = /\s*(rpm|1\/min|r\/min|min-1)$/i;
const ENGINE_SPEED: Wanted = {
  names: /rpm|1\/min|r\/min|engine ?speed|motor ?speed|drehzahl|revs|r[ée]gime|^n\b/i,
  weak: /^speed$/i,
  never: /wheel|vehicle|road|ground|gps|prop|turbo|shaft|ratio/i,
  quantities: ['rotation'],
};
const TORQUE: Wanted = {
  names: /torque|moment|couple|^m\b|^t\b|^tq\b/i,
  never: /ramp|limit|request|loss|time|temp/i,
  quantities: ['torque'],
};
const POWER: Wanted = {
  names: /power|leistung|puissance|^p\b|bhp|whp/i,
  never: /loss|time|temp|steering/i,
  quantities: ['power'],
};

/** In what engine speed is counted: in thousands where the header or its size says so, or in rad/s. */
function speedScale(column: Column | undefined, cells: readonly string[]): { perUnit: number; says: string } {
  const text = column ? `${column.name} ${column.unit}` : '';
  if (column && columnUnit(column, ['rotation']) === 'rad/s')
    return { perUnit: UNITS['rad/s'].toBase, says: 'Engine speed in rad/s is turned into rpm.' };
  const thousands = /[x×*]\s*10(00|\^?3|³)|10(00|\^?3|³)\s*[x×*]?\s*(rpm|1\/min)|krpm/i.test(text);
  const most = Math.max(...cells.map((cell) => csvNumber(cell.replace(RPM_TAIL, ''))).filter((value) => value >= 0), 0);
  // No engine ends below 30 rpm.
  if (thousands ? most < 100 : most > 0 && most < 30)
    return { perUnit: 1000, says: 'Engine speed is counted in thousands of rpm.' };
  return { perUnit: 1, says: '' };
}

/** Which column is engine speed and which is torque or power, by what they are called; the first two where nothing says. */
function placesOf(columns: readonly Column[], swapped: boolean): { readonly rpmAt: number; readonly valueAt: number } {
  const speedAt = bestColumn(columns, ENGINE_SPEED);
  const torqueAt = bestColumn(columns, TORQUE, [speedAt]);
  const powerAt = bestColumn(columns, POWER, [speedAt, torqueAt]);
  const load = torqueAt >= 0 ? torqueAt : powerAt;
  const looks = speedAt >= 0 ? speedAt : load === 0 ? 1 : 0;
  const other = load >= 0 ? load : looks === 0 ? 1 : 0;
  return swapped ? { rpmAt: other, valueAt: looks } : { rpmAt: looks, valueAt: other };
}

/** Sorts points by engine speed, and says what of them somebody should know. */
function sorted(points: { rpm: number; torque: Entry }[], units: ReadonlyMap<UnitName, number>): readonly string[] {
  const notices: string[] = [];
  const ascending = points.every((point, i) => i === 0 || point.rpm > (points[i - 1]?.rpm ?? 0));
  if (!ascending) {
    points.sort((a, b) => a.rpm - b.rpm);
    notices.push('Engine speeds did not ascend: sorted.');
  }
  if (units.size > 1)
    notices.push(
      `Units are mixed: ${[...units].map(([name, count]) => `${count} in ${name}`).join(', ')}; each read as it stands.`,
    );
  const converted = [...units.keys()].filter((name) => name !== '' && UNITS[name].quantity === 'power');
  if (converted.length) notices.push(`Power in ${converted.join(', ')} is turned into torque.`);
  const range = (points.at(-1)?.rpm ?? 0) - (points[0]?.rpm ?? 0);
  const gap = points.findIndex(
    (point, i) => i > 0 && point.rpm - (points[i - 1]?.rpm ?? 0) > GAP * range && points.length > 4,
  );
  if (gap > 0)
    notices.push(`Nothing between ${points[gap - 1]?.rpm} and ${points[gap]?.rpm} rpm: a straight line there.`);
  return notices;
}

/**
 * A full-load curve from CSV text: engine speed and torque (or power) in the first two columns that look like them.
 * Bad lines are listed and the rest kept; a cell may carry a unit of its own. Power is turned into torque.
 * @param chosen unit of bare numbers, where the builder has confirmed one
 * @param swapped whether the two columns are the other way round than they look
 * @throws InputError on `csv` where no two usable points are in it
 */
export function readTorqueCsv(text: string, chosen?: CurveUnit, swapped = false): TorqueImport {
  const rows = csvRows(text);
  if (rows.length > MOST_LINES)
    throw new InputError('csv', `csv has ${rows.length} lines.`, `at most ${MOST_LINES} lines`);
  const firstAt = Math.max(
    rows.findIndex((row) => isDataRow(row, (cell) => cellUnit(cell.replace(RPM_TAIL, '')).number)),
    0,
  );
  const columns = columnsOf(rows.slice(0, firstAt), rows[firstAt]?.length ?? 2);
  const { rpmAt, valueAt } = placesOf(columns, swapped);
  const named = columns[valueAt] ? columnUnit(columns[valueAt], ['torque', 'power']) : null;
  const unit: CurveUnit = chosen ?? (isCurveUnit(named) ? named : 'N·m');
  const notices: string[] = [];
  const counted = speedScale(
    columns[rpmAt],
    rows.slice(firstAt).map((row) => row[rpmAt] ?? ''),
  );
  if (counted.says !== '') notices.push(counted.says);
  const bad: BadLine[] = [];
  const seen = new Map<number, number>();
  const units = new Map<UnitName, number>();
  const points: { rpm: number; torque: Entry }[] = [];
  rows.forEach((row, i) => {
    const line = i + 1;
    if (row.every((cell) => cell === '')) return;
    const refuse = (why: string): void => void bad.push({ line, text: cutText(row.join(', '), 60), why });
    // What stands before the values is no line of theirs, unless a number is in it.
    if (i < firstAt) return row.some((cell) => !Number.isNaN(csvNumber(cell))) ? refuse('no two numbers') : undefined;
    const speed = (row[rpmAt] ?? '').replace(RPM_TAIL, '');
    const rpm = counted.perUnit === 1 ? csvWhole(speed) : Number((counted.perUnit * csvNumber(speed)).toFixed(1));
    const cell = cellUnit(row[valueAt] ?? '');
    const value = csvNumber(cell.number);
    if (Number.isNaN(rpm)) return refuse('engine speed is not a number');
    if (Number.isNaN(value))
      return refuse(`${row[valueAt] === undefined ? 'a column is missing' : 'torque is not a number'}`);
    if (rpm < 0 || rpm > MOST_RPM) return refuse(`engine speed must be 0 to ${MOST_RPM} rpm`);
    const own = isCurveUnit(cell.unit) ? cell.unit : unit;
    if (rpm === 0 && UNITS[own].quantity === 'power') return refuse('power at 0 rpm says nothing about torque');
    const torque = toTorque(value, own, rpm);
    if (value < 0 || toBase(torque.value, torque.unit) > MOST_TORQUE)
      return refuse(`torque must be 0 to ${MOST_TORQUE} N·m`);
    const before = seen.get(rpm);
    if (before !== undefined) return refuse(`${rpm} rpm stands in line ${before} already`);
    seen.set(rpm, line);
    units.set(own, (units.get(own) ?? 0) + 1);
    points.push({ rpm, torque });
  });
  if (points.length < 2) {
    const first = bad[0];
    const why = first ? ` Line ${first.line}: ${first.why}.` : '';
    throw new InputError('csv', `csv has ${points.length} usable points.${why}`, 'at least two lines of rpm, torque');
  }
  notices.push(...sorted(points, units));
  const kept = thin(points);
  if (kept.length < points.length) notices.push(`${points.length} points thinned to ${kept.length}.`);
  return { unit, recognised: chosen !== undefined || isCurveUnit(named), points: kept, bad, notices };
}

/** At most as many points as a build keeps, the ends and the rest evenly in between. */
function thin<T>(points: readonly T[]): T[] {
  if (points.length <= MOST_CURVE_POINTS) return [...points];
  return Array.from(
    { length: MOST_CURVE_POINTS },
    (_, i) => points[Math.round((i * (points.length - 1)) / (MOST_CURVE_POINTS - 1))] as T,
  );
}
