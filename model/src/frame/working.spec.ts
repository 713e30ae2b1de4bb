import { coursePace, type Course, type Vehicle } from '@hot-spline/core';
import { calculations } from '../assembly/calculations';

interface Shown {
  readonly result: { readonly value: number };
  readonly steps: readonly { readonly label: string; readonly value: number }[];
  readonly sensitivity: readonly { readonly key: string }[];
}

/** Runs a calculation with its working; `change` is laid over its example. */
function shown(name: string, change: Record<string, unknown> = {}) {
  const example = calculations.get(name).example as Record<string, unknown>;
  const input = { ...example, ...change };
  const output = calculations.run(name, input, true);
  return { input, output, working: output['working'] as Shown };
}

/** A working is worked out from its inputs again: it must come to what the calculation itself gave. */
describe('workings that are worked out again', () => {
  it('road.run: the time, also with a shift speed of the builder’s own', () => {
    const plain = shown('road.run');
    expect(plain.working.result.value).toBe(plain.output['timeS'] as number);
    const early = shown('road.run', { shiftRpm: 5000 });
    expect(early.working.result.value).toBe(early.output['timeS'] as number);
    expect(early.output['timeS'] as number).toBeGreaterThan(plain.output['timeS'] as number);
  });

  it('road.search: the course time of the best set, and what it gains', () => {
    const { input, output, working } = shown('road.search');
    const [best] = output['best'] as {
      final: { ring: number; pinion: number };
      pairs: { driver: number; driven: number }[];
      timeS: number;
    }[];
    const vehicle = input['vehicle'] as Vehicle;
    const course = { fastestMps: null, ...(input['course'] as object) } as Course;
    const driven = {
      ...vehicle,
      gears: (best?.pairs ?? []).map((pair) => pair.driven / pair.driver),
      finalRatio: (best?.final.ring ?? 0) / (best?.final.pinion ?? 1),
    };
    const timeS = coursePace(driven, course).timeS;
    expect(best?.timeS).toBeCloseTo(timeS, 6);
    expect(working.result.value).toBeCloseTo(timeS, 6);
    expect(output['presentS']).toBeCloseTo(coursePace(vehicle, course).timeS, 9);
    expect(output['gainS'] as number).toBeCloseTo((output['presentS'] as number) - (best?.timeS ?? 0), 9);
    expect(output['provenBest']).toBeTrue();
    expect(output['boundS'] as number).toBeLessThanOrEqual((best?.timeS ?? 0) + 1e-9);
  });

  it('gearing.find: the run of the first, which is the score by time', () => {
    const { output, working } = shown('gearing.find');
    const [first, second] = output['ranking'] as { score: number; ratio: number; figures: { timeS: number } }[];
    expect(working.result.value).toBeCloseTo(first?.figures.timeS ?? 0, 9);
    expect(first?.score).toBeCloseTo(first?.figures.timeS ?? 0, 9);
    expect(second?.score).toBeGreaterThanOrEqual(first?.score ?? Infinity);
  });

  it('pack.sure: the nominal breakaway', () => {
    const { output, working } = shown('pack.sure');
    const { nominal } = output['breakaway'] as { nominal: number };
    expect(working.result.value).toBeCloseTo(nominal, 9);
  });

  it('pack.sure: the same seed draws the same, another one does not', () => {
    const [a, b, c] = [1, 1, 2].map((seed) => {
      const { output } = shown('pack.sure', { seed });
      return JSON.stringify(output['breakaway']);
    });
    expect(a).toBe(b);
    expect(a).not.toBe(c);
  });

  it('unit.compare: the thrust of the first unit, and one step for each', () => {
    const { output, working } = shown('unit.compare');
    const results = output['results'] as { type: string; thrustN: number }[];
    expect(working.result.value).toBe(results[0]?.thrustN ?? Number.NaN);
    expect(working.steps.map(({ label, value }) => [label, value])).toEqual(
      results.map(({ type, thrustN }) => [type, thrustN]),
    );
  });

  it('each says what it depends on most', () => {
    for (const name of ['road.run', 'road.search', 'gearing.find', 'pack.sure', 'unit.compare'])
      expect(shown(name).working.sensitivity.length).withContext(name).toBeGreaterThan(1);
  });
});
