import { entryBase } from '@hot-spline/core';
import { AXLES, type AxleName } from '../base/names';
import type { Axle } from '../frame/document';
import { defineCapability } from '../frame/capability';
import { fact } from '../frame/finding';
import { readingBase, type InForce, type Readings } from '../frame/readings';
import { stepDone } from '../plan/readings';
import { runInFigures } from './ids';
import {
  runInSubjects,
  tripDistance,
  tripKind,
  tripNoise,
  tripSound,
  tripTemperature,
  type SOUNDS,
  type TRIP_KINDS,
} from './readings';
import * as words from './words';
import { runInSteps } from './steps';

/** One time out, or one look at it. */
export interface Trip {
  readonly number: number;
  readonly kind: (typeof TRIP_KINDS)[number];
  readonly at: string;
  readonly metres: number | null;
  readonly celsius: number | null;
  /** As chosen; null where nobody said. */
  readonly sound: (typeof SOUNDS)[number] | null;
  /** A free note beside it, which decides nothing. */
  readonly noise: string | null;
  readonly reading: InForce;
}

/** Since the last recheck, and in all. */
export interface RunInState {
  readonly trips: readonly Trip[];
  readonly metres: number;
  readonly cycles: number;
  readonly races: number;
  readonly since: { readonly metres: number; readonly cycles: number; readonly races: number };
  /** Why it is to be looked at now; empty where it is not. */
  readonly due: readonly ('date' | 'distance' | 'heat cycles' | 'races')[];
  /** Its run-in is over: what its school asks for is driven. */
  readonly over: boolean;
  /** Seals that this job renewed, with the day: looked at after the first drive. */
  readonly renewed: readonly { readonly name: string; readonly on: string }[];
  /** Whether somebody has looked at them since they were renewed and driven: an earlier look says nothing of them. */
  readonly sealsSeen: boolean;
  /** Too hot on the last trip. */
  readonly hot: boolean;
  /** The trip on which it was last said how it sounds, where it was not quiet: a quiet one after it ends it. */
  readonly loud: Trip | null;
}

/** Seals of a job: what is bought, and the step that puts it in. */
const SEALS = [
  { part: 'shaft-seals', step: 'shafts-in', name: 'shaft seals' },
  { part: 'pinion-seal', step: 'seal-flange', name: 'pinion seal' },
  { part: 'seals', step: 'inner-seals', name: 'inner seals' },
] as const;

/**
 * How an axle was run in.
 * @param today the day as YYYY-MM-DD, for what falls due by a day; without it nothing does
 */
export function runInState(
  name: AxleName,
  { work }: Axle,
  readings: Readings,
  today: string | null = null,
): RunInState | null {
  if (!work) return null;
  const trips: Trip[] = [];
  for (const reading of readings.values()) {
    const of = tripKind.read(reading.subject);
    if (of?.axle !== name || reading.value.of !== 'choice') continue;
    const keys = { axle: name, trip: of.trip };
    const base = (key: string): number | null => {
      const found = readings.get(key);
      return found ? readingBase(found) : null;
    };
    const [noise, sound] = [tripNoise, tripSound].map(({ key }) => readings.get(key(keys))?.value);
    trips.push({
      number: Number(of.trip),
      kind: reading.value.choice as Trip['kind'],
      at: reading.at,
      metres: base(tripDistance.key(keys)),
      celsius: base(tripTemperature.key(keys)),
      sound: sound?.of === 'choice' ? (sound.choice as Trip['sound']) : null,
      noise: noise?.of === 'text' ? noise.text : null,
      reading,
    });
  }
  trips.sort((a, b) => a.number - b.number);
  const count = (of: readonly Trip[]) => ({
    metres: of.reduce((sum, { metres }) => sum + (metres ?? 0), 0),
    cycles: of.filter(({ kind }) => kind === 'heat cycle').length,
    races: of.filter(({ kind }) => kind === 'race').length,
  });
  const all = count(trips);
  const since = count(trips.slice(trips.findLastIndex(({ kind }) => kind === 'recheck') + 1));
  const { distance, races, cycles, alarm, school } = work.runIn;
  const metres = entryBase(distance);
  const due: RunInState['due'][number][] = [];
  // The first look is after the run-in; from then on by races and distance.
  if (cycles > 0 && all.cycles === since.cycles && since.cycles >= cycles) due.push('heat cycles');
  if (metres > 0 && since.metres >= metres) due.push('distance');
  if (races > 0 && since.races >= races) due.push('races');
  const { on } = work.runIn;
  const looked = trips.some(({ kind, at }) => kind === 'recheck' && on !== null && at.slice(0, 10) >= on);
  if (on !== null && today !== null && today >= on && !looked) due.push('date');
  const last = trips.at(-1);
  const heard = trips.findLast(({ sound }) => sound !== null);
  const renewed = SEALS.flatMap(({ part, step, name: called }) => {
    const done = readings.get(stepDone.key({ axle: name, step }));
    const here = work.parts.some(({ id, state: is }) => id === part && is === 'here');
    if (!here || done?.value.of !== 'choice' || done.value.choice !== 'done') return [];
    return [{ name: called, on: done.at.slice(0, 10), seq: done.seq }];
  });
  const fitted = Math.max(-1, ...renewed.map(({ seq }) => seq));
  const after = trips.filter(({ reading }) => reading.seq > fitted);
  const upToLook = after.slice(0, after.findLastIndex(({ kind }) => kind === 'recheck') + 1);
  return {
    trips,
    ...all,
    since,
    due,
    over: school === 'heat-cycles' ? all.cycles >= Math.max(1, cycles) : all.metres >= metres && trips.length > 0,
    renewed: renewed.map(({ name: called, on: day }) => ({ name: called, on: day })),
    sealsSeen: upToLook.some(({ kind, metres: driven }) => kind !== 'recheck' || (driven ?? 0) > 0),
    loud: heard !== undefined && heard.sound !== 'none' ? heard : null,
    hot: last !== undefined && last.celsius !== null && last.celsius >= entryBase(alarm),
  };
}

export type RunIns = Partial<Record<AxleName, RunInState>>;

/** What an axle was run in with, and when it is looked at again. */
export const runin = defineCapability({
  name: 'runin',
  needs: [],
  figures: runInFigures,
  subjects: runInSubjects,
  work: { steps: runInSteps },
  place: { sheet: 'close', tab: 'run-in', field: 'trip-distance' },
  station: 'final',
  inputs: ({ build, readings, today }) => ({ rear: build.axles.rear, front: build.axles.front, readings, today }),
  derive: ({ readings, today, ...axles }, d): RunIns => {
    const all: RunIns = {};
    for (const name of AXLES) {
      const axle = axles[name];
      const state = axle && runInState(name, axle, readings, today);
      if (!state || !axle.work) continue;
      all[name] = state;
      if (state.trips.length === 0 && state.due.length === 0) continue;
      const common = { station: 'final', figures: [] } as const;
      const at = (field: string) => ({ sheet: 'close', tab: 'run-in', axle: name, field: `${field}-${name}` });
      d.figure({
        id: runInFigures.distance(name),
        label: 'Run in so far',
        value: state.metres,
        quantity: 'distance',
        scale: 'trip',
        rests: 'measured',
      });
      if (state.hot)
        d.finding({
          ...common,
          id: `runin.${name}.hot`,
          verdict: 'stop',
          place: at('trip-temperature'),
          rule: 'oil temperature with an alarm: 110 °C unless another is said (ours)',
          facts: {
            axle: name,
            was: fact(state.trips.at(-1)?.celsius ?? 0, 'temperature'),
            alarm: fact(entryBase(axle.work.runIn.alarm), 'temperature'),
          },
          say: words.hot,
        });
      d.finding({
        ...common,
        id: `runin.${name}.due`,
        verdict: state.due.length > 0 ? 'watch' : state.over ? 'fits' : 'not-yet',
        place: at('trip-kind'),
        rule: 'rechecks fall due by a day, races, distance or heat cycles (common practice); 4 races, 400 km, 2 cycles unless others are said (ours)',
        facts: {
          axle: name,
          due: state.due.join(', '),
          over: state.over,
          distance: fact(state.metres, 'distance', 'trip'),
          cycles: fact(state.cycles, 'count'),
          races: fact(state.races, 'count'),
        },
        say: words.due,
      });
      if (state.renewed.length > 0)
        d.finding({
          ...common,
          id: `runin.${name}.seals`,
          verdict: state.sealsSeen ? 'fits' : 'not-yet',
          place: at('trip-kind'),
          rule: 'a seal that was renewed shortly before leaks again: its day is kept, and it is looked at after the first drive (common practice)',
          facts: {
            axle: name,
            seals: state.renewed.map((one) => `${one.name}, ${one.on}`).join('; '),
            seen: state.sealsSeen,
          },
          say: words.seals,
        });
      const { loud } = state;
      if (loud)
        d.finding({
          ...common,
          id: `runin.${name}.noise`,
          verdict: 'stop',
          place: at('trip-sound'),
          rule: 'a rising whine that is driven on costs race, bearings and gears (common practice)',
          facts: { axle: name, sound: loud.sound ?? '', trip: fact(loud.number, 'count') },
          say: words.noise,
        });
    }
    return all;
  },
});
