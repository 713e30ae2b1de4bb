import { say, type UnitSystem } from '@hot-spline/core/page';
import { capital } from '../base/names';
import type { NumberFact, Words } from '../frame/finding';

type N = NumberFact;
const percent = (value: number): string => `${Math.abs(value).toFixed(2)} %`;

export const hunting = (f: { axle: string; teeth: string; hunting: string; divisor: N }): Words =>
  f.hunting === 'hunting'
    ? {
        title: `${capital(f.axle)} ${f.teeth} hunts`,
        detail: 'Every tooth meets every tooth: no timing marks to align.',
      }
    : {
        title: `${capital(f.axle)} ${f.teeth} does not hunt${f.hunting === 'partial' ? ' fully' : ''}`,
        detail: `Teeth share the divisor ${f.divisor.value}: align the timing marks of ring and pinion.`,
      };

export const tyre = (
  f: { axle: string; far: boolean; off: N; measured: N; nominal: N },
  system: UnitSystem,
): Words => ({
  title: `${capital(f.axle)} tyre measured ${percent(f.off.value)} ${f.off.value < 0 ? 'below' : 'above'} its designation`,
  detail: f.far
    ? `${say(f.measured.value, 'length', system, 0)} against ${say(f.nominal.value, 'length', system, 0)}: check the unit and the tyre, then measure again under load.`
    : 'The measurement is in force.',
});

export function steps(f: {
  problem: string;
  gear: string;
  before: string;
  step: N;
  stepBefore: N;
  steps: string;
}): Words {
  switch (f.problem) {
    case 'rises':
      return {
        title: `Gear ${f.gear} is not taller than ${f.before}`,
        detail: 'Ratios must fall from gear to gear: check the two entries.',
      };
    case 'widens':
      return {
        title: `Step ${f.before} to ${f.gear} is wider than the one before`,
        detail: `×${f.step.value.toFixed(3)} after ×${f.stepBefore.value.toFixed(3)}: the revs drop further up there.`,
      };
    default:
      return { title: 'Gear steps stay equal or shrink upwards', detail: f.steps };
  }
}

export function cruise(
  f: { over: boolean; hot: boolean; gear: string; speed: N; rpm: N; limit: N; stall?: N },
  system: UnitSystem,
): Words {
  const rpm = f.rpm.value;
  const at = `${say(f.speed.value, 'speed', system, 0)} in ${f.gear}`;
  if (f.over) {
    return {
      title: `Cruise is past the limiter by ${Math.round(rpm - f.limit.value)} rpm`,
      detail: `${at} would need ${Math.round(rpm)} rpm: take a taller final drive or tyre, or cruise slower.`,
    };
  }
  const margin = f.stall ? Math.round(rpm - f.stall.value) : null;
  if (f.hot) {
    return {
      title: `Cruise is ${margin} rpm from converter stall`,
      detail: `${Math.round(rpm)} rpm at ${at}, rated stall ${f.stall?.value}: less than a quarter above it (ours) the converter slips and heats. Shorten the final drive or lower the stall.`,
    };
  }
  return {
    title: `Cruise at ${Math.round(rpm)} rpm`,
    detail: `${at}${margin === null ? '' : `, ${margin} rpm above stall`}.`,
  };
}

export const mismatch = (f: { winds: boolean; mismatch: N }): Words => ({
  title: `Front shaft ${percent(f.mismatch.value)} ${f.mismatch.value < 0 ? 'slower' : 'faster'} than rear`,
  detail: f.winds
    ? 'On grip the transfer case winds up: match ratios or tyres, or keep it out of four-wheel drive on hard ground.'
    : 'Inside the 1 % guard band.',
});

export function crawl(f: { crawl: N; wanted: N; final: N }): Words {
  const [value, wanted] = [f.crawl.value, f.wanted.value];
  return value < wanted
    ? {
        title: `Crawl ratio ${(wanted - value).toFixed(1)} short of the brief`,
        detail: `${value.toFixed(1)} against ${wanted.toFixed(1)}: a final drive of ${((f.final.value * wanted) / value).toFixed(2)} makes it.`,
      }
    : { title: `Crawl ratio ${value.toFixed(1)}`, detail: `The brief wants ${wanted.toFixed(1)}.` };
}

export function reading(f: { matters: boolean; goes: N }): Words {
  // What is shown against what is true: 100 shown at 86.2 is 16 % high, not 13.8.
  const off = 100 * (100 / f.goes.value - 1);
  const goes = `It shows 100 where it truly goes ${f.goes.value.toFixed(1)}`;
  return f.matters
    ? {
        title: `Speed reads ${Math.abs(off).toFixed(1)} % ${off < 0 ? 'low' : 'high'}`,
        detail: `${goes}: recalibrate reading and shift points.`,
      }
    : { title: 'Speed reading stays within 2 %', detail: `${goes}.` };
}
