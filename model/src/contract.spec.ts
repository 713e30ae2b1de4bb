import * as z from 'zod';
import { entryOf, explain, saySmall } from '@hot-spline/core';
import { calculations } from './assembly/calculations';
import { capabilities } from './assembly/capabilities';
import { BuildDeriver, deriveBuild } from './assembly/derive';
import { ledgerEntrySchema, ledgerSchemas } from './document/ledger';
import { newBuild } from './start/new-build';
import { startBuild } from './start/start-build';
import { number, out } from './frame/calc-keys';
import { Registry, defineCalculation } from './frame/calculations';
import { defineCapability } from './frame/capability';
import { fact, STATIONS } from './frame/finding';
import { ledgerCsv, readLedgerCsv } from './files/ledger-csv';
import { openApi } from './wire/openapi';
import { inForce, readingBase, type Reading } from './frame/readings';
import { defineSubject, type Subject } from './frame/subjects';
import { subjects } from './assembly/subjects';
import type { ReadingValue, ValueKind } from './frame/values';
import { parseOrRefuse } from './base/refuse';
import { keptFiles, testId } from './testing/builds';

const twice = <T>(list: readonly T[]): T[] => list.filter((one, i) => list.indexOf(one) !== i);

/** A value of each kind, inside its range. */
function sample(kind: ValueKind): ReadingValue {
  const flank = { u: 0.1, v: -0.4, length: 0.5, height: 0.4, turnedDeg: 0, edges: [], shape: 'one' as const };
  switch (kind.of) {
    case 'number':
    case 'places': {
      const unit = {
        length: 'mm',
        torque: 'N·m',
        count: '',
        time: 's',
        distance: 'metre',
        temperature: '°C',
        volume: 'l',
        pressure: 'kPa',
      } as const;
      const [low, high] = kind.plausible;
      const of = (share: number) =>
        entryOf(Number((low + share * (high - low)).toFixed(3)), unit[kind.quantity as 'length']);
      if (kind.of === 'places') return { of: 'places', entries: [0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8].map(of) };
      const entries = kind.counts === 'one' ? [of(0.5)] : [of(0.5), of(0.4)];
      return { of: 'number', counts: kind.counts, entries };
    }
    case 'pattern':
      return { of: 'pattern', drive: flank, coast: { ...flank, edges: ['toe'] } };
    case 'assembly': {
      const [pinion, left, right] = [entryOf(1.1, 'mm'), entryOf(6.4, 'mm'), entryOf(6.1, 'mm')];
      return {
        of: 'assembly',
        pinion: [pinion],
        left: [left],
        right: [right],
        leftNotches: 2,
        rightNotches: -2,
        drawers: [testId()],
      };
    }
    case 'choice':
      return { of: 'choice', choice: kind.choices[0] ?? '' };
    case 'signature':
      return { of: 'signature', name: 'Ada', figures: { 'pack.rear.left.height': 16.2 } };
    case 'photos':
      return { of: 'photos', photos: ['0'.repeat(64)] };
    case 'text':
      return { of: 'text', text: 'a lip at a hole' };
    case 'ticks':
      return { of: 'ticks', ticks: ['1', '6'] };
  }
}

interface Sampled {
  readonly const?: string;
  readonly enum?: string[];
  readonly type?: string;
  readonly pattern?: string;
  readonly format?: string;
  readonly items?: { readonly type?: string };
  readonly anyOf?: unknown[];
}

/** A reading of each kind of thing: keys that the schema takes. */
function readingOf(subject: Subject): Reading {
  const { properties = {} } = z.toJSONSchema(subject.schema, { io: 'input' }) as {
    properties?: Record<string, Sampled>;
  };
  const { properties: states = {} } = z.toJSONSchema(subject.stateSchema) as { properties?: Record<string, Sampled> };
  const filled = (of: Record<string, Sampled>) =>
    Object.fromEntries(
      Object.entries(of).map(([key, { const: only, enum: some, type, items, pattern, format, anyOf }]) => [
        key,
        only ??
          (format === 'uuid' ? testId() : undefined) ??
          some?.[0] ??
          (anyOf ? null : type === 'array' ? (items?.type === 'object' ? [] : ['l1']) : pattern ? '1' : 'l1'),
      ]),
    );
  return {
    kind: 'reading',
    id: testId(),
    at: '2026-02-03T04:05:00.000Z',
    who: 'Ada',
    subject: filled(properties) as Reading['subject'],
    value: sample(subject.value),
    state: filled(states) as Reading['state'],
    instrument: 'Micrometer',
  };
}

describe('every capability', () => {
  it('has a name, figures and subjects of its own, and stands after what it needs', () => {
    expect(twice(capabilities.map(({ name }) => name))).toEqual([]);
    expect(twice(subjects.map(({ what }) => what))).toEqual([]);
    expect(new Set(subjects)).toEqual(new Set(capabilities.flatMap((capability) => [...capability.subjects])));
    expect(twice(calculations.names())).toEqual([]);
    capabilities.forEach((capability, i) => {
      for (const need of capability.needs === 'all-before' ? [] : capability.needs)
        expect((capabilities as readonly unknown[]).indexOf(need))
          .withContext(`${capability.name} needs ${need.name}`)
          .toBeLessThan(i);
      expect(STATIONS).toContain(capability.station);
    });
  });

  it('makes figures whose workings equal their values, and findings made of facts', () => {
    const builds = [...Object.values(keptFiles()), { build: newBuild('Fresh'), ledger: [] }];
    for (const { build, ledger } of builds) {
      const { figures, findings } = deriveBuild(build, ledger, { today: '2026-11-25' });
      for (const { id, value, explain: working } of figures.values()) {
        if (value === null || !working) continue;
        const shown = working().result.value as number;
        expect(Math.abs(shown - value))
          .withContext(id)
          .toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(shown)));
      }
      expect(twice(findings.map(({ id }) => id))).toEqual([]);
      for (const finding of findings) {
        expect(STATIONS).toContain(finding.station);
        expect(finding.place.field).not.toBe('');
        expect(JSON.parse(JSON.stringify(finding.facts)))
          .withContext(finding.id)
          .toEqual(finding.facts);
        expect(finding.say('inch')).withContext(finding.id).toEqual(finding.say('inch'));
        for (const id of finding.figures) expect(figures.has(id)).withContext(`${finding.id}: ${id}`).toBeTrue();
      }
    }
  });

  it('every calculation runs its example, and its working ends in one of its values', () => {
    for (const { name, example } of calculations.all()) {
      const { working, ...output } = calculations.run(name, example, true) as {
        working: { result: { value: number } };
      };
      const numbers: number[] = [];
      JSON.stringify(output, (_key, value: unknown) => {
        if (typeof value === 'number') numbers.push(value);
        // Of an order of work its length is the value.
        if (Array.isArray(value)) numbers.push(value.length);
        return value;
      });
      const near = numbers.some((one) => Math.abs(one - working.result.value) <= 1e-6 * Math.max(1, Math.abs(one)));
      expect(near).withContext(`${name}: ${working.result.value}`).toBeTrue();
    }
  });

  for (const subject of subjects) {
    it(`a reading of ${subject.what} goes through ledger, JSON and CSV unchanged`, () => {
      const reading = readingOf(subject);
      expect(parseOrRefuse(ledgerEntrySchema, reading, 'entry')).toEqual(reading);
      expect(parseOrRefuse(ledgerEntrySchema, JSON.parse(JSON.stringify(reading)), 'entry')).toEqual(reading);
      expect(readLedgerCsv(ledgerCsv([reading]))).toEqual({ entries: [reading], made: new Set(), bad: [] });
      expect(subject.words(reading.subject, newBuild('x')).length).toBeGreaterThan(5);
      const value = subject.value;
      if (value.of === 'number') expect(value.plausible[0]).toBeLessThan(value.plausible[1]);
    });
  }
});

describe('what is derived', () => {
  const file = Object.values(keptFiles())[1];
  if (!file) throw new Error('no demo');
  const { build, ledger } = file;

  it('is worked out again only where its inputs changed', () => {
    const deriver = new BuildDeriver();
    const first = deriver.derive(build, ledger);
    const point = { ...first.point, rpm: first.point.rpm - 100 };
    const moved = deriver.derive(build, ledger, { point });
    const main = first.main;
    expect(moved.axles[main]?.pack).toBe(first.axles[main]?.pack);
    expect(moved.gearing).toBe(first.gearing);
    expect(moved.figures.get('point.speed')?.value).not.toBe(first.figures.get('point.speed')?.value);
    expect(deriver.derive(build, ledger, { point }).figures.get('point.speed')).toBe(moved.figures.get('point.speed'));
    const again = deriveBuild(build, ledger, { point });
    expect([...moved.figures].map(([id, { value }]) => [id, value])).toEqual(
      [...again.figures].map(([id, { value }]) => [id, value]),
    );
  });

  const broken = defineCapability({
    name: 'broken',
    needs: [],
    figures: {},
    subjects: [],
    place: { sheet: 'brief', field: 'brief-mass' },
    station: 'engine',
    inputs: () => ({}),
    derive: (): null => {
      throw new TypeError('x is undefined');
    },
  });

  it('a mistake in one capability is a finding that says so, and leaves the rest standing', () => {
    const whole = deriveBuild(build, ledger);
    const contained = new BuildDeriver(true, [broken, ...capabilities]).derive(build, ledger);
    const found = contained.findings.find(({ id }) => id === 'broken.mistake');
    expect([found?.verdict, found?.say('inch').detail]).toEqual(['stop', jasmine.stringContaining('x is undefined')]);
    expect([...contained.figures.keys()]).toEqual([...whole.figures.keys()]);
    expect(() => new BuildDeriver(false, [broken, ...capabilities]).derive(build, ledger)).toThrowError(
      /x is undefined/,
    );
  });

  it('what rests on something assumed never fits, and says what to say', () => {
    const started = startBuild({
      name: 'New',
      vehicle: '',
      use: 'street',
      driven: 'rear',
      power: 'manual',
      axle: null,
    });
    const { findings, figures } = deriveBuild(started, []);
    expect(findings.filter(({ verdict }) => verdict !== 'not-yet').map(({ id }) => id)).toEqual([]);
    expect(findings.find(({ id }) => id === 'assumed.engine')?.say('metric').title).toBe(
      'Engine assumed: 200\u00a0N·m',
    );
    for (const { id, rests } of figures.values()) expect(rests).withContext(id).toBe('assumed');
    const said = {
      ...started,
      assumed: started.assumed.filter((path) => !path.startsWith('engine') && path !== 'coupling'),
    };
    const margin = deriveBuild(said, []).findings.find(({ id }) => id === 'coupling.margin');
    expect([margin?.verdict, margin?.rests]).toEqual(['fits', 'said']);
  });
});

/** A small capability, added through the lists alone: docs/adding-a-capability.md. */
const gap = defineSubject({
  what: 'toy-gap',
  keys: { axle: z.enum(['rear', 'front']) },
  value: {
    of: 'places',
    from: 4,
    to: 12,
    quantity: 'length',
    scale: 'small',
    range: { min: 0, max: 5, unit: 'mm' },
    plausible: [0.05, 0.5],
  },
  words: ({ axle }) => `${axle}: toy gap`,
});
const others = (['pattern', 'signature', 'photos'] as const).map((of) =>
  defineSubject({ what: `toy-${of}`, keys: {}, value: { of }, words: () => `toy ${of}` }),
);
const choice = defineSubject({
  what: 'toy-choice',
  keys: {},
  value: { of: 'choice', choices: ['a', 'b'] },
  words: () => 'toy',
});
const mean = defineSubject({
  what: 'toy-mean',
  keys: {},
  value: { of: 'number', counts: 'mean', quantity: 'length', range: { min: 0, max: 5 }, plausible: [0.1, 1] },
  words: () => 'toy mean',
});
const toyFigures = { least: () => 'toy.least' as const };
const toyCalculations = [
  defineCalculation({
    name: 'toy.double',
    summary: 'Twice a number.',
    input: z.strictObject({ value: number({ min: 0, max: 10 }) }),
    output: z.object({ double: out }),
    example: { value: 2 },
    run: ({ value }) => ({ double: 2 * value }),
    explain: ({ value }) =>
      explain({
        title: 'Twice',
        formula: 'double = 2 × value',
        inputs: [{ key: 'value', label: 'value', value, quantity: 'count' }],
        sources: [{ kind: 'exact', text: 'arithmetic' }],
        result: { label: 'double', quantity: 'count' },
        compute: (v) => ({ value: 2 * (v['value'] ?? 0) }),
      }),
  }),
];
const toy = defineCapability({
  name: 'toy',
  needs: [],
  figures: toyFigures,
  subjects: [gap, mean, choice, ...others],
  place: { sheet: 'toy', field: 'toy-gap' },
  station: 'final',
  inputs: ({ readings }) => ({ readings }),
  derive({ readings }, d) {
    const value = readings.get(gap.key({ axle: 'rear' }))?.value;
    const least = value?.of === 'places' ? Math.min(...value.entries.map((entry) => entry.value)) : null;
    d.figure({ id: toyFigures.least(), label: 'Least gap', value: least, quantity: 'length' });
    if (least === null) return;
    d.finding({
      id: 'toy.gap',
      verdict: least < 0.1 ? 'watch' : 'fits',
      place: { sheet: 'toy', field: 'toy-gap' },
      station: 'final',
      figures: [toyFigures.least()],
      rule: 'a test',
      facts: { least: fact(least, 'length', 'small') },
      say: (f, system) => ({ title: `Least gap ${saySmall(f.least.value, system)}`, detail: 'A test.' }),
    });
  },
});

describe('a capability that is added to the list', () => {
  const list = [...capabilities, toy];
  const kinds = list.flatMap((capability) => [...capability.subjects]);
  const schemas = ledgerSchemas(kinds);
  const registry = new Registry([...calculations.all(), ...toyCalculations]);

  it('is read, kept and exported whatever its values are', () => {
    for (const subject of toy.subjects) {
      const reading = readingOf(subject);
      expect(parseOrRefuse(schemas.entry, reading, 'entry'))
        .withContext(subject.what)
        .toEqual(reading);
      expect(readLedgerCsv(ledgerCsv([reading]), null, schemas.entry))
        .withContext(subject.what)
        .toEqual({ entries: [reading], made: new Set(), bad: [] });
      expect(() => parseOrRefuse(ledgerEntrySchema, reading, 'entry')).toThrowError(/subject.what/);
    }
    const reading = readingOf(mean);
    expect(readingBase(reading)).toBeCloseTo((0.55 + 0.46) / 2, 9); // mean of the two samples [exact]
  });

  it('refuses a reading that is none of its kind by field', () => {
    const reading = readingOf(gap);
    const few = { ...reading, value: { of: 'places', entries: [entryOf(0.1, 'mm')] } };
    expect(() => parseOrRefuse(schemas.entry, few, 'entry')).toThrowError(/value.entries must be at least 4 long/);
    const state = { ...reading, state: { caps: 'torqued' } };
    expect(() => parseOrRefuse(schemas.entry, state, 'entry')).toThrowError(/state.caps is not a known key/);
  });

  it('shows in figures and findings, in calc and in OpenAPI', () => {
    const reading = readingOf(gap);
    const readings = inForce([reading], kinds);
    expect(readings.get('toy-gap/rear')?.seq).toBe(0);
    const deriver = new BuildDeriver(false, list, kinds);
    const derived = deriver.derive(newBuild('x'), [reading]);
    expect(derived.figures.get('toy.least')?.value).toBeCloseTo(0.095, 9); // 0.05 + 0.1 × 0.45 [exact]
    expect(derived.findings.find(({ id }) => id === 'toy.gap')?.verdict).toBe('watch');
    expect(registry.run('toy.double', { value: 3 })).toEqual({ double: 6 });
    const { paths } = openApi('1', registry) as { paths: Record<string, unknown> };
    expect(paths['/api/calc/toy.double']).toBeDefined();
  });

  it('twice in the list is refused at once', () => {
    expect(() => new Registry([...toyCalculations, ...toyCalculations])).toThrowError(/registered twice/);
    const again = defineCapability({
      ...toy,
      name: 'again',
      inputs: () => ({}),
      derive: (_, d) => {
        d.figure({ id: toyFigures.least(), label: 'x', value: 1, quantity: 'length' });
      },
    });
    expect(() => new BuildDeriver(false, [toy, again], kinds).derive(newBuild('x'), [])).toThrowError(
      /two capabilities/,
    );
  });
});
