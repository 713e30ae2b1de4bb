import { say, type UnitSystem } from '@hot-spline/core';
import { capital } from '../document/names';
import type { NumberFact, Words } from '../engine/finding';

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

/** Why no run can be worked out. */
export const refused = (f: { error: string; allowed: string }): Words => ({
  title: 'The run can’t be worked out',
  detail: `${f.error} ${capital(f.allowed)}.`,
});
