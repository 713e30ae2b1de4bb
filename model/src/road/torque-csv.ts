import {
  cutText,
  InputError,
  UNITS,
  requireNumber,
  entryOf,
  powerTorque,
  toBase,
  type Entry,
  type UnitName,
} from '@hot-spline/core';
import { bestColumn, columnUnit, columnsOf, firstOfValues, isDataRow, type Column, type Wanted } from '../base/columns';
import { csvNumber, csvRows, csvWhole, headerUnit, type BadLine } from '../base/csv';

export const MOST_CURVE_POINTS = 100;
const MOST_LINES = 20_000;
const MOST_RPM = 100_000;
const MOST_TORQUE = 20_000;
/** A step in engine speed wider than this share of the range is called a gap. */
const GAP = 0.3;

export type CurveUnit = 'N·m' | 'lbf·ft' | 'kgf·m' | 'kW' | 'W' | 'hp' | 'PS';
export const CURVE_UNITS: readonly CurveUnit[] = ['N·m', 'lbf·ft', 'kgf·m', 'kW', 'W', 'hp', 'PS'];

/** What the builder has said, in place of what the file says or does not. */
export interface TorqueSaid {
  /** Unit of bare numbers. */
  readonly unit?: CurveUnit | undefined;
  readonly rpmAt?: number | undefined;
  readonly valueAt?: number | undefined;
  /** Lost between the engine and where it was measured, percent of the engine's; 0 where it is the engine's already. */
  readonly lossPercent?: number | undefined;
}

/** Loss from engine to wheels, percent: what a curve from rollers is offered. Ours, of the middle of what is found. */
export const WHEEL_LOSS = 15;
export const MOST_LOSS = 40;

/** What has to be said before a curve may be taken: nothing of it is guessed. */
export type TorqueAsks = 'columns' | 'unit' | 'loss';

export interface TorqueImport {
  /** Columns by name; of a file that names none by number. */
  readonly columns: readonly string[];
  /** Which of them is engine speed, and which torque or power; null while nobody and nothing says. */
  readonly rpmAt: number | null;
  readonly valueAt: number | null;
  /** Unit of the values; null while nobody and nothing says. */
  readonly unit: CurveUnit | null;
  /** Whether it was measured at the wheels, as the file says. */
  readonly atWheels: boolean;
  readonly asks: readonly TorqueAsks[];
  /** The first lines of values, as they stand in the file. */
  readonly first: readonly (readonly string[])[];
  /** As they would be taken; none while something is asked that they depend on. */
  readonly points: readonly { readonly rpm: number; readonly torque: Entry }[];
  readonly bad: readonly BadLine[];
  /** What was done to the data, for confirmation. */
  readonly notices: readonly string[];
}

/** A cell with its own unit, `320 Nm`, `320 [Nm]` or `240 (lbf ft)`. */
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

const RPM_TAIL = /\s*[([]?(rpm|1\/min|r\/min|min-1|u\/min)[)\]]?$/i;
const ENGINE_SPEED: Wanted = {
  names: /rpm|1\/min|r\/min|u\/min|engine ?speed|motor ?speed|drehzahl|revs|r[ée]gime|toerental|varvtal|^n\b/i,
  weak: /^speed$/i,
  never: /wheel|vehicle|road|ground|gps|prop|turbo|shaft|ratio/i,
  quantities: ['rotation'],
};
/** As measured on rollers or hubs. */
const WHEEL = /wheel|roller|\bhub|\br?wtq\b|\br?whp\b|\brad(?:moment|leistung)|roue/i;
const TORQUE: Wanted = {
  names: /torque|moment|couple|koppel|vridmoment|^m\b|^t\b|\bw?tq\b/i,
  never: /ramp|limit|request|target|loss|time|temp/i,
  quantities: ['torque'],
};
const POWER: Wanted = {
  names: /power|leistung|puissance|effekt|^p\b|bhp|whp/i,
  never: /loss|time|temp|steering/i,
  quantities: ['power'],
};

/** No engine ends below 30 rpm: such numbers are thousands. */
const THOUSANDS = 30;

/** In what engine speed is counted: in thousands where the header or its size says so, or in rad/s. */
function speedScale(column: Column | undefined, cells: readonly string[]): { perUnit: number; says: string } {
  const text = column ? `${column.name} ${column.unit}` : '';
  if (column && columnUnit(column, ['rotation']) === 'rad/s')
    return { perUnit: UNITS['rad/s'].toBase, says: 'Engine speed in rad/s is turned into rpm.' };
  const thousands = /[x×*]\s*10(00|\^?3|³)|10(00|\^?3|³)\s*[x×*]?\s*(rpm|1\/min)|krpm/i.test(text);
  const most = Math.max(...cells.map((cell) => csvNumber(cell.replace(RPM_TAIL, ''))).filter((value) => value >= 0), 0);
  if (thousands ? most < 100 : most > 0 && most < THOUSANDS)
    return { perUnit: 1000, says: 'Engine speed is counted in thousands of rpm.' };
  return { perUnit: 1, says: '' };
}

interface Places {
  readonly rpmAt: number | null;
  readonly valueAt: number | null;
  readonly atWheels: boolean;
}

/**
 * Which column is engine speed and which is torque or power, by what they are called. Of two columns the other one is the other one; of
 * more, one that is not named is never taken for torque. The engine's own go before those at the wheels, torque before power.
 */
function placesOf(columns: readonly Column[], values: readonly (readonly string[])[], said: TorqueSaid): Places {
  const width = Math.max(0, ...values.slice(0, 50).map((row) => row.length));
  const only = (of: RegExp, is: boolean): readonly number[] =>
    columns.flatMap(({ name, unit }, i) => (of.test(`${name} ${unit}`) === is ? [] : [i]));
  const speedAt = said.rpmAt ?? bestColumn(columns, ENGINE_SPEED, said.valueAt === undefined ? [] : [said.valueAt]);
  const found = (wanted: Wanted, wheels: boolean): number =>
    bestColumn(columns, wanted, [speedAt, ...only(WHEEL, wheels)]);
  const torqueAt = [false, true].map((wheels) => found(TORQUE, wheels)).find((at) => at >= 0) ?? -1;
  const powerAt = [false, true].map((wheels) => found(POWER, wheels)).find((at) => at >= 0) ?? -1;
  const named = said.valueAt ?? (torqueAt >= 0 ? torqueAt : powerAt);
  const other = (at: number): number | null => (width === 2 && at >= 0 && at < 2 ? 1 - at : null);
  const bare = speedAt < 0 && named < 0 && width === 2 ? faster(values) : null;
  const valueAt = named >= 0 ? named : (other(speedAt) ?? (bare === null ? null : 1 - bare));
  const rpmAt = speedAt >= 0 ? speedAt : (other(named) ?? bare);
  const wheel = columns[valueAt ?? -1];
  return { rpmAt, valueAt, atWheels: wheel !== undefined && WHEEL.test(`${wheel.name} ${wheel.unit}`) };
}

/** No engine makes its torque this slowly: such numbers are none of its speed. */
const SLOW_RPM = 600;

/**
 * Of two columns without a name, the one that turns: its numbers are larger in every line. Where those are too slow for any engine, the
 * other one is counted in thousands. Null where neither tells.
 */
function faster(values: readonly (readonly string[])[]): number | null {
  const pairs = values
    .map((row) => [csvWhole((row[0] ?? '').replace(RPM_TAIL, '')), csvWhole(cellUnit(row[1] ?? '').number)] as const)
    .filter(([a, b]) => !Number.isNaN(a) && !Number.isNaN(b));
  const larger = pairs.every(([a, b]) => a > b) ? 0 : pairs.every(([a, b]) => a < b) ? 1 : null;
  if (larger === null || pairs.length === 0) return null;
  const most = (i: 0 | 1): number => Math.max(...pairs.map((pair) => pair[i]));
  const smaller = larger === 0 ? 1 : 0;
  return most(larger) < SLOW_RPM && most(smaller) < THOUSANDS ? smaller : larger;
}

/** A table that lies on its side: a line of engine speeds, a line of torques, each begun by its name. */
function upright(rows: string[][]): string[][] {
  const filled = rows.filter((row) => row.some((cell) => cell !== ''));
  const lies = (row: readonly string[]): boolean =>
    row.length > 3 &&
    Number.isNaN(csvNumber(row[0] ?? '')) &&
    /[a-z]/i.test(row[0] ?? '') &&
    row.slice(1).every((cell) => cell === '' || !Number.isNaN(csvNumber(cellUnit(cell).number)));
  const lying = filled.filter(lies);
  if (lying.length < 2 || lying.length < filled.length - 3) return rows;
  const width = Math.max(...lying.map((row) => row.length));
  return Array.from({ length: width }, (_, i) => lying.map((row) => row[i] ?? ''));
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

/** Lines of a table that is drawn with bars have an empty cell at each end, and a line of dashes. */
function undrawn(rows: string[][]): string[][] {
  const drawn = rows.filter((row) => row.length > 2 && row[0] === '' && row.at(-1) === '').length;
  if (drawn === 0 || drawn < rows.filter((row) => row.some((cell) => cell !== '')).length - 1) return rows;
  return rows.map((row) => {
    const cells = row.slice(1, -1);
    return cells.every((cell) => /^[:\-\s]*$/.test(cell)) ? cells.map(() => '') : cells;
  });
}

/**
 * A full-load curve from text: engine speed, and torque or power, wherever they stand. Before the values there may be anything; bad lines
 * are listed and the rest kept; a cell may carry a unit of its own. Power is turned into torque, a curve from the wheels into the engine's
 * by the loss that is said. What nothing says is asked, never guessed: which column, in which unit, at which end of the driveline.
 * Not counted: correction to a standard day, and the torque that turning masses take while they are spun up.
 * @throws InputError on `csv` where no two usable points are in it, on `lossPercent` out of 0 to 40
 */
export function readTorqueCsv(text: string, said: TorqueSaid = {}): TorqueImport {
  const rows = upright(undrawn(csvRows(text)));
  if (rows.length > MOST_LINES)
    throw new InputError('csv', `csv has ${rows.length} lines.`, `at most ${MOST_LINES} lines`);
  const loss = requireNumber('lossPercent', said.lossPercent ?? 0, { min: 0, max: MOST_LOSS, unit: '%' });
  const firstAt = Math.max(
    firstOfValues(rows, (cell) => cellUnit(cell.replace(RPM_TAIL, '')).number),
    0,
  );
  const values = rows.slice(firstAt);
  const width = values[0]?.length ?? 2;
  const columns = columnsOf(rows.slice(0, firstAt), width);
  const places = placesOf(columns, values, said);
  const { rpmAt, valueAt, atWheels } = places;
  const named = columns[valueAt ?? -1];
  const inName = named ? columnUnit(named, ['torque', 'power']) : null;
  const unit = said.unit ?? (isCurveUnit(inName) ? inName : null);
  const shown = {
    columns: Array.from({ length: width }, (_, i) => columns[i]?.name || `column ${i + 1}`),
    ...places,
    unit,
    first: values.filter((row) => row.some((cell) => cell !== '')).slice(0, 3),
  };
  if (rpmAt === null || valueAt === null || rpmAt === valueAt) {
    if (!values.some((row) => isDataRow(row)))
      throw new InputError('csv', 'csv has 0 usable points.', 'at least two lines of rpm, torque');
    return { ...shown, asks: ['columns'], points: [], bad: [], notices: [] };
  }
  const notices: string[] = [];
  const counted = speedScale(
    columns[rpmAt],
    values.map((row) => row[rpmAt] ?? ''),
  );
  if (counted.says !== '') notices.push(counted.says);
  const { points, bad, units, bare } = pointsOf(rows, firstAt, { rpmAt, valueAt }, counted.perUnit, unit);
  if (points.length < 2) {
    const first = bad[0];
    const why = first ? ` Line ${first.line}: ${first.why}.` : '';
    throw new InputError('csv', `csv has ${points.length} usable points.${why}`, 'at least two lines of rpm, torque');
  }
  notices.push(...sorted(points, units));
  const more = columns.filter((column, i) => i !== valueAt && i !== rpmAt && bestColumn([column], TORQUE) === 0);
  if (more.length > 0 && said.valueAt === undefined)
    notices.push(`Read is “${named?.name}”; also there: ${more.map(({ name }) => name).join(', ')}.`);
  if (loss > 0) notices.push(`Measured at the wheels: each is divided by ${((100 - loss) / 100).toFixed(2)}.`);
  const kept = thin(points);
  if (kept.length < points.length) notices.push(`${points.length} points thinned to ${kept.length}.`);
  const asks: TorqueAsks[] = [
    ...(unit === null && bare ? ['unit' as const] : []),
    ...(atWheels && said.lossPercent === undefined ? ['loss' as const] : []),
  ];
  const atEngine = (torque: Entry): Entry =>
    loss === 0 ? torque : entryOf(Number(((100 * torque.value) / (100 - loss)).toFixed(2)), torque.unit);
  return {
    ...shown,
    unit: unit ?? (bare ? null : ([...units.keys()].find(isCurveUnit) ?? null)),
    asks,
    points: kept.map(({ rpm, torque }) => ({ rpm, torque: atEngine(torque) })),
    bad,
    notices,
  };
}

/** The lines of values as points, bad ones listed. Bare numbers without a unit stand as N·m until somebody says what they are. */
function pointsOf(
  rows: readonly (readonly string[])[],
  firstAt: number,
  { rpmAt, valueAt }: { readonly rpmAt: number; readonly valueAt: number },
  perUnit: number,
  unit: CurveUnit | null,
) {
  const bad: BadLine[] = [];
  const seen = new Map<number, number>();
  const units = new Map<UnitName, number>();
  const points: { rpm: number; torque: Entry }[] = [];
  let bare = false;
  rows.forEach((row, i) => {
    const line = i + 1;
    if (row.every((cell) => cell === '')) return;
    const refuse = (why: string): void => void bad.push({ line, text: cutText(row.join(', '), 60), why });
    // What stands before the values is no line of theirs.
    if (i < firstAt) return;
    const speed = (row[rpmAt] ?? '').replace(RPM_TAIL, '');
    const rpm = perUnit === 1 ? csvWhole(speed) : Number((perUnit * csvNumber(speed)).toFixed(1));
    const cell = cellUnit(row[valueAt] ?? '');
    const value = csvNumber(cell.number);
    if (Number.isNaN(rpm)) return refuse('engine speed is not a number');
    if (Number.isNaN(value))
      return refuse(`${row[valueAt] === undefined ? 'a column is missing' : 'torque is not a number'}`);
    if (rpm < 0 || rpm > MOST_RPM) return refuse(`engine speed must be 0 to ${MOST_RPM} rpm`);
    const own = isCurveUnit(cell.unit) ? cell.unit : (unit ?? 'N·m');
    if (rpm === 0 && UNITS[own].quantity === 'power') return refuse('power at 0 rpm says nothing about torque');
    const torque = toTorque(value, own, rpm);
    if (value < 0 || toBase(torque.value, torque.unit) > MOST_TORQUE)
      return refuse(`torque must be 0 to ${MOST_TORQUE} N·m`);
    const before = seen.get(rpm);
    if (before !== undefined) return refuse(`${rpm} rpm stands in line ${before} already`);
    seen.set(rpm, line);
    bare ||= !isCurveUnit(cell.unit);
    units.set(own, (units.get(own) ?? 0) + 1);
    points.push({ rpm, torque });
  });
  return { points, bad, units, bare };
}

/** At most as many points as a build keeps, the ends and the rest evenly in between. */
function thin<T>(points: readonly T[]): T[] {
  if (points.length <= MOST_CURVE_POINTS) return [...points];
  return Array.from(
    { length: MOST_CURVE_POINTS },
    (_, i) => points[Math.round((i * (points.length - 1)) / (MOST_CURVE_POINTS - 1))] as T,
  );
}
