import { closedRatio, presetOf, type ClosedTurns, type ToothPair } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Axle, Build } from '../frame/document';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { readingBase, type InForce, type Readings } from '../frame/readings';
import { explainClosed } from '../gearing/closed';
import { identityFigures } from './ids';
import { TURNED, ratioTurns } from './readings';
import * as words from './words';

/** How well turns of a prop shaft are read by eye against a mark, ±; ours. */
export const TURNS_READ_TO = 0.25;
/** Tooth counts that are looked through; ours, wide enough for anything that is driven on a road. */
const TEETH = { pinionTeeth: [5, 18], ringTeeth: [25, 70] } as const;
const NAMED = 4;

/** What turns say of a closed axle. */
export interface Closed {
  readonly ratio: number;
  readonly errorRatio: number;
  /** Pairs inside the error: those that the axle is known to take first, then nearest first. */
  readonly pairs: readonly ToothPair[];
  readonly turns: Readonly<Record<(typeof TURNED)[number], number>>;
}

/** Turns as they were read, to what they are read to. */
const said = ({ prop, left, right }: Closed['turns']): ClosedTurns => ({
  propTurns: prop,
  leftTurns: left,
  rightTurns: right,
  propErrorTurns: TURNS_READ_TO,
  ...TEETH,
});

/** Turns as they were read, where all three were; null else. */
export function turnsOf(axle: AxleName, readings: Readings): readonly InForce[] | null {
  const read = TURNED.map((of) => readings.get(ratioTurns.key({ axle, of })));
  return read.every((one) => one !== undefined) ? read : null;
}

/**
 * The ratio of a closed axle by what was turned; null where it was not, or where the construction has no prop shaft of its own.
 * @throws InputError on `leftTurns` where the turns of the wheels cancel out, on `propTurns` where nothing was turned
 */
export function closedOf(name: AxleName, { axles }: Pick<Build, 'axles'>, readings: Readings): Closed | null {
  const identity = axles[name]?.identity;
  const construction = identity?.construction.value;
  const read = turnsOf(name, readings);
  if (!read || construction === 'electric-reduction' || construction === 'transaxle') return null;
  const [prop = 0, left = 0, right = 0] = read.map(readingBase);
  const turns = { prop, left, right };
  const { pairs, ...rest } = closedRatio(said(turns));
  const known = ({ ring, pinion }: ToothPair): boolean =>
    identity?.sets.some((one) => one.ring === ring && one.pinion === pinion) ?? false;
  return {
    ...rest,
    pairs: [...pairs.filter(known), ...pairs.filter((one) => !known(one))],
    turns,
  };
}

/** Whether the job puts another pair in: then the build names what is to go in, and the turns are of what comes out. */
const anotherPair = (work: Axle['work']): boolean =>
  work !== null && (work.facts.gears ?? presetOf(work.job, 'plate').gears) !== 'stay';

/** The ratio by turns as a figure, and how the build's own set stands to it; null where there is none. */
export function deriveClosed(name: AxleName, build: Build, readings: Readings, d: Derivation): Closed | null {
  return d.attempt({ sheet: 'brief', tab: 'axle', axle: name, field: `turns-left-${name}` }, 'final', () => {
    const closed = closedOf(name, build, readings);
    const own = build.axles[name]?.finalDrive;
    if (!closed || !own) return null;
    const { ratio, errorRatio, pairs, turns } = closed;
    d.figure({
      id: identityFigures.closed(name),
      label: 'Ratio by turns, closed',
      value: ratio,
      quantity: 'ratio',
      decimals: 2,
      rests: 'measured',
      explain: () => explainClosed(said(turns)),
    });
    const agrees = Math.abs(own.ring / own.pinion - ratio) <= errorRatio + 1e-9;
    const comesOut = anotherPair(build.axles[name]?.work ?? null);
    d.finding({
      id: `identity.closed.${name}`,
      // What comes out is no worse for being another than what goes in.
      verdict: agrees || (comesOut && pairs.length > 0) ? 'fits' : 'watch',
      place: { sheet: 'brief', tab: 'axle', axle: name, field: `turns-prop-${name}` },
      station: 'final',
      figures: [identityFigures.closed(name)],
      rule: 'the carrier turns at the mean of its wheels [exact]; turns read to a quarter (ours); the count when it is open confirms it',
      facts: {
        axle: name,
        ratio: fact(ratio, 'ratio'),
        error: fact(errorRatio, 'ratio'),
        own: `${own.ring}/${own.pinion}`,
        pairs: pairs
          .slice(0, NAMED)
          .map(({ ring, pinion }) => `${ring}/${pinion}`)
          .join(', '),
        more: fact(Math.max(0, pairs.length - NAMED), 'count'),
        agrees,
        comesOut,
      },
      say: words.closed,
    });
    return closed;
  });
}
