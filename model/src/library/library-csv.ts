import { cutText, InputError, parseEntry, type Entry, type Quantity } from '@hot-spline/core';
import { csvNumber, csvRows, csvWhole, csvText, type BadLine } from '../document/csv';
import { refusal } from '../refuse';
import { USUAL_SCHOOLS, SCHOOLS, SCHOOL_KEYS } from './schools';
import { SHEET_FIELDS, SHEET_KEYS, emptySheet, sheetField, type SheetKey, type SpecSheet } from './sheet';
import {
  librarySpecSchema,
  type AxleSpec,
  type GearboxSpec,
  type Instrument,
  type LibrarySpec,
  type Origin,
} from './schema';

/** One line a value: which spec, which field, the value as typed, where it comes from. */
export const LIBRARY_CSV_HEADER = ['kind', 'name', 'field', 'value', 'origin'] as const;

type Line = readonly [field: string, value: string, origin: Origin | ''];

const KINDS: readonly LibrarySpec['kind'][] = [
  'axle',
  'gearbox',
  'shims',
  'friction',
  'instrument',
  'set-up-bearing',
  'schools',
];
const isKind = (text: string): text is LibrarySpec['kind'] => KINDS.some((kind) => kind === text);

/** Parts of one value; empty ones at the end are left out. */
const list = (...parts: (string | number | null | undefined)[]): string =>
  parts
    .map((part) => part ?? '')
    .join(' | ')
    .replace(/[\s|]+$/, '');

function lines(spec: LibrarySpec): Line[] {
  if (spec.kind === 'shims')
    return [
      ['seat', spec.seat, ''],
      ...(['bore', 'outside'] as const).flatMap((key): Line[] => {
        const diameter = spec[key];
        return diameter ? [[key, diameter.typed, '']] : [];
      }),
      ...spec.pieces.map(({ thickness, count, origin }): Line => ['piece', list(thickness.typed, count), origin]),
    ];
  if (spec.kind === 'friction')
    return [
      ['oil', spec.oil, ''],
      ...spec.readings.map(({ coefficient, from, on, kind, bedded, origin }): Line => [
        'reading',
        list(coefficient.typed, from, on, kind === 'sliding' ? kind : '', bedded ? 'bedded' : ''),
        origin,
      ]),
    ];
  if (spec.kind === 'instrument')
    return [
      ['reads', list(...readsParts(spec.reads)), ''],
      ['reach', list(spec.reads.from.typed, spec.reads.to.typed), ''],
      ['resolution', spec.reads.resolution.typed, ''],
      ['good to', spec.reads.plusMinus.typed, ''],
      ...(spec.checked === null ? [] : [['checked', spec.checked, ''] as const]),
    ];
  if (spec.kind === 'set-up-bearing') return [['taller', spec.taller.typed, spec.origin]];
  if (spec.kind === 'schools')
    return [
      ...SCHOOL_KEYS.map((key): Line => [SCHOOLS[key].label, spec[key], '']),
      ['ring gear note', spec.ringGearNote, ''],
    ];
  const rows: (Line | null)[] = spec.kind === 'axle' ? axleLines(spec) : gearboxLines(spec);
  return rows.filter((row) => row !== null);
}

const readsParts = (reads: Instrument['reads']): string[] =>
  reads.of === 'length' ? [reads.of] : [reads.of, reads.use, reads.hand];

function axleLines(spec: AxleSpec): (Line | null)[] {
  return [
    ['construction', spec.construction.value, spec.construction.origin],
    spec.ringDiameter && ['ring diameter', spec.ringDiameter.value.typed, spec.ringDiameter.origin],
    spec.ringBolts && [
      'ring bolts',
      list(spec.ringBolts.value.thread, spec.ringBolts.value.count, spec.ringBolts.value.hand),
      spec.ringBolts.origin,
    ],
    spec.pinionSplines && ['pinion splines', String(spec.pinionSplines.value), spec.pinionSplines.origin],
    spec.shaftSplines && ['shaft splines', String(spec.shaftSplines.value), spec.shaftSplines.origin],
    spec.retention && ['retention', spec.retention.value, spec.retention.origin],
    ...spec.carriers.map((c): Line => ['carrier', list(c.name, c.fromRatio, c.toRatio, c.price, c.leadDays), c.origin]),
    ...spec.sets.map((s): Line => [
      'set',
      list(`${s.ring}/${s.pinion}`, s.torqueLimit?.typed, s.price, s.leadDays, s.welded ? 'welded' : ''),
      s.origin,
    ]),
    ...EXTRAS.map(([key, field]): Line | null => {
      const bought = spec.extras[key];
      return bought && [field, list(bought.price, bought.leadDays), ''];
    }),
    ...SHEET_KEYS.map((key): Line | null => {
      const told = spec.sheet[key];
      return told && [`sheet: ${SHEET_FIELDS[key].label}`, list(...sheetParts(told.value), told.where), told.origin];
    }),
  ];
}

function gearboxLines(spec: GearboxSpec): (Line | null)[] {
  return [
    ['box', spec.box.value, spec.box.origin],
    spec.torqueLimit && ['torque limit', spec.torqueLimit.value.typed, spec.torqueLimit.origin],
    ...spec.gears.map((g): Line => ['gear', list(g.name, g.ratio.typed), g.origin]),
  ];
}

const EXTRAS = [
  ['ringBolts', 'new ring bolts'],
  ['recalibration', 'recalibration'],
] as const;

/** The library as CSV, one line a value. */
export function libraryCsv(specs: readonly LibrarySpec[]): string {
  return csvText(
    LIBRARY_CSV_HEADER,
    specs.flatMap((spec) => lines(spec).map((line) => [spec.kind, spec.name, ...line])),
  );
}

/** A value of the sheet in its parts; a band has two. */
function sheetParts(value: NonNullable<SpecSheet[SheetKey]>['value']): (string | number)[] {
  if (typeof value !== 'object') return [value];
  return 'low' in value ? [value.low.typed, value.high.typed] : [value.typed];
}

/** One value of the sheet out of a line. @throws InputError on `field` or `value` */
function sheetValue(label: string, parts: readonly string[], origin: string): Record<string, unknown> {
  const key = SHEET_KEYS.find((one) => SHEET_FIELDS[one].label.toLowerCase() === label.toLowerCase());
  if (!key) throw new InputError('field', `field “${cutText(label, 40)}” is not on the sheet.`, 'a value of the sheet');
  const { of, quantity } = sheetField(key);
  const [first = '', second = ''] = parts;
  const value =
    of === 'band'
      ? { low: entry(first, quantity), high: entry(second, quantity) }
      : of === 'one'
        ? entry(first, quantity)
        : of === 'count'
          ? csvWhole(first)
          : first;
  return { [key]: { value, origin, where: parts.slice(of === 'band' ? 2 : 1).join(' | ') } };
}

const entry = (text: string, quantity: Quantity): Entry => {
  const range = { min: -1e12, max: 1e12 };
  return parseEntry(text, { field: 'value', quantity, system: 'metric', range }).entry;
};
const orNull = (text: string | undefined): number | null => (text === undefined || text === '' ? null : csvWhole(text));

/** A word that may stand in a place or not. @throws InputError on `value` for another */
function word(text: string, meant: string): boolean {
  if (text !== '' && text.toLowerCase() !== meant)
    throw new InputError('value', `value: “${cutText(text, 30)}” is not known there.`, `${meant}, or nothing`);
  return text !== '';
}

/** Puts one line into the raw spec. @throws InputError on `field` or `value` */
function put(raw: Record<string, unknown>, field: string, value: string, origin: string): void {
  const parts = value.split('|').map((part) => part.trim());
  const [first = '', second = '', third = '', fourth, fifth = ''] = parts;
  const append = (key: string, item: unknown): void => {
    raw[key] = [...((raw[key] as unknown[] | undefined) ?? []), item];
  };
  const school = SCHOOL_KEYS.find((key) => SCHOOLS[key].label.toLowerCase() === field.toLowerCase());
  if (raw['kind'] === 'schools' && school) {
    raw[school] = value;
    return;
  }
  if (raw['kind'] === 'axle' && /^sheet: /i.test(field)) {
    raw['sheet'] = { ...(raw['sheet'] as object), ...sheetValue(field.slice(7), parts, origin) };
    return;
  }
  switch (field.toLowerCase()) {
    case 'seat':
      raw['seat'] = value;
      return;
    case 'bore':
    case 'outside':
      raw[field.toLowerCase()] = entry(value, 'length');
      return;
    case 'reads':
      raw['reads'] = {
        ...(raw['reads'] as object | undefined),
        of: first,
        ...(second === '' ? {} : { use: second, hand: third }),
      };
      return;
    case 'reach':
    case 'resolution':
    case 'good to': {
      const reads = raw['reads'] as { of?: string } | undefined;
      if (!reads?.of)
        throw new InputError('field', `field “${cutText(field, 40)}” needs reads before it.`, 'reads first');
      const quantity = reads.of === 'length' ? 'length' : 'torque';
      raw['reads'] = {
        ...reads,
        ...(field.toLowerCase() === 'reach'
          ? { from: entry(first, quantity), to: entry(second, quantity) }
          : { [field.toLowerCase() === 'resolution' ? 'resolution' : 'plusMinus']: entry(first, quantity) }),
      };
      return;
    }
    case 'checked':
      raw['checked'] = value;
      return;
    case 'taller':
      raw['taller'] = entry(value, 'length');
      raw['origin'] = origin;
      return;
    case 'construction':
    case 'box':
      raw[field.toLowerCase()] = { value, origin };
      return;
    case 'ring gear note':
      raw['ringGearNote'] = value;
      return;
    case 'ring diameter':
      raw['ringDiameter'] = { value: entry(value, 'length'), origin };
      return;
    case 'ring bolts':
      raw['ringBolts'] = { value: { thread: first, count: csvNumber(second), hand: third }, origin };
      return;
    case 'pinion splines':
      raw['pinionSplines'] = { value: csvNumber(value), origin };
      return;
    case 'shaft splines':
      raw['shaftSplines'] = { value: csvNumber(value), origin };
      return;
    case 'retention':
      raw['retention'] = { value, origin };
      return;
    case 'carrier':
      append('carriers', {
        name: first,
        fromRatio: csvNumber(second),
        toRatio: csvNumber(third),
        price: orNull(fourth),
        leadDays: orNull(fifth),
        origin,
      });
      return;
    case 'set': {
      const [ring = '', pinion = ''] = first.split(/[/:]/);
      const torqueLimit = second === '' ? null : entry(second, 'torque');
      append('sets', {
        ring: csvNumber(ring),
        pinion: csvNumber(pinion),
        torqueLimit,
        price: orNull(third),
        leadDays: orNull(fourth),
        welded: word(fifth, 'welded'),
        origin,
      });
      return;
    }
    case 'new ring bolts':
    case 'recalibration': {
      const key = EXTRAS.find(([, name]) => name === field.toLowerCase())?.[0] ?? field;
      raw['extras'] = { ...(raw['extras'] as object), [key]: { price: orNull(first), leadDays: orNull(second) } };
      return;
    }
    case 'piece':
      append('pieces', { thickness: entry(first, 'length'), count: csvWhole(second), origin });
      return;
    case 'oil':
      raw['oil'] = value;
      return;
    case 'reading':
      append('readings', {
        coefficient: entry(first, 'coefficient'),
        from: second,
        on: third,
        kind: word(fourth ?? '', 'sliding') ? 'sliding' : 'static',
        bedded: word(fifth, 'bedded'),
        origin,
      });
      return;
    case 'torque limit':
      raw['torqueLimit'] = { value: entry(value, 'torque'), origin };
      return;
    case 'gear':
      append('gears', { name: first, ratio: entry(second, 'ratio'), origin });
      return;
    default:
      throw new InputError('field', `field “${cutText(field, 40)}” is not known.`, 'a field that an exported file has');
  }
}

/**
 * Reads what {@link libraryCsv} writes. A bad line, or a spec that ends up incomplete, is listed and the rest kept.
 * @throws InputError on `csv` where no spec is usable
 */
export function readLibraryCsv(text: string): { specs: LibrarySpec[]; bad: BadLine[] } {
  const bad: BadLine[] = [];
  const raws = new Map<string, { raw: Record<string, unknown>; line: number }>();
  csvRows(text).forEach((row, i) => {
    const line = i + 1;
    const [kind = '', name = '', field = '', value = '', origin = ''] = row;
    if (row.every((cell) => cell === '') || (i === 0 && kind.toLowerCase() === 'kind')) return;
    const refuse = (why: string): void => void bad.push({ line, text: cutText(row.join(', '), 60), why });
    if (!isKind(kind)) return refuse(`kind must be one of ${KINDS.join(', ')}`);
    const key = `${kind} ${name}`;
    const known = raws.get(key) ?? { raw: empty(kind, name), line };
    raws.set(key, known);
    try {
      put(known.raw, field, value, origin);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      refuse(error.message);
    }
  });
  const specs: LibrarySpec[] = [];
  for (const { raw, line } of raws.values()) {
    const parsed = librarySpecSchema.safeParse(raw, { reportInput: true });
    if (parsed.success) specs.push(parsed.data);
    else bad.push({ line, text: String(raw['name']).slice(0, 60), why: refusal(parsed.error, 'spec').message });
  }
  if (specs.length === 0) {
    const first = bad[0];
    throw new InputError(
      'csv',
      `csv holds no usable spec.${first ? ` Line ${first.line}: ${first.why}` : ''}`,
      LIBRARY_CSV_HEADER.join(', '),
    );
  }
  return { specs, bad };
}

function empty(kind: LibrarySpec['kind'], name: string): Record<string, unknown> {
  switch (kind) {
    case 'axle':
      return {
        kind,
        name,
        ringDiameter: null,
        ringBolts: null,
        pinionSplines: null,
        shaftSplines: null,
        retention: null,
        carriers: [],
        extras: { ringBolts: null, recalibration: null },
        sets: [],
        sheet: emptySheet(),
      };
    case 'gearbox':
      return { kind, name, torqueLimit: null, gears: [] };
    case 'shims':
      return { kind, name, seat: 'pack', bore: null, outside: null, pieces: [] };
    case 'friction':
      return { kind, name, oil: '', readings: [] };
    case 'instrument':
      return { kind, name, checked: null };
    case 'set-up-bearing':
      return { kind, name };
    case 'schools':
      return { kind, name, ...USUAL_SCHOOLS, ringGearNote: '' };
  }
}
