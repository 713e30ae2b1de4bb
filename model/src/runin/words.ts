import { say, type UnitSystem } from '@hot-spline/core';
import { capital } from '../base/names';
import type { NumberFact, Words } from '../frame/finding';

type N = NumberFact;

export const hot = (f: { axle: string; was: N; alarm: N }, system: UnitSystem): Words => ({
  title: `${capital(f.axle)} oil at ${say(f.was.value, 'temperature', system, 0)} on the last trip`,
  detail: `Its alarm is ${say(f.alarm.value, 'temperature', system, 0)}: let it cool fully, look for why before the next one.`,
});

export function due(
  f: { axle: string; due: string; over: boolean; distance: N; cycles: N; races: N },
  system: UnitSystem,
): Words {
  const driven = [
    say(f.distance.value, 'distance', system, 0, 'trip'),
    ...(f.cycles.value > 0 ? [`${f.cycles.value} heat cycles`] : []),
    ...(f.races.value > 0 ? [`${f.races.value} races`] : []),
  ].join(', ');
  const name = capital(f.axle);
  if (f.due !== '')
    return {
      title: `${name} axle to be looked at now, by ${f.due}`,
      detail: `${driven} so far: witness marks, leaks, noise, oil.`,
    };
  return f.over
    ? { title: `${name} axle is run in`, detail: `${driven}.` }
    : { title: `${name} axle is being run in`, detail: `${driven} so far.` };
}

export const seals = (f: { axle: string; seals: string; seen: boolean }): Words => ({
  title: f.seen
    ? `${capital(f.axle)} axle: its new seals were looked at`
    : `${capital(f.axle)} axle: look at the new seals after this drive`,
  detail: `Renewed: ${f.seals}. One that leaks again was cut going in, or its shaft is worn where it runs.`,
});

export const noise = (f: { axle: string; sound: string; trip: N }): Words => ({
  title: `${capital(f.axle)} axle: ${f.sound} on trip ${f.trip.value}`,
  detail: 'Stop driving it, and look inside: teeth and bearings first.',
});
