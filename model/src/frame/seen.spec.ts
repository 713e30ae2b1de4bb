import { seededRandom } from '@hot-spline/core';
import { BuildDeriver, type Derived } from '../assembly/derive';
import type { Build } from './document';
import type { Inputs } from './capability';
import type { LedgerEntry, Readings } from './readings';
import { watch } from './seen';
import { keptFiles, testId } from '../testing/builds';

/** All that a derived build shows, and how each figure explains itself. */
const shown = (derived: Derived): Readonly<Record<string, unknown>> => {
  const {
    figures,
    findings,
    main,
    point,
    gearing,
    axles,
    mesh,
    preload,
    gates,
    work,
    joint,
    shafts,
    inspect,
    runin,
    box,
  } = derived;
  return {
    figures: [...figures].map(([id, figure]) => [id, figure.value, figure.rests, figure.explain?.()]),
    findings: findings.map((one) => [one.id, one.verdict, one.rests, one.place, one.say('inch'), one.say('metric')]),
    results: { main, point, gearing, axles, mesh, preload, gates, work, joint, shafts, inspect, runin, box },
  };
};
const text = (derived: Derived): string =>
  JSON.stringify(shown(derived), (_key, value: unknown) => (value instanceof Map ? [...value] : value));

const random = seededRandom(25);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;

/** One number somewhere in a document a little other than it was; counts stay whole. */
function nudged<T>(of: T): T {
  const copy = structuredClone(of);
  const places: [Record<string, unknown>, string][] = [];
  const visit = (node: unknown): void => {
    if (typeof node !== 'object' || node === null) return;
    for (const [key, value] of Object.entries(node)) {
      if (typeof value === 'number' && key !== 'formatVersion') places.push([node as Record<string, unknown>, key]);
      else visit(value);
    }
  };
  visit(copy);
  if (places.length === 0) return of;
  const [node, key] = pick(places);
  const value = node[key] as number;
  node[key] = Number.isInteger(value) ? value + 1 : value * 1.01;
  return copy;
}

describe('what is looked at', () => {
  it('an edit is worked out as the whole build is, whatever is edited in whatever order (property)', () => {
    const others = Object.values(keptFiles());
    let again = 0;
    for (const { build: first, ledger: all } of others) {
      const deriver = new BuildDeriver(true);
      let [build, ledger] = [first as Build, all as readonly LedgerEntry[]];
      let point = build.startPoint;
      for (let n = 0; n < 14; n++) {
        const part = pick(Object.keys(build)) as keyof Build;
        const other = pick(others).build as Build;
        const edits: (() => void)[] = [
          () => (build = { ...build, [part]: nudged(build[part]) }),
          () => (build = { ...build, [part]: nudged(build[part]) }),
          () => (build = { ...build, name: `Bench ${n}` }),
          () => (build = { ...build, engine: other.engine }),
          () => (build = { ...build, road: other.road, assumed: other.assumed }),
          () => (point = { ...point, rpm: point.rpm + 50 }),
          () => (ledger = ledger.slice(0, Math.ceil(ledger.length * (0.5 + random() / 2)))),
          () => (ledger = all),
          () => {
            const reading = pick(ledger.filter(({ kind }) => kind === 'reading'));
            if (reading) ledger = [...ledger, { ...reading, id: testId() }];
          },
          () => {
            const { id: voids, at, who } = pick(ledger);
            ledger = [...ledger, { kind: 'void', id: testId(), at, who, voids, reason: 'misread' }];
          },
        ];
        pick(edits)();
        const looking = { point, today: '2026-11-25' };
        const now = deriver.derive(build, ledger, looking);
        const whole = new BuildDeriver(true).derive(build, ledger, looking);
        const same = text(now) === text(whole);
        if (!same) {
          const [a, b] = [shown(now), shown(whole)];
          for (const key of Object.keys(a))
            expect(JSON.stringify(a[key])).withContext(`${first.name}, ${n}`).toBe(JSON.stringify(b[key]));
        }
        expect(same).withContext(`${first.name}, edit ${n}`).toBeTrue();
        again++;
      }
    }
    expect(again).toBe(14 * others.length);
  });

  it('parts of the build that nobody looked at may change, and subjects that nobody asked for', () => {
    const build = { name: 'a', massKg: 1, engine: { limitRpm: 2 } } as unknown as Build;
    const readings: Readings = new Map();
    const inputs = { build, readings, today: null } as unknown as Inputs;
    const { inputs: given, same } = watch({ build, readings, today: null }, inputs);
    const seen = given as { build: { engine: unknown; name: string }; readings: Readings };
    expect(seen.build.engine).toBe((build as unknown as { engine: unknown }).engine);
    expect(seen.readings.get('a')).toBeUndefined();
    expect(same({ build: { ...build, name: 'b' }, readings, today: null })).toBeTrue();
    expect(same({ build: { ...build, engine: { limitRpm: 2 } }, readings, today: null })).toBeFalse();
    expect(same({ build, readings: new Map([['b', {}]]), today: null })).toBeTrue();
    expect(same({ build, readings: new Map([['a', {}]]), today: null })).toBeFalse();
    expect(same({ build, readings, today: '2026-12-01' })).toBeFalse();
    expect(same({ build, readings })).toBeFalse();
    // whoever goes through all of it has looked at all of it
    expect([...seen.readings.values()].length).toBe(0);
    expect(same({ build, readings: new Map([['b', {}]]), today: null })).toBeFalse();
    expect(Object.keys(seen.build).length).toBe(3);
    expect(same({ build: { ...build, name: 'b' }, readings, today: null })).toBeFalse();
  });
});
