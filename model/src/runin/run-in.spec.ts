import { entryOf } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import type { Reading } from '../frame/readings';
import { newWork } from '../plan/new-work';
import type { Work } from '../plan/schema';
import { done, entry, jobOf, look } from '../testing/bench';
import { tripDistance, tripKind, tripNoise, tripSound, tripTemperature } from './readings';

describe('run in', () => {
  const trip = (
    n: number,
    kind: string,
    metres?: number,
    celsius?: number,
    sound?: string,
    note?: string,
  ): Reading[] => {
    const of = { axle: 'rear' as const, trip: String(n) };
    const number = (subject: Reading['subject'], value: number, unit: 'metre' | '°C') =>
      entry(subject, { of: 'number', counts: 'one', entries: [entryOf(value, unit)] });
    return [
      entry(tripKind.of(of), { of: 'choice', choice: kind }),
      ...(metres === undefined ? [] : [number(tripDistance.of(of), metres, 'metre')]),
      ...(celsius === undefined ? [] : [number(tripTemperature.of(of), celsius, '°C')]),
      ...(sound === undefined ? [] : [entry(tripSound.of(of), { of: 'choice', choice: sound })]),
      ...(note === undefined ? [] : [entry(tripNoise.of(of), { of: 'text', text: note })]),
    ];
  };
  const build = jobOf('overhaul', (axle) => {
    const work = newWork('overhaul', 'plain');
    axle.work = {
      ...work,
      runIn: { ...work.runIn, school: 'heat-cycles', cycles: 3, races: 6, distance: entryOf(500, 'km') },
    };
  });
  const due = (trips: readonly Reading[]) => look(build, trips).derived.runin.rear?.due;

  // Six races, three heat cycles, 300 to 500 miles: common practice, no published source.
  it('is looked at again after its cycles, its races, its distance; a recheck counts them anew', () => {
    const cycles = [1, 2, 3].flatMap((n) => trip(n, 'heat cycle', 20_000));
    expect(due(cycles.slice(0, -2))).toEqual([]);
    expect(due(cycles)).toEqual(['heat cycles']);
    const looked = [...cycles, ...trip(4, 'recheck')];
    expect(due(looked)).toEqual([]);
    const races = [5, 6, 7, 8, 9, 10].flatMap((n) => trip(n, 'race', 30_000));
    expect(due([...looked, ...races])).toEqual(['races']);
    expect(due([...looked, ...races, ...trip(11, 'trip', 400_000)])).toEqual(['distance', 'races']);
    expect(look(build, looked).derived.runin.rear?.over).toBeTrue();
  });

  it('falls due by a day as well, until it was looked at from that day on', () => {
    const dated = structuredClone(build);
    const runIn = dated.axles.rear?.work?.runIn;
    if (!runIn) throw new Error('no work');
    runIn.on = '2026-11-26';
    expect(look(dated).finding('runin.rear.due')?.verdict).toBe('watch');
    expect(look(dated).finding('runin.rear.due')?.say('metric').title).toContain('by date');
    runIn.on = '2026-11-27';
    expect(look(dated).finding('runin.rear.due')).toBeUndefined();
    runIn.on = '2026-11-20';
    const on = (day: string) => trip(1, 'recheck').map((one) => ({ ...one, at: `2026-11-${day}T08:00:00.000Z` }));
    expect(look(dated, on('19')).derived.runin.rear?.due).toEqual(['date']);
    expect(look(dated, on('20')).derived.runin.rear?.due).toEqual([]);
    // Without a clock nothing falls due by a day.
    expect(deriveBuild(dated, []).runin.rear?.due).toEqual([]);
  });

  it('too hot is a stop', () => {
    expect(look(build, trip(1, 'trip', 1000, 110)).finding('runin.rear.hot')?.verdict).toBe('stop');
    expect(look(build, trip(1, 'trip', 1000, 90)).finding('runin.rear.hot')).toBeUndefined();
  });

  it('a sound is a choice: what is written beside it decides nothing, and a quiet trip ends it', () => {
    const noise = (...trips: Reading[][]) => look(build, trips.flat()).finding('runin.rear.noise');
    const whines = trip(1, 'trip', 1000, 90, 'whine on overrun');
    expect(noise(whines)?.verdict).toBe('stop');
    expect(noise(whines)?.say('metric').title).toContain('whine on overrun on trip 1');
    // Words are never searched: “no whine” is no whine.
    expect(noise(trip(1, 'trip', 1000, 90, 'none', 'no whine any more'))).toBeUndefined();
    expect(noise(trip(1, 'trip', 1000, 90, undefined, 'no whine, no rumble'))).toBeUndefined();
    // A trip of which nobody said how it sounded ends nothing; a quiet one does.
    expect(noise(whines, trip(2, 'trip', 1000, 90))?.verdict).toBe('stop');
    expect(noise(whines, trip(2, 'trip', 1000, 90, 'none'))).toBeUndefined();
    expect(noise(whines, trip(2, 'trip', 1000, 90, 'none'), trip(3, 'trip', 1000, 90, 'knock'))?.verdict).toBe('stop');
  });

  // An axle seal leaks although it was renewed shortly before: its day is kept, and looked at (common practice).
  it('seals that were renewed are looked at after the first drive, with their day', () => {
    const here = (id: string): Work['parts'][number] => ({
      ...{ id, name: id, count: 1, state: 'here' as const },
      ...{ supplier: '', price: null, promised: null, number: '' },
    });
    const build = jobOf('ratio-swap', (axle) => {
      axle.work = { ...newWork('ratio-swap', 'plain'), parts: [here('shaft-seals'), here('pinion-seal')] };
    });
    const fitted = { ...done('shafts-in'), at: '2026-11-12T15:00:00.000Z' };
    expect(look(build, [fitted]).finding('runin.rear.seals')).toBeUndefined();
    const driven = look(build, [fitted, ...trip(1, 'trip', 1000)]).finding('runin.rear.seals');
    expect(driven?.verdict).toBe('not-yet');
    // The pinion’s seal is here, but its step is not done.
    expect(driven?.say('metric').detail).toContain('Renewed: shaft seals, 2026-11-12.');
    const seen = look(build, [fitted, ...trip(1, 'trip', 1000), ...trip(2, 'recheck')]).finding('runin.rear.seals');
    expect(seen?.verdict).toBe('fits');
    // Looked at before they were renewed, or before it was driven on them: that says nothing of them.
    const seals = (...ledger: Reading[]) => look(build, ledger).finding('runin.rear.seals')?.verdict;
    const [driven1, looked2, driven3, looked4] = [
      trip(1, 'trip', 1000),
      trip(2, 'recheck'),
      trip(3, 'trip', 1000),
      trip(4, 'recheck'),
    ];
    expect(seals(...driven1, ...looked2, fitted, ...driven3)).toBe('not-yet');
    expect(seals(...driven1, fitted, ...looked2)).toBe('not-yet');
    expect(seals(...driven1, ...looked2, fitted, ...driven3, ...looked4)).toBe('fits');
    expect(seals(fitted, ...trip(1, 'recheck', 1000))).toBe('fits');
    expect(look(build, trip(1, 'trip', 1000)).finding('runin.rear.seals')).toBeUndefined();
  });
});
