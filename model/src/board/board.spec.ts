import { entryOf } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import { newBuild } from '../start/new-build';
import { readBuildFile } from '../files/build-file';
import type { Build } from '../document/schema';
import type { LedgerEntry, Reading, Signature } from '../frame/readings';
import { newSetup } from '../mesh/new-setup';
import { newAxleSpec } from '../library/new-spec';
import { newJoint } from '../joint/new-joint';
import { newShafts } from '../shaft/new-shafts';
import { tripKind } from '../runin/readings';
import { testId } from '../testing/builds';
import { orderOfWork } from '../assembly/steps';
import { boardWork, facetsOf } from './board';
import { BOARD_STATES } from './board-states';
import { gateKey } from '../plan/gates';
import { newWork } from '../plan/new-work';
import { stepDone, stepTime } from '../plan/readings';
import { factsOf } from '../plan/facts';

function planned(change: (build: Build) => unknown = () => undefined): Build {
  const build = newBuild('Test');
  const { rear } = build.axles;
  if (!rear) throw new Error('no rear axle');
  rear.work = newWork('ratio-swap', 'plain');
  rear.identity = newAxleSpec('Test axle', 'integral-head-shim', 'measured');
  rear.setup = newSetup();
  change(build);
  return build;
}
const at = '2026-11-26T08:00:00.000Z';
const reading = (subject: Reading['subject'], value: Reading['value']): LedgerEntry => ({
  kind: 'reading',
  id: testId(),
  at,
  who: '',
  subject,
  value,
  state: {},
  instrument: 'By hand',
});
const done = (step: string, axle: 'rear' | 'front' = 'rear') =>
  reading(stepDone.of({ axle, step }), { of: 'choice', choice: 'done' });
const signed = (gate: 'A' | 'B'): Signature => ({
  kind: 'signature',
  id: testId(),
  at,
  who: '',
  gate: gateKey('rear', gate),
  name: 'Ines',
  figures: {},
});
const race = (n: number) => reading(tripKind.of({ axle: 'rear', trip: String(n) }), { of: 'choice', choice: 'race' });
const state = (build: Build, ledger: readonly LedgerEntry[] = []) => boardWork(build, ledger).state;

/** Ledger of a job that is done up to a step, gates signed on the way. */
function upTo(build: Build, step: string): LedgerEntry[] {
  const axle = build.axles.rear;
  const situation = axle && factsOf(axle);
  if (!situation) throw new Error('no work');
  const ledger: LedgerEntry[] = [];
  for (const { id, gate } of orderOfWork(situation)) {
    if (id === step) return ledger;
    const figures = gate === null ? {} : { ...deriveBuild(build, ledger).gates.rear?.[gate].figures };
    ledger.push(gate === null ? done(id) : { ...signed(gate), figures });
  }
  return ledger;
}

describe('where a job stands', () => {
  it('goes from no job to done', () => {
    expect(state(newBuild('None'))).toBe('open');
    const build = planned();
    expect(state(build)).toBe('planned');
    const expected: [string, string][] = [
      ['identify', 'work'],
      ['raise', 'work'],
      ['start-shim', 'loop'],
      ['backlash', 'loop'],
      ['pinion-bearing', 'work'],
      ['gate-b', 'gate'],
      ['shafts-in', 'work'],
      ['run-in', 'run-in'],
      ['hand-over', 'run-in'],
    ];
    for (const [step, stands] of expected)
      expect(state(build, upTo(build, step)))
        .withContext(step)
        .toBe(stands as never);
    expect(state(build, [...upTo(build, 'hand-over'), done('hand-over')])).toBe('done');
  });

  it('waits for parts before it comes apart, not after; on hold it waits always', () => {
    const part = {
      id: 'seals',
      name: 'Seals',
      count: 1,
      state: 'ordered' as const,
      supplier: '',
      price: null,
      promised: null,
      number: '',
    };
    const build = planned(({ axles }) => axles.rear?.work?.parts.push(part));
    expect(state(build, upTo(build, 'choose'))).toBe('waiting');
    expect(state(build, upTo(build, 'pinion-out'))).toBe('work');
    const held = planned(({ axles }) => {
      if (axles.rear?.work)
        axles.rear.work.hold = { for: 'customer', why: 'which ratio?', since: '2026-11-25', until: null };
    });
    expect(state(held, upTo(held, 'backlash'))).toBe('waiting');
    expect(boardWork(held, []).rest?.what).toBe('which ratio?');
  });

  it('is due after its races, whatever else it is', () => {
    const build = planned();
    const races = [1, 2, 3, 4].map(race);
    expect(state(build, races.slice(1))).toBe('planned');
    expect(boardWork(build, races)).toEqual(jasmine.objectContaining({ state: 'due', due: 'races' }));
  });

  it('of two axles the one that presses most counts; hours are those of both', () => {
    const build = planned((one) => {
      one.driven = 'both';
      one.axles.front = structuredClone(one.axles.rear);
      if (one.axles.front?.work)
        one.axles.front.work.hold = { for: 'tool', why: 'puller', since: '2026-11-25', until: null };
    });
    const time = reading(stepTime.of({ axle: 'rear', step: 'brief' }), {
      of: 'number',
      counts: 'one',
      entries: [entryOf(90, 'min')],
    });
    const one = boardWork(planned(), []);
    const both = boardWork(build, [done('brief'), time]);
    expect([both.state, both.rest?.what, both.takenH]).toEqual(['waiting', 'puller', 1.5]);
    expect(both.leftH).toBeGreaterThan(one.leftH * 1.8);
  });

  it('a job whose unit is none of its kind has no state; the open build says why', () => {
    const build = planned(({ axles }) => {
      if (axles.rear?.work) axles.rear.work.job = 'insert';
    });
    expect(boardWork(build, [])).toEqual(jasmine.objectContaining({ state: 'open', of: 0 }));
    const stop = deriveBuild(build, []).findings.find(
      ({ verdict, place }) => verdict === 'stop' && place.tab === 'facts',
    );
    expect(stop?.say('metric').detail).toContain('needs a unit of that kind');
  });

  it('every state has its place in the order', () => {
    expect(new Set(BOARD_STATES).size).toBe(BOARD_STATES.length);
  });
});

describe('what may fail elsewhere too', () => {
  it('is named by kind: axle, carrier, set, unit, bolts with their length, shafts, parts', () => {
    const build = planned(({ axles }) => {
      const axle = axles.rear;
      if (!axle) return;
      axle.identity = {
        ...newAxleSpec('Heron', 'integral-head-shim', 'measured'),
        ringBolts: { value: { thread: '7/16-20', count: 10, hand: 'left' }, origin: 'measured' },
      };
      axle.carrier = '4 series';
      axle.joint = { ...newJoint(), grade: '8', underHead: entryOf(1.1, 'in') };
      axle.shafts = newShafts(31);
      axle.work?.parts.push({
        id: 'p',
        name: 'Set',
        count: 1,
        state: 'here',
        supplier: '',
        price: null,
        promised: null,
        number: 'HX 12',
      });
    });
    expect(facetsOf(build)).toEqual([
      'axle: Heron',
      'carrier: Heron, 4 series',
      'gear set: Heron, 41/10',
      'unit: open',
      'ring bolts: 7/16-20 8, 27.9 mm',
      'shafts: 31 splines, unknown',
      'part: HX 12',
    ]);
  });

  it('is never longer than what is asked for, and said once', () => {
    const build = planned(({ axles }) => {
      for (let i = 0; i < 3; i++)
        axles.rear?.work?.parts.push({
          id: `p${i}`,
          name: 'Set',
          count: 1,
          state: 'here',
          supplier: '',
          price: null,
          promised: null,
          number: 'x'.repeat(120),
        });
    });
    const parts = facetsOf(build).filter((facet) => facet.startsWith('part'));
    expect(parts.length).toBe(1);
    for (const facet of facetsOf(build)) expect(facet.length).toBeLessThanOrEqual(160);
  });
});

describe('a build with work', () => {
  it('goes through its file unchanged, and what is wrong is refused by its field', () => {
    const build = planned(({ axles }) => {
      if (!axles.rear) return;
      axles.rear.joint = newJoint();
      axles.rear.shafts = newShafts();
    });
    const file = (one: unknown) => ({ format: 'hot-spline/build-file', formatVersion: 6, build: one, ledger: [] });
    expect(readBuildFile(JSON.parse(JSON.stringify(file(build)))).build).toEqual(build);
    // eslint-disable-next-line @typescript-eslint/no-explicit-any -- broken on purpose
    const broken: [string, (work: any, axle: any) => void][] = [
      ['job', (work) => (work.job = 'polish')],
      ['skipped', (work) => (work.skipped = [{ id: 'brief', why: '' }])],
      [
        'skipped',
        (work) =>
          (work.skipped = [
            { id: 'a', why: 'x' },
            { id: 'a', why: 'y' },
          ]),
      ],
      [
        'parts',
        (work) =>
          (work.parts = [
            { id: 'p', name: 'P', count: -1, state: 'here', supplier: '', price: null, promised: null, number: '' },
          ]),
      ],
      [
        'parts',
        (work) =>
          (work.parts = [
            { id: 'p', name: 'P', count: 1, state: 'here', supplier: '', price: null, promised: '24.12.', number: '' },
          ]),
      ],
      ['tools', (work) => (work.tools = [{ id: 'magic', state: 'here', with: '', pattern: '' }])],
      ['trays', (work) => (work.trays = [{ id: 't', part: 'x', side: 'up', facing: '', out: 1, back: 0 }])],
      ['hold', (work) => (work.hold = { for: 'rain', why: 'x', since: '2026-11-26' })],
      ['cuts', (work) => (work.cuts = [{ id: 'c', where: '', amount: null, by: '', on: '2026-11-26' }])],
      ['runIn', (work) => (work.runIn.races = 1.5)],
      ['joint', (_, axle) => (axle.joint.stages = [])],
      ['joint', (_, axle) => (axle.joint.stages = [0, 100])],
      ['shafts', (_, axle) => (axle.shafts.left.splines = 2)],
      ['shafts', (_, axle) => (axle.shafts.prop = { outer: 3 })],
    ];
    for (const [field, change] of broken) {
      const copy = structuredClone(build);
      change(copy.axles.rear?.work, copy.axles.rear);
      expect(() => readBuildFile(file(copy)))
        .withContext(field)
        .toThrowError(new RegExp(field));
    }
  });
});
