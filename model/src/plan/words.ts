import { say, type UnitSystem } from '@hot-spline/core';
import { capital, sentence } from '../base/names';
import type { NumberFact, Words } from '../frame/finding';

type N = NumberFact;

export const begun = (f: { axle: string; next: string; done: N; of: N; left: N }, system: UnitSystem): Words => ({
  title:
    f.next !== ''
      ? `${capital(f.axle)}: next, ${lower(f.next)}`
      : f.done.value < f.of.value
        ? `${capital(f.axle)}: nothing is left, ${f.of.value - f.done.value} steps were passed`
        : `${capital(f.axle)}: every step is done`,
  detail: `${f.done.value} of ${f.of.value} steps done.${
    f.left.value > 0 ? ` About ${hours(f.left, system)} with hands on it are left.` : ''
  }`,
});

const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
const hours = ({ value }: N, system: UnitSystem): string =>
  value < 5400 ? say(value, 'time', system, 0, 'work') : `${Math.round(value / 360) / 10} h`;

export const waits = (f: { axle: string; step: string; what: string }): Words => ({
  title: `${capital(f.axle)}: ${lower(f.step)} has to wait`,
  detail: `${f.what}.`,
});

export const order = (f: { axle: string; faults: string; count: N }): Words => ({
  title: `${capital(f.axle)}: the order of work does not go`,
  detail: f.faults,
});

export const hold = (f: { axle: string; for: string; why: string; since: string; until: string }): Words => ({
  title: `${capital(f.axle)} is on hold: ${f.for === 'machine-shop' ? 'machine shop' : f.for}`,
  detail: `${sentence(f.why)} Since ${f.since}${f.until === '' ? '' : `, until ${f.until}`}.`,
});

export const record = (f: {
  axle: string;
  step: string;
  label: string;
  said: string;
  against: string;
  fails: string;
}): Words => ({
  title: `${capital(f.axle)}: ${lower(f.label)} is ${f.said}`,
  detail: [f.against === '' ? '' : `Asked for: ${f.against}.`, f.fails].filter(Boolean).join(' '),
});

export const tools = (f: { axle: string; tools: string }): Words => ({
  title: `${capital(f.axle)}: a tool is not here`,
  detail: `${f.tools}. Said before the job starts; a job that is stopped for a tool costs a day.`,
});

export const pattern = (f: { axle: string; wrench: string; carrier: string }): Words => ({
  title: `${capital(f.axle)}: the adjuster wrench does not fit this carrier`,
  detail: `The carrier’s is “${f.carrier}”, the wrench’s “${f.wrench}”. With a chisel the holes break out one after another.`,
});

export const parts = (f: { axle: string; parts: string; last: string }): Words => ({
  title: `${capital(f.axle)}: parts are not all here`,
  detail: `${f.parts}.${f.last === '' ? '' : ` The last is promised for ${f.last}.`} All of them before it comes apart.`,
});

export const trays = (f: { axle: string; left: string }): Words => ({
  title: `${capital(f.axle)}: the trays are not empty`,
  detail: `Still out: ${f.left}. Parts out are parts in, before the cover.`,
});

export const debris = (f: { axle: string }): Words => ({
  title: `${capital(f.axle)}: a piece of a part was on the magnet`,
  detail: 'The unit comes apart, whatever else was planned.',
});

export const dry = (f: { axle: string }): Words => ({
  title: `${capital(f.axle)}: no oil in it yet`,
  detail: 'Its label says so. Oil before it turns under load.',
});

export const cuts = (f: { axle: string; where: string }): Words => ({
  title: `${capital(f.axle)}: the case was cut and not cleaned twice`,
  detail: `${f.where}. Chips end in the bearings.`,
});

export const compound = (f: { axle: string; step: string }): Words => ({
  title: `${capital(f.axle)}: compound is open`,
  detail: `In “${f.step}”: finished before it sets, or all of it cleaned off and begun again.`,
});

export const sealant = (f: { axle: string }): Words => ({
  title: `${capital(f.axle)}: sealant is on, and not closed`,
  detail: 'Close it when it has skinned, by the time on its tube; what has set is cleaned off and put on anew.',
});

export const leak = (f: { axle: string; loss: N; minutes: N }, system: UnitSystem): Words => ({
  title: `${capital(f.axle)} locker ${f.loss.value > 0 ? `loses ${say(f.loss.value, 'pressure', system)} a minute` : 'holds its pressure'}`,
  detail: `Over ${f.minutes.value} minutes. Our guard is 1 % a minute: the maker’s sheet wins.`,
});

export const retention = (f: { axle: string }): Words => ({
  title: `${capital(f.axle)}: nobody has said what holds the shafts`,
  detail: 'The order of work is made for c-clips. Say it on the axle.',
});

export const drawnOn = (f: { axle: string }): Words => ({
  title: `${capital(f.axle)}: the ring is drawn on, not heated`,
  detail:
    'Only with an oiled register, a few dry bolts crosswise in small steps and the gap watched; never with full torque on the bolts.',
});
