import { say, saySmall, type UnitSystem } from '@hot-spline/core';
import { capital } from '../base/names';
import type { Facts, NumberFact, Words } from '../frame/finding';
import type { flankPatternSchema } from '../frame/values';
import type * as z from 'zod';
import type { Trial } from './schema';

type F<K extends string, W extends string = never, B extends string = never> = Facts &
  Record<K, NumberFact> &
  Record<W, string> &
  Record<B, boolean>;

export type FlankPattern = z.output<typeof flankPatternSchema>;

/** What each state of a trial is called. */
export const TRIAL_WORDS: {
  readonly [K in keyof Trial]: { readonly label: string } & Readonly<Record<Trial[K], string>>;
} = {
  pinionBearings: { label: 'Pinion bearings', 'set-up': 'set-up', used: 'used', new: 'new' },
  spacer: { label: 'Spacer', none: 'none', old: 'old', new: 'new' },
  seal: { label: 'Seal', out: 'out', in: 'in' },
  nut: { label: 'Nut', old: 'old', new: 'new' },
  sideBearings: { label: 'Side bearings', 'set-up': 'set-up', used: 'used', new: 'new' },
  caps: { label: 'Caps', off: 'off', snug: 'snug', torqued: 'torqued' },
  sidePreload: { label: 'Side preload', none: 'none', part: 'part', full: 'full' },
  oil: { label: 'Bearings', dry: 'dry', oiled: 'oiled' },
  drag: { label: 'Drag for pattern', light: 'light', braked: 'braked' },
};

/** Where a patch lies, in shop words: `low and toward the toe`. */
export function patchWords({ u, v, edges, shape }: FlankPattern): string {
  if (shape === 'faint') return 'faint';
  if (shape === 'two-patches') return 'two patches';
  if (shape === 'crossed') return 'crossed';
  const much = (x: number): string => (Math.abs(x) > 0.55 ? 'far ' : Math.abs(x) > 0.3 ? '' : 'a little ');
  const tall = Math.abs(v) < 0.1 ? '' : `${much(v)}${v < 0 ? 'low' : 'high'}`;
  const long = Math.abs(u) < 0.12 ? '' : `${much(u)}toward the ${u < 0 ? 'toe' : 'heel'}`;
  const place = [tall, long].filter(Boolean).join(' and ');
  const off = edges.length > 0 ? `runs off the ${edges.join(' and ')}` : '';
  return [place || 'centred', off].filter(Boolean).join(', ');
}

export function notBegun(f: F<never, 'axle'>): Words {
  return {
    title: `${capital(f.axle)}: set-up not begun`,
    detail: 'Before anything is loosened: backlash, pattern and turning torque as they are, caps marked.',
  };
}

export function noConstruction(f: F<never, 'axle'>): Words {
  return {
    title: `${capital(f.axle)}: construction not said`,
    detail: 'The same shim moves parts in opposite directions in different axles: say which one this is.',
  };
}

export function noBand(): Words {
  return {
    title: 'No backlash band',
    detail: 'Type what the maker’s sheet says; without it nothing here can be judged.',
  };
}

export function noDirection(): Words {
  return {
    title: 'Which way does the shim move the pinion here?',
    detail:
      'On a box shaft it depends on where it lies: case face, shim, race: shallower; flange, shim, case face: deeper. No move is worked out before it is said.',
  };
}

export function weakBand(f: F<'low' | 'high', 'origin'>, system: UnitSystem): Words {
  return {
    title: `Backlash band is ${f.origin}`,
    detail: `${saySmall(f.low.value, system)} to ${saySmall(f.high.value, system)} plans the work. Confirm it from a sheet before final bearings are pressed or a spacer is crushed.`,
  };
}

export function backlashInBand(
  f: F<'mean' | 'least' | 'most' | 'low' | 'high', never, 'fits' | 'variation'>,
  system: UnitSystem,
): Words {
  const small = (fact: NumberFact): string => saySmall(fact.value, system);
  const band = `${small(f.low)} to ${small(f.high)}`;
  if (f.fits)
    return { title: 'Backlash in band all round', detail: `${small(f.least)} to ${small(f.most)}, band ${band}.` };
  const under = f.low.value - f.least.value;
  const over = f.most.value - f.high.value;
  const both = under > 1e-9 && over > 1e-9;
  const title = both
    ? 'Backlash out at both ends'
    : under > 0
      ? `Backlash ${saySmall(under, system)} under`
      : `Backlash ${saySmall(over, system)} over`;
  return {
    title,
    detail: `${small(f.least)} to ${small(f.most)} against ${band}. ${both ? 'No move of the ring brings all of it in: find the run-out first.' : 'What to change stands on Mesh, as one move.'}`,
  };
}

/** What is moved to change backlash by so much, in words of the construction. */
export function moveWords(
  towardsMm: number,
  by: string,
  ringSide: string,
  notchMm: number | null,
  acts: 'behind-cup' | 'under-flange',
  system: UnitSystem,
): string {
  const way = towardsMm > 0 ? 'toward the pinion' : 'away from the pinion';
  const size = saySmall(towardsMm, system);
  if (by === 'adjusters') {
    const tooth = ringSide === 'left' ? 'right' : 'left';
    const count = notchMm === null ? null : Math.round(Math.abs(towardsMm) / notchMm);
    const notches = count === null ? 'as many notches' : count === 1 ? '1 notch' : `${count} notches`;
    const [out, into] = towardsMm > 0 ? [tooth, ringSide] : [ringSide, tooth];
    return `Move the ring ${size} ${way}: ${out} adjuster ${notches} out, ${into} adjuster ${notches} in.`;
  }
  const tooth = ringSide === 'left' ? 'right' : 'left';
  const towardsBack = towardsMm > 0 === (acts === 'behind-cup');
  const [from, to] = towardsBack ? [tooth, ringSide] : [ringSide, tooth];
  return `Move the ring ${size} ${way}: ${size} of shim from ${from} to ${to}, the total stays.`;
}

export function variation(f: F<'variation' | 'limit' | 'runout' | 'residual' | 'angle'>, system: UnitSystem): Words {
  const wave = f.runout.value * 2 > 0.6 * f.variation.value;
  return {
    title: `Backlash varies by ${saySmall(f.variation.value, system)}`,
    detail: `Find out why before shimming. ${
      wave
        ? `It goes round once, most at ${Math.round(f.angle.value)}°: look for a burr or dirt under the ring, a bent flange, bolts drawn up out of order.`
        : `It doesn’t go round once (${saySmall(f.residual.value, system)} is left): read again, then look for a damaged tooth.`
    }`,
  };
}

export function bareSides(): Words {
  return {
    title: 'Backlash read without side preload',
    detail: 'It will move when the bearings are loaded: marked so, teaches nothing, never signs.',
  };
}

export function adjusters(f: F<'left' | 'right'>): Words {
  return {
    title: 'Adjusters stand far apart',
    detail: `Left ${f.left.value}, right ${f.right.value} notches from where they were. Stop: something is in the way, or a wrong part is in.`,
  };
}

export function packDiffers(f: F<'pieces' | 'whole', 'seat'>, system: UnitSystem): Words {
  return {
    title: `${capital(f.seat)} pack and its pieces differ`,
    detail: `${say(f.whole.value, 'length', system)} as one, ${say(f.pieces.value, 'length', system)} piece by piece: a burr, oil or a miscount. Measure again.`,
  };
}

export function preloadMoved(f: F<'change'>, system: UnitSystem): Words {
  const up = f.change.value > 0;
  return {
    title: `Side preload ${up ? 'up' : 'down'} by ${saySmall(f.change.value, system)}`,
    detail: `Left and right together changed since the last assembly: the ring moved, and preload went ${up ? 'up' : 'down'} with it.`,
  };
}

export function spreadTooFar(f: F<'spread' | 'limit'>, system: UnitSystem): Words {
  const over = f.spread.value > f.limit.value;
  return {
    title: over ? 'Case spread too far' : 'Case spread within its limit',
    detail: `${saySmall(f.spread.value, system)}, limit ${saySmall(f.limit.value, system)}.${over ? ' Release at once: spreading a case can crack it.' : ''}`,
  };
}

export function seat(f: F<'swing' | 'angle', 'flank' | 'way', 'seat'>, system: UnitSystem): Words {
  const much = say(f.swing.value, 'percent', system, 0);
  return {
    title: f.seat ? 'The pattern changes once a turn: the seat, not depth' : 'The pattern is the same all round',
    detail: f.seat
      ? `On the ${f.flank} flank it swings ${much} of half a tooth ${f.way}, most about ${say(f.angle.value, 'angle', system, 0)} from place 1. A burr, dirt, a bolt, a cocked ring: no shim mends it. Read the run-out of the ring.`
      : `It swings ${much} of half a tooth: what depth and the place of the ring decide is the same everywhere.`,
  };
}

export function ringRunsOut(f: F<'runout' | 'limit'>, system: UnitSystem): Words {
  const over = f.runout.value > f.limit.value;
  return {
    title: over ? 'The ring runs out too far' : 'Run-out of the ring within its limit',
    detail: `${saySmall(f.runout.value, system)}, limit ${saySmall(f.limit.value, system)}.${over ? ' A burr, the bolts, the flange: no shim mends it, and backlash read on it says little.' : ''}`,
  };
}

export function patternSeen(f: F<never, 'drive' | 'coast' | 'loaded', 'fits' | 'counts' | 'depthFirst'>): Words {
  const title = !f.counts
    ? 'Pattern is faint or unclear'
    : f.fits
      ? 'Pattern right on both flanks'
      : `Pattern: drive ${f.drive}`;
  const both = `Drive side ${f.drive}; coast side ${f.coast}.`;
  if (!f.counts) return { title, detail: `${both} Brake the ring and paint again: it moves nothing.` };
  if (f.fits) return { title, detail: `${both} Clear of every edge.` };
  return {
    title,
    detail:
      `${both} ${f.depthFirst ? 'Height decides depth: set that first.' : 'Height is right; lengthwise is the ring’s.'} ${f.loaded === 'concave' ? 'The coast flank carries here: it weighs more.' : ''}`.trim(),
  };
}

export function nothingRead(f: F<never, 'what'>): Words {
  return { title: `${f.what} not read yet`, detail: 'Of the assembly that is in now.' };
}

export function stackChanged(f: F<'deeper', 'parts'>, system: UnitSystem): Words {
  const deeper = f.deeper.value > 0;
  return {
    title: `Pinion ${saySmall(f.deeper.value, system)} too ${deeper ? 'deep' : 'shallow'} by the stack`,
    detail: `${f.parts}: as it goes in it is not as it came out. Put it back, or take it off the shim.`,
  };
}

export function schoolsApart(f: F<'low' | 'high', 'lowest' | 'highest', 'apart'>, system: UnitSystem): Words {
  return {
    title: f.apart
      ? `Depth: schools ${saySmall(f.high.value - f.low.value, system)} apart`
      : 'Depth: the schools agree',
    detail: `${f.lowest} says ${say(f.low.value, 'length', system)}, ${f.highest} says ${say(f.high.value, 'length', system)}.${f.apart ? ' Look for a wrong sign, a missing baffle or another make of bearing before the first assembly.' : ''}`,
  };
}

export function cannotJudge(f: F<'low' | 'high' | 'plusMinus', 'name'>, system: UnitSystem): Words {
  return {
    title: 'Cannot judge: the indicator is too coarse',
    detail: `${f.name} is good to ± ${saySmall(f.plusMinus.value, system)}; the band is ${saySmall(f.high.value - f.low.value, system)} wide.`,
  };
}

export function headBearing(f: F<'add' | 'shim', 'missing'>, system: UnitSystem): Words {
  if (f.missing === 'height')
    return {
      title: 'Set-up bearing at the head: its height is not said',
      detail: 'Measure it against the final one: the difference goes into the pinion shim when that goes on.',
    };
  if (f.missing === 'sign')
    return {
      title: 'Set-up bearing at the head: which way does a taller one move this pinion?',
      detail: 'Say it on the baseline; until then the shim for the final bearing can’t be told.',
    };
  return {
    title: `For the final bearing the shim becomes ${say(f.shim.value, 'length', system)}`,
    detail: `${saySmall(Math.abs(f.add.value), system)} ${f.add.value < 0 ? 'less' : 'more'} than now, by the height of the set-up bearing.`,
  };
}

export function noFloatBand(): Words {
  return {
    title: 'No band of end float',
    detail: 'Type what the maker’s sheet says; without it nothing here can be judged.',
  };
}

export function floatInBand(
  f: F<'float' | 'low' | 'high' | 'change' | 'shim', never, 'fits' | 'possible'>,
  system: UnitSystem,
): Words {
  const small = (mm: number): string => saySmall(mm, system);
  const band = `${small(f.low.value)} to ${small(f.high.value)}`;
  if (f.fits) return { title: 'End float in band', detail: `${small(f.float.value)}, band ${band}.` };
  const over = f.float.value > f.high.value;
  const off = over ? f.float.value - f.high.value : f.low.value - f.float.value;
  const cure = f.possible
    ? `A shim ${small(f.change.value)} ${f.change.value > 0 ? 'thicker' : 'thinner'}: ${say(f.shim.value, 'length', system)}.`
    : 'No shim is thin enough: something is not home, or it is the wrong part.';
  const tight =
    f.float.value < 1e-9 ? ' It reads nothing: it may be held tight by more; try a thinner shim first.' : '';
  return {
    title: `End float ${small(off)} ${over ? 'over' : 'under'}`,
    detail: `${small(f.float.value)} against ${band}. ${cure}${tight} Tap the shaft home and read again before you change it.`,
  };
}
