import { entryBase, say, type Entry, type UnitSystem } from '@hot-spline/core';
import { capital } from '../base/names';
import type { NumberFact, Words } from '../frame/finding';

/** Finishes that everybody calls by a name, metres [exact: a foot is 0.3048 m]. */
const FINISHES = [
  [201.168, '⅛ mile'],
  [402.336, '¼ mile'],
  [804.672, '½ mile'],
  [1609.344, '1 mile'],
] as const;

/** What a finish is called: by its name where it has one, whatever unit it was typed in, else as it was typed. */
export const finishName = (finish: Entry): string =>
  FINISHES.find(([metres]) => Math.abs(metres - entryBase(finish)) < 0.01)?.[1] ?? finish.typed;

/** The other axle would lift before the tyres let go. */
export const wheelstand = (f: { lifts: string; most: NumberFact; height: NumberFact }, system: UnitSystem): Words => ({
  title: `${capital(f.lifts)} wheels would lift at the launch`,
  detail: `Weight, not grip, is the limit: ${f.most.value.toFixed(2)} g at best with the centre of gravity ${say(f.height.value, 'length', system)} up. A wheelie bar, a lower or more forward weight, or less torque.`,
});

/** The clutch slips at the launch. */
export const clutch = (f: { capacity: NumberFact; torque: NumberFact }, system: UnitSystem): Words => ({
  title: 'The clutch is the limit of the launch',
  detail: `It holds ${say(f.capacity.value, 'torque', system, 0)} where the engine makes ${say(f.torque.value, 'torque', system, 0)} at the launch speed: it slips.`,
});

/** Heat in the converter on the climb of the brief. */
export const heat = (
  f: {
    holds: boolean;
    heat: NumberFact;
    speedRatio: NumberFact;
    coupled: boolean;
    before?: NumberFact;
    beforeFinal: string;
  },
  system: UnitSystem,
): Words => {
  const kW = (one: NumberFact): string => say(one.value, 'power', system, 1);
  const oil = system === 'inch' ? '230 °F in the oil is an alarm (ours)' : '110 °C in the oil is an alarm (ours)';
  if (!f.holds)
    return {
      title: 'The engine can’t hold this climb',
      detail: 'Full torque is not enough at that speed in that gear: it slows down, and the converter gets hotter.',
    };
  const against = f.before
    ? ` With ${f.beforeFinal} it was ${kW(f.before)}.`
    : ' Say in the brief what was in it before, to compare.';
  return {
    title: `${kW(f.heat)} of heat in the converter on the climb`,
    detail: `Speed ratio ${f.speedRatio.value.toFixed(2)}${f.coupled ? ', coupled' : ', it slips'}.${against} ${oil}: read the oil.`,
  };
};

/** Why no run can be worked out. */
export const refused = (f: { error: string; allowed: string }): Words => ({
  title: 'The run can’t be worked out',
  detail: `${f.error} ${capital(f.allowed)}.`,
});
