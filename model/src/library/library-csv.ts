import { cutText, InputError, parseEntry, type Entry, type Quantity } from '@hot-spline/core';
import { csvNumber, csvRows, csvWhole, csvText, headerDelimiter, type BadLine } from '../base/csv';
import { idSchema } from '../base/fields';
import { refusal } from '../base/refuse';
import { USUAL_SCHOOLS, SCHOOLS, SCHOOL_KEYS } from './schools';
import { SHEET_FIELDS, SHEET_KEYS, emptySheet, sheetField, type SheetKey, type SpecSheet } from './sheet';
import {
  librarySpecSchema,
  type AxleSpec,
  type GearboxSpec,
  type GivenSpec,
  type Instrument,
  type LibrarySpec,
  type Origin,
} from './schema';

/** One line a value: which spec, which field, the value as typed, where it comes from; the id that the spec has here. */
export const LIBRARY_CSV_HEADER = ['kind', 'name', 'field', 'value', 'origin', 'id'] as const;

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

/** What a spec says, a line a value: field, value as typed, origin. */
export function specLines(spec: LibrarySpec): Line[] {
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

/** What is one of several words, by its field. */
const SAID = [
  ['retention', 'retention'],
  ['brake', 'brake'],
  ['wheelBearing', 'wheel bearing'],
  ['outerSeal', 'outer seal'],
  ['spread', 'case opened by'],
] as const;

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
    ...SAID.map(([key, field]): Line | null => spec[key] && [field, spec[key].value, spec[key].origin]),
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
    spec.adjusterSequence && ['adjuster sequence', spec.adjusterSequence.where, spec.adjusterSequence.origin],
    ...(spec.adjusterSequence?.moves ?? []).map(({ side, way, until }): Line => [
      'adjuster move',
      list(
        side,
        way,
        until.of,
        'value' in until ? (typeof until.value === 'object' ? until.value.typed : until.value) : '',
      ),
      '',
    ]),
  ];
}

function gearboxLines(spec: GearboxSpec): (Line | null)[] {
  return [
    ['box', spec.box.value, spec.box.origin],
    spec.torqueLimit && ['torque limit', spec.torqueLimit.value.typed, spec.torqueLimit.origin],
    ...spec.gears.map((g): Line => ['gear', list(g.name, g.ratio.typed), g.origin]),
    // Shafts, pieces and tracks in one cell: no table holds them without losing which belongs where.
    spec.inside && ['inside, as JSON', JSON.stringify(spec.inside), ''],
  ];
}

const EXTRAS = [
  ['ringBolts', 'new ring bolts'],
  ['recalibration', 'recalibration'],
] as const;

/** The library as CSV, one line a value. */
export function libraryCsv(specs: readonly GivenSpec[]): string {
  return csvText(
    LIBRARY_CSV_HEADER,
    specs.flatMap(({ id, spec }) => specLines(spec).map((line) => [spec.kind, spec.name, ...line, id ?? ''])),
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

type Raw = Record<string, unknown>;

/** One line of a file, taken apart. */
interface Given {
  readonly field: string;
  readonly value: string;
  readonly parts: readonly string[];
  readonly origin: string;
}

function append(raw: Raw, key: string, item: unknown): void {
  raw[key] = [...((raw[key] as unknown[] | undefined) ?? []), item];
}

/** @throws InputError on `field` where nothing was said of what the instrument reads */
function putReads(raw: Raw, of: (quantity: Quantity) => Raw, field: string): void {
  const reads = raw['reads'] as { of?: string } | undefined;
  if (!reads?.of) throw new InputError('field', `field “${cutText(field, 40)}” needs reads before it.`, 'reads first');
  raw['reads'] = { ...reads, ...of(reads.of === 'length' ? 'length' : 'torque') };
}

const plainly =
  (key: string) =>
  (raw: Raw, { value }: Given): void =>
    void (raw[key] = value);
const sourced =
  (key: string, read: (value: string) => unknown = (value) => value) =>
  (raw: Raw, { value, origin }: Given): void =>
    void (raw[key] = { value: read(value), origin });
const lengthAt =
  (key: string) =>
  (raw: Raw, { value }: Given): void =>
    void (raw[key] = entry(value, 'length'));
const extra =
  (key: 'ringBolts' | 'recalibration') =>
  (raw: Raw, { parts: [first, second] }: Given): void =>
    void (raw['extras'] = {
      ...(raw['extras'] as object),
      [key]: { price: orNull(first), leadDays: orNull(second) },
    });

/** A move of the adjusters: side, way, up to when, and how far. @throws InputError on `value` */
function move([side, way, of = '', far = '']: readonly string[]): unknown {
  const quantity = ({ torque: 'torque', backlash: 'length', growth: 'length' } as const)[of];
  const value = quantity ? { value: entry(far, quantity) } : of === 'notches' ? { value: csvWhole(far) } : {};
  return { side, way, until: { of, ...value } };
}

/** What each field of a line puts into its spec. */
const PUT: Readonly<Record<string, (raw: Raw, given: Given) => void>> = {
  seat: plainly('seat'),
  bore: lengthAt('bore'),
  outside: lengthAt('outside'),
  reads(raw, { parts: [first = '', second = '', third = ''] }) {
    const use = second === '' ? {} : { use: second, hand: third };
    raw['reads'] = { ...(raw['reads'] as object | undefined), of: first, ...use };
  },
  reach: (raw, { field, parts: [first = '', second = ''] }) =>
    putReads(raw, (quantity) => ({ from: entry(first, quantity), to: entry(second, quantity) }), field),
  resolution: (raw, { field, parts: [first = ''] }) =>
    putReads(raw, (quantity) => ({ resolution: entry(first, quantity) }), field),
  'good to': (raw, { field, parts: [first = ''] }) =>
    putReads(raw, (quantity) => ({ plusMinus: entry(first, quantity) }), field),
  checked: plainly('checked'),
  taller(raw, { value, origin }) {
    raw['taller'] = entry(value, 'length');
    raw['origin'] = origin;
  },
  construction: sourced('construction'),
  box: sourced('box'),
  'ring gear note': plainly('ringGearNote'),
  'ring diameter': sourced('ringDiameter', (value) => entry(value, 'length')),
  'ring bolts': (raw, { parts: [first = '', second = '', third = ''], origin }) =>
    void (raw['ringBolts'] = { value: { thread: first, count: csvNumber(second), hand: third }, origin }),
  'pinion splines': sourced('pinionSplines', csvNumber),
  'shaft splines': sourced('shaftSplines', csvNumber),
  ...Object.fromEntries(SAID.map(([key, field]) => [field, sourced(key)])),
  carrier: (raw, { parts: [name = '', from = '', to = '', price, leadDays], origin }) =>
    append(raw, 'carriers', {
      name,
      fromRatio: csvNumber(from),
      toRatio: csvNumber(to),
      price: orNull(price),
      leadDays: orNull(leadDays),
      origin,
    }),
  set(raw, { parts: [teeth = '', limit = '', price, leadDays, welded = ''], origin }) {
    const [ring = '', pinion = ''] = teeth.split(/[/:]/);
    append(raw, 'sets', {
      ring: csvNumber(ring),
      pinion: csvNumber(pinion),
      torqueLimit: limit === '' ? null : entry(limit, 'torque'),
      price: orNull(price),
      leadDays: orNull(leadDays),
      welded: word(welded, 'welded'),
      origin,
    });
  },
  'new ring bolts': extra('ringBolts'),
  recalibration: extra('recalibration'),
  'adjuster sequence': (raw, { value, origin }) => {
    const known = raw['adjusterSequence'] as { moves: unknown[] } | null;
    raw['adjusterSequence'] = { moves: known?.moves ?? [], origin, where: value };
  },
  'adjuster move'(raw, { parts }) {
    const known = raw['adjusterSequence'] as { moves: unknown[] } | null;
    raw['adjusterSequence'] = { origin: '', where: '', ...known, moves: [...(known?.moves ?? []), move(parts)] };
  },
  piece: (raw, { parts: [thickness = '', count = ''], origin }) =>
    append(raw, 'pieces', { thickness: entry(thickness, 'length'), count: csvWhole(count), origin }),
  oil: plainly('oil'),
  reading: (raw, { parts: [coefficient = '', from = '', on = '', sliding = '', bedded = ''], origin }) =>
    append(raw, 'readings', {
      coefficient: entry(coefficient, 'coefficient'),
      from,
      on,
      kind: word(sliding, 'sliding') ? 'sliding' : 'static',
      bedded: word(bedded, 'bedded'),
      origin,
    }),
  'torque limit': sourced('torqueLimit', (value) => entry(value, 'torque')),
  'inside, as json': (raw, { value }) => (raw['inside'] = jsonOf(value)),
  gear: (raw, { parts: [name = '', ratio = ''], origin }) =>
    append(raw, 'gears', { name, ratio: entry(ratio, 'ratio'), origin }),
};

/** @throws InputError on `value` */
function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new InputError('value', 'value is no JSON.', 'what an exported file has');
  }
}

/** Puts one line into the raw spec. @throws InputError on `field` or `value` */
function put(raw: Raw, field: string, value: string, origin: string): void {
  const parts = value.split('|').map((part) => part.trim());
  const school = SCHOOL_KEYS.find((key) => SCHOOLS[key].label.toLowerCase() === field.toLowerCase());
  if (raw['kind'] === 'schools' && school) raw[school] = value;
  else if (raw['kind'] === 'axle' && /^sheet: /i.test(field))
    raw['sheet'] = { ...(raw['sheet'] as object), ...sheetValue(field.slice(7), parts, origin) };
  else {
    const name = field.toLowerCase();
    const how = Object.hasOwn(PUT, name) ? PUT[name] : undefined;
    if (!how)
      throw new InputError('field', `field “${cutText(field, 40)}” is not known.`, 'a field that an exported file has');
    how(raw, { field, value, parts, origin });
  }
}

/**
 * Reads what {@link libraryCsv} writes. A bad line, or a spec that ends up incomplete, is listed and the rest kept.
 * @throws InputError on `csv` where no spec is usable
 */
export function readLibraryCsv(text: string): { specs: GivenSpec[]; bad: BadLine[] } {
  const bad: BadLine[] = [];
  const raws = new Map<string, { raw: Record<string, unknown>; line: number; id: string | null; torn: boolean }>();
  csvRows(text, headerDelimiter(text)).forEach((row, i) => {
    const line = i + 1;
    const [kind = '', name = '', field = '', value = '', origin = '', id = ''] = row;
    if (row.every((cell) => cell === '') || (i === 0 && kind.toLowerCase() === 'kind')) return;
    const refuse = (why: string): void => void bad.push({ line, text: cutText(row.join(', '), 60), why });
    if (!isKind(kind)) return refuse(`kind must be one of ${KINDS.join(', ')}`);
    const said = idSchema.safeParse(id);
    if (id !== '' && !said.success) return refuse('id must be a UUID, or nothing');
    const key = id === '' ? `${kind} ${name}` : id;
    const known = raws.get(key) ?? { raw: empty(kind, name), line, id: id === '' ? null : id, torn: false };
    raws.set(key, known);
    try {
      if (known.raw['kind'] !== kind || known.raw['name'] !== name)
        throw new InputError(
          'id',
          'id: this line says another kind or name than the first of its id.',
          'one id, one spec',
        );
      put(known.raw, field, value, origin);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      known.torn = true;
      refuse(error.message);
    }
  });
  const specs: GivenSpec[] = [];
  for (const { raw, line, id, torn } of raws.values()) {
    const parsed = librarySpecSchema.safeParse(raw, { reportInput: true });
    if (parsed.success) specs.push({ id, spec: parsed.data, ...(torn ? { torn } : {}) });
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
        adjusterSequence: null,
        retention: null,
        brake: null,
        wheelBearing: null,
        outerSeal: null,
        spread: null,
        carriers: [],
        extras: { ringBolts: null, recalibration: null },
        sets: [],
        sheet: emptySheet(),
      };
    case 'gearbox':
      return { kind, name, torqueLimit: null, gears: [], inside: null };
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
