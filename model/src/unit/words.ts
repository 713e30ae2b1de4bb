import { formatUnit, say, saySmall, type UnitSystem } from '@hot-spline/core';
import { capital } from '../base/names';
import type { NumberFact, Words } from '../frame/finding';

type N = NumberFact;

export const type = (f: { axle: string; type: string; against: string; caution: string }): Words => ({
  title: `${capital(f.axle)}: ${f.type.charAt(0).toLowerCase()}${f.type.slice(1)}`,
  detail: `${f.against} ${f.caution}`.trim(),
});

export function ramps(f: {
  axle: string;
  flank: string;
  solid: boolean;
  fromAxis: boolean;
  coefficient: N;
  ramp: N;
  limit: N;
}): Words {
  const where = capital(f.axle);
  const on = f.flank === 'drive' ? 'under power' : 'on overrun';
  const [ramp, limit] = [formatUnit(f.ramp.value, '°'), formatUnit(f.limit.value, '°')];
  return f.solid
    ? {
        title: `${where} unit locks solid ${on} at any torque`,
        detail: `k ${f.coefficient.value.toFixed(2)} with ${ramp}° ramps. It lets go ${f.fromAxis ? 'below' : 'above'} ${limit}°: flatten the ramps or take interfaces out.`,
      }
    : {
        title: `${where} ramps hold ${Math.round(100 * f.coefficient.value)} % of the torque ${on}`,
        detail: `Ramps of ${ramp}°; solid from ${limit}°.`,
      };
}

export const order = (f: { axle: string }): Words => ({
  title: `${capital(f.axle)} unit holds more on overrun than under power`,
  detail: 'The two ramps look swapped, or the convention is the other one: check against the maker’s sheet.',
});

/** A shim behind the side gear is in the stack as well. */
function also({ stack, reading }: { stack?: N; reading?: N }, system: UnitSystem): string {
  if (!stack) return '';
  const wrench = reading ? ` and the wrench, other wheel held, ${say(reading.value, 'torque', system)}` : '';
  return ` The stack is ${say(stack.value, 'length', system)} then${wrench}.`;
}

export function backlash(
  f: { side: string; now: N; low?: N; high?: N; shim?: N; stack?: N; reading?: N; fits: boolean },
  system: UnitSystem,
): Words {
  const title = `${capital(f.side)} side-gear backlash ${saySmall(f.now.value, system)}`;
  if (!f.low || !f.high) return { title, detail: 'Enter what the maker’s sheet wants.' };
  const off = f.fits ? '' : f.now.value < f.low.value ? ', too tight' : ', too loose';
  const cure =
    f.fits || !f.shim
      ? ''
      : ` ${f.shim.value > 0 ? 'Add' : 'Take out'} ${saySmall(f.shim.value, system)} of shim for the middle of it.${also(f, system)}`;
  return {
    title: `${title}${off}`,
    detail: `Wanted ${saySmall(f.low.value, system)} to ${saySmall(f.high.value, system)}.${cure}`,
  };
}

export function insert(f: { now?: N; low: N; high: N }, system: UnitSystem): Words {
  const now = f.now?.value;
  const off =
    now === undefined
      ? ''
      : now < f.low.value - 1e-9
        ? ' Too tight: the gears bind.'
        : now > f.high.value + 1e-9
          ? ' Too loose: preload is lost.'
          : '';
  return {
    title: now === undefined ? 'Fit of the insert not measured yet' : `Insert fits with ${saySmall(now, system)}`,
    detail: `Wanted ${saySmall(f.low.value, system)} to ${saySmall(f.high.value, system)}; a sheet of office paper is about ${say(0.1, 'length', system)}.${off}`,
  };
}
