import { formatIn, say, unitLabel, type UnitSystem } from '@hot-spline/core';
import type { Facts, NumberFact, Words } from '../frame/finding';
import type { SideMethod } from './side';

type F<K extends string, W extends string = never, B extends string = never> = Facts &
  Record<K, NumberFact> &
  Record<W, string> &
  Record<B, boolean>;

/** Turning torque, in lbf·in or N·m. */
export function turningText(nm: number, system: UnitSystem): string {
  const { text, unit } = formatIn(nm, 'torque', system, undefined, 'turning');
  return `${text} ${unitLabel(unit)}`;
}

const degrees = (angle: number): string => `${Number(angle.toFixed(1))}°`;

export function pinion(
  f: F<'nm' | 'low' | 'high' | 'spacer', 'verdict' | 'kind'> & {
    readonly turnTo?: NumberFact;
    readonly chance?: NumberFact;
    readonly readings?: NumberFact;
  },
  system: UnitSystem,
): Words {
  const now = turningText(f.nm.value, system);
  const band = `${turningText(f.low.value, system)} to ${turningText(f.high.value, system)}`;
  switch (f.verdict) {
    case 'in-band':
      return { title: `Pinion preload ${now}`, detail: `In band, ${band}.` };
    case 'over':
      return {
        title: `Pinion preload over: ${now}`,
        detail:
          f.kind === 'collapsible'
            ? `Band ${band}. A new spacer: never back the nut off. This one was number ${f.spacer.value}.`
            : `Band ${band}. More shim beside the spacer: less torque.`,
      };
    case 'cannot-judge':
      return {
        title: 'The wrench can’t judge this band',
        detail: `What it is good to is half of the band (${band}) or more: take a finer one.`,
      };
    default:
      return {
        title: `Pinion preload ${now}, not there yet`,
        detail:
          f.turnTo && f.chance
            ? `Band ${band}. Turn to ${degrees(f.turnTo.value)} at most, then read again; chance to be over there ${(100 * f.chance.value).toFixed(1)} %. About ${Math.round(f.readings?.value ?? 1)} readings to go.`
            : `Band ${band}. Less shim beside the spacer: more torque.`,
      };
  }
}

export function notRead(): Words {
  return { title: 'Pinion preload not read', detail: 'Oiled, turning steadily, after a few turns.' };
}

export function dry(): Words {
  return {
    title: 'A dry reading does not count',
    detail: 'Turning torque falls when oil goes on: oil, turn, read again.',
  };
}

export function lessThanSeal(): Words {
  return {
    title: 'The seal drags more than all of it',
    detail: 'One of the two is misread: read the seal alone again, then the pinion. This reading does not count.',
  };
}

export function sealIn(): Words {
  return {
    title: 'Seal drag is in the reading',
    detail: 'The seal is in and its drag was not read: bearings are reading less seal.',
  };
}

export function noBand(): Words {
  return {
    title: 'No band for turning torque',
    detail: 'Type what the sheet says for these bearings before a spacer is crushed.',
  };
}

export function weak(f: F<'low' | 'high', 'origin'>, system: UnitSystem): Words {
  return {
    title: 'Turning-torque band is not from a sheet',
    detail: `${turningText(f.low.value, system)} to ${turningText(f.high.value, system)}, ${f.origin}: confirm it before a spacer is crushed, or override with a note and a name at Gate A.`,
  };
}

export function carrier(
  f: { readonly why: string; readonly nm?: NumberFact; readonly plusMinus: NumberFact; readonly coarse: boolean },
  system: UnitSystem,
): Words {
  const about = `Good to ± ${turningText(f.plusMinus.value, system)} by this wrench`;
  if (f.nm)
    return {
      title: `Carrier bearings ${turningText(f.nm.value, system)}, from the total`,
      detail: `${about}${f.coarse ? ': too coarse to decide. Read the carrier alone, or the growth of the case.' : '.'}`,
    };
  return f.why === 'seal'
    ? {
        title: 'Total and pinion are not comparable',
        detail:
          'The seal was in for one of them and its drag was not read: what is left of it comes back times the ratio.',
      }
    : {
        title: 'The total is less than the pinion alone',
        detail: 'One of the two is misread, or read in another state.',
      };
}

export const SIDE_WORDS: Readonly<Record<SideMethod, string>> = {
  shims: 'shims beyond zero play',
  sequence: 'the sequence of the adjusters',
  carrier: 'the carrier alone',
  total: 'the total less the pinion',
  growth: 'growth of the case',
  feel: 'feel',
};

export function side(
  f: {
    readonly method: string;
    readonly said: string;
    readonly verdict: string;
    readonly value?: NumberFact;
    readonly low?: NumberFact;
    readonly high?: NumberFact;
  },
  system: UnitSystem,
): Words {
  const by = SIDE_WORDS[f.method as SideMethod];
  const text = ({ value, quantity, scale }: NumberFact): string => say(value, quantity, system, undefined, scale);
  const read = f.value ? text(f.value) : f.said;
  const band = f.low && f.high ? `, band ${text(f.low)} to ${text(f.high)}` : '';
  const means =
    f.verdict === 'stop'
      ? ' Both sides by the same amount: backlash stays.'
      : f.verdict === 'watch'
        ? f.method === 'feel'
          ? ' Read it by an instrument too where it can be reached.'
          : ' The wrench is too coarse to decide.'
        : '';
  return {
    title: `Side preload by ${by}: ${f.verdict === 'stop' ? 'not right' : f.verdict === 'watch' ? 'not proven' : 'right'}`,
    detail: `${read}${band}.${means}`,
  };
}

export function total(f: F<'total' | 'low' | 'high', never, 'fits'>, system: UnitSystem): Words {
  return {
    title: f.fits ? 'Total turning torque in band' : 'Total turning torque out of band',
    detail: `${turningText(f.total.value, system)}, band ${turningText(f.low.value, system)} to ${turningText(f.high.value, system)}.`,
  };
}

export function stayed(
  f: F<'share' | 'from' | 'now' | 'jobs' | 'least' | 'most', 'bearings', 'read' | 'sealOff'>,
  system: UnitSystem,
): Words {
  const like =
    f.jobs.value > 0
      ? `${f.jobs.value} axles of this spec with ${f.bearings} kept ${f.least.value.toFixed(0)} to ${f.most.value.toFixed(0)} %.`
      : '';
  if (!f.read) return { title: 'What will stay of the preload', detail: like };
  return {
    title: `${f.share.value.toFixed(0)} % of the turning torque is left after the run-in`,
    detail: `${turningText(f.now.value, system)} of ${turningText(f.from.value, system)}${
      f.sealOff ? ', the seal’s drag taken off both' : ', the seal in both'
    }. ${like}`.trim(),
  };
}
