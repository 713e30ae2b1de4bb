import { say, saySmall, type UnitSystem } from '@hot-spline/core';
import { capital } from '../base/names';
import type { NumberFact, Words } from '../frame/finding';

type N = NumberFact;
const nm = (fact: N, system: UnitSystem): string => say(fact.value, 'torque', system, 0, 'bolt');
const rpm = (fact: N): string => `${Math.round(fact.value)} rpm`;

export const torsion = (
  f: { axle: string; side: string; margin: N; torque: N; by: string; all: boolean; fatigue: boolean; known: boolean },
  system: UnitSystem,
): Words => ({
  title: `${capital(f.axle)} ${f.side} shaft holds ${f.margin.value.toFixed(2)} × what reaches it`,
  detail: [
    `${nm(f.torque, system)}, as far as the ${f.by} goes${f.all ? '; this unit can give one side all of it' : ''}.`,
    f.known ? '' : 'Its steel is not known: the weaker one is reckoned with.',
    f.fatigue ? 'Used so, what holds once does not hold for ever: look at its splines for twist.' : '',
  ]
    .filter(Boolean)
    .join(' '),
});

export const critical = (f: { axle: string; fastest: N; usable: N; critical: N }): Words => ({
  title:
    f.fastest.value <= f.usable.value
      ? `${capital(f.axle)} prop shaft stays below three quarters of its critical speed`
      : `${capital(f.axle)} prop shaft turns ${rpm(f.fastest)}, usable to ${rpm(f.usable)}`,
  detail: `Critical at ${rpm(f.critical)}; ${rpm(f.fastest)} at the limiter in the tallest gear. Larger tube, shorter, or two pieces raise it.`,
});

export const link = (
  f: { axle: string; what: string; margin: N; torque: N; known: boolean },
  system: UnitSystem,
): Words => ({
  title: `${capital(f.axle)} ${f.what} holds ${f.margin.value.toFixed(2)} × what reaches it`,
  detail: `${nm(f.torque, system)} at most, with its shock.${f.known ? '' : ' Its steel is not known: the weaker one is reckoned with.'}`,
});

export const angles = (f: { axle: string; swing: N; between: N; product: N; inPhase: boolean }): Words => ({
  title: `${capital(f.axle)} prop shaft leaves a swing of ${Math.round(f.swing.value)} rad/s²`,
  detail: `${f.inPhase ? 'Equal angles take each other’s swing away' : 'With the yokes out of phase both angles add'}; between the joints it is ${Math.round(f.between.value)} rad/s². About 400 is comfortable, 1000 the end; ${Math.round(f.product.value)} rpm × degrees at the larger angle, about 17 000 at most.`,
});

export const engaged = (f: { axle: string; side: string; engaged: N; asked: N }, system: UnitSystem): Words => ({
  title: `${capital(f.axle)} ${f.side} shaft: ${say(f.engaged.value, 'length', system)} of spline at full travel`,
  detail: `At least one diameter, ${say(f.asked.value, 'length', system)}, is asked for: a guard of ours.`,
});

export const float = (
  f: { axle: string; side: string; measured: N; low: N; high: N; by: N; way: string },
  system: UnitSystem,
): Words => {
  const text = (one: N): string => saySmall(one.value, system);
  return {
    title: `${capital(f.axle)} ${f.side} shaft: ${text(f.measured)} of end float`,
    detail: `The sheet says ${text(f.low)} to ${text(f.high)}.${f.way === '' ? '' : ` A shim ${text(f.by)} ${f.way} brings it to the middle.`}`,
  };
};

export const pin = (f: { axle: string; side: string; gap: N }, system: UnitSystem): Words => ({
  title: `${capital(f.axle)} ${f.side} shaft: ${say(f.gap.value, 'length', system)} to pin or block`,
  detail: 'It must not touch when the shaft is pushed in; a shortened shaft keeps the gap of the original.',
});
