import { say, saySmall, type Hold, type UnitSystem } from '@hot-spline/core/page';
import { capital, sentence } from '../base/names';
import type { Facts, NumberFact, Words } from '../frame/finding';

export const HOLD_WORDS: Readonly<Record<Hold, string>> = {
  'other-wheel-held': 'other wheel held, gearbox in neutral',
  'carrier-held': 'in gear or pinion locked, other wheel in the air',
  bench: 'on the bench, one side gear in the vice',
};

type F<K extends string, W extends string = never, B extends string = never> = Facts &
  Record<K, NumberFact> &
  Record<W, string> &
  Record<B, boolean>;

export function height(
  f: F<'height' | 'target' | 'off', 'side', 'fits'> & { readonly shim?: NumberFact; readonly shimWanted?: NumberFact },
  system: UnitSystem,
): Words {
  const off = f.off.value;
  const now = say(f.height.value, 'length', system);
  const target = say(f.target.value, 'length', system);
  if (f.fits) {
    const where = `${saySmall(off, system)} ${off < 0 ? 'under' : 'over'} ${target}`;
    return {
      title: `${capital(f.side)} stack on target`,
      detail: Math.abs(off) < 0.001 ? `${now}, as specified.` : `${now}, ${where}.`,
    };
  }
  const cure =
    f.shim && f.shimWanted
      ? `Change the ${saySmall(f.shim.value, system)} shim for ${saySmall(f.shimWanted.value, system)}.`
      : `${off < 0 ? 'Add' : 'Take out'} ${saySmall(off, system)} of shim or plate.`;
  return {
    title: `${capital(f.side)} pack ${saySmall(off, system)} ${off < 0 ? 'short' : 'tall'}`,
    detail: `${now} against ${target}. ${cure}${off > 0 ? ' Too tall: the pin will not go in, gears bind.' : ' Too short: preload is lost.'}`,
  };
}

export function interfaces(f: F<'interfaces', 'side' | 'bareAt' | 'idleAt'>): Words {
  const side = capital(f.side);
  const count = f.interfaces.value;
  if (count === 0) {
    return {
      title: `${side} pack has no friction interface`,
      detail: 'It holds nothing: alternate eared and splined plates, one of each pair lined.',
    };
  }
  if (f.bareAt !== '') {
    return {
      title: `${side} pack runs bare metal at ${f.bareAt}`,
      detail: 'Two unlined plates rub on each other: they gall, and make no interface here.',
    };
  }
  return {
    title: `${side} pack: ${count === 1 ? '1 friction interface' : `${count} friction interfaces`}`,
    detail:
      f.idleAt === ''
        ? 'Every pair of neighbours works.'
        : `Two that turn together at ${f.idleAt} make none: as you ordered them.`,
  };
}

export function noClamp(
  f: F<'room' | 'free' | 'reach', 'side' | 'problem' | 'error', 'travelTooFar'>,
  system: UnitSystem,
): Words {
  const side = capital(f.side);
  const gap = f.room.value - f.free.value;
  switch (f.problem) {
    case 'stand free':
      return {
        title: `${side} springs stand free by ${saySmall(gap, system)}`,
        detail: `Room ${say(f.room.value, 'length', system)}, free height ${say(f.free.value, 'length', system)}: no preload. Add ${saySmall(gap, system)} of shim and the preload you want.`,
      };
    case 'no spring':
      return {
        title: `${side} pack has no spring`,
        detail: 'Add a dished spring, or give the clamp force as measured.',
      };
    default:
      return {
        title: f.room.value <= 0 ? `${side} pack leaves its springs no room` : `${side} springs can’t take this height`,
        detail: f.travelTooFar
          ? `They would have to close by ${say(-gap, 'length', system)} and can by ${say(f.reach.value, 'length', system)}.`
          : f.error.replace(/^[\w[\]]+: /, ''),
      };
  }
}

export function springs(
  f: F<'room' | 'clamp' | 'flattest', 'side', 'doubled' | 'hard' | 'apart'>,
  system: UnitSystem,
): Words {
  const at = `${say(f.clamp.value, 'force', system)} at ${say(f.room.value, 'length', system)}`;
  if (f.apart) {
    return {
      title: `${capital(f.side)} springs don’t share the travel`,
      detail: `${at}: past their peak one gives way and the others stay, which one is chance. Take springs with a lower cone, or less travel.`,
    };
  }
  if (f.doubled) {
    return {
      title: `${capital(f.side)} spring force belongs to two heights`,
      detail: `${at}. The cone is high for its thickness: past the top the force falls again, so measure the height, don’t go by feel.`,
    };
  }
  return {
    title: `${capital(f.side)} springs ${Math.round(f.flattest.value)} % of the way to flat`,
    detail: f.hard ? `${at}. Past 75 % they tire early and the force climbs steeply.` : `${at}.`,
  };
}

export function balance(
  f: F<'left' | 'right' | 'apart' | 'torque' | 'tolerance', never, 'fits' | 'uneven'>,
  system: UnitSystem,
): Words {
  const torque = f.torque.value;
  const more = Math.abs(torque) < 0.05 ? '' : `, ${torque > 0 ? 'left' : 'right'} more`;
  const cure =
    !f.fits && !f.uneven ? ` Move shim so that both land within ${saySmall(f.tolerance.value, system)}.` : '';
  return {
    title: f.uneven
      ? `Left has ${f.left.value} interfaces, right ${f.right.value}`
      : `Left and right differ by ${saySmall(f.apart.value, system)}`,
    detail: `The packs hold ${say(Math.abs(torque), 'torque', system)} apart${more}.${cure}`,
  };
}

export const unmeasured = (f: F<'open' | 'all', 'nextSide' | 'next'>): Words => ({
  title: `${f.open.value} of ${f.all.value} pieces not measured yet`,
  detail: `Catalogue values stand in. Next: ${f.nextSide}, ${f.next}.`,
});

/** A breakaway that was read before the packs were changed. */
export function measuredBefore(f: F<'measured', 'hold'>, system: UnitSystem): Words {
  return {
    title: 'Breakaway was read on other packs',
    detail: `${say(f.measured.value, 'torque', system)} (${f.hold}) belongs to the packs as they were: read it again on these.`,
  };
}

export function measured(
  f: F<'measured' | 'predicted', 'hold' | 'impossible', 'far' | 'dragged'> & {
    readonly off?: NumberFact;
    readonly perPack?: NumberFact;
  },
  system: UnitSystem,
): Words {
  const off = f.off?.value;
  const apart =
    off === undefined ? 'measured where none was' : `${Math.round(Math.abs(off))} % ${off < 0 ? 'below' : 'above'}`;
  const torque = (one: NumberFact): string => say(one.value, 'torque', system);
  if (f.impossible !== '')
    return {
      title:
        f.impossible === 'locked' ? 'This hold says nothing of this unit' : 'The reading is less than the drag alone',
      detail:
        f.impossible === 'locked'
          ? `${torque(f.measured)} measured ${f.hold}, where springs in parallel lock it whatever they hold. Take another hold.`
          : `${torque(f.measured)} measured, and half of the turning torque is more: read both again.`,
    };
  const drag = f.dragged
    ? ' The drag of the axle is in the reading: take the turning torque with both wheels free.'
    : '';
  return {
    title: f.far ? `Breakaway ${apart} predicted` : 'Breakaway as predicted',
    detail: `${torque(f.measured)} measured, ${torque(f.predicted)} predicted (${f.hold}). ${f.perPack ? `Per pack ${torque(f.perPack)}.` : ''}${f.far ? ' Look at friction coefficient, oil and stack height.' : ''}${drag}`,
  };
}

export const steady = (f: F<'breakaway' | 'steady', 'hold'>, system: UnitSystem): Words => ({
  title: 'The steady reading is above the breakaway',
  detail: `${say(f.steady.value, 'torque', system)} steady, ${say(f.breakaway.value, 'torque', system)} breaking away, ${f.hold}. What slips reads less than what breaks away: turn steadily and read both again, or look for chatter.`,
});

export function between(
  f: F<'free', 'gap'> & { readonly room?: NumberFact; readonly force?: NumberFact },
  system: UnitSystem,
): Words {
  const free = say(f.free.value, 'length', system);
  if (!f.room || !f.force)
    return {
      title: 'Gap between the side gears not entered yet',
      detail: `A spring of ${free} stands in it and presses both packs: measure the gap, gears seated on their packs.`,
    };
  const room = say(f.room.value, 'length', system);
  return f.force.value > 0
    ? {
        title: `The spring between the gears presses with ${say(f.force.value, 'force', system)}`,
        detail: `${free} free in a gap of ${room}; it pushes along with the thrust, so it adds to it.`,
      }
    : { title: 'The spring between the gears stands free', detail: `${free} free in a gap of ${room}: no preload.` };
}

export function wanted(f: F<'predicted' | 'low' | 'high', 'hold', 'fits'>, system: UnitSystem): Words {
  const [now, low, high] = [f.predicted.value, f.low.value, f.high.value];
  const band = `${say(low, 'torque', system)} to ${say(high, 'torque', system)}`;
  const off = now < low ? low - now : now - high;
  return f.fits
    ? { title: 'Breakaway in the wanted band', detail: `${say(now, 'torque', system)} in ${band}, ${f.hold}.` }
    : {
        title: `Breakaway ${say(off, 'torque', system)} ${now < low ? 'below' : 'above'} what is wanted`,
        detail: `${say(now, 'torque', system)} predicted, ${band} wanted, ${f.hold}. Plate order, shims and spring height that reach it are worked out under “Wanted”.`,
      };
}

export function inspected(
  f: F<'pieces', 'side' | 'first' | 'against', 'scrap'> & {
    readonly worn?: NumberFact;
    readonly fresh?: NumberFact;
  },
  system: UnitSystem,
): Words {
  const count = f.pieces.value;
  const subject = f.scrap
    ? `${count === 1 ? 'A piece does' : `${count} pieces do`} not go back in`
    : `${count === 1 ? 'A piece is' : `${count} pieces are`} to be watched`;
  const worn =
    f.worn && f.fresh ? ` Worn by ${saySmall(f.worn.value, system)} from ${say(f.fresh.value, 'length', system)}.` : '';
  return { title: subject, detail: `${capital(f.side)} ${f.first}: ${f.against}.${worn}` };
}

export const recheck = (f: F<never, 'on' | 'why', 'due'>): Words => ({
  title: f.due ? `Recheck is due since ${f.on}` : `Recheck on ${f.on}`,
  detail: f.why === '' ? 'Breakaway, and the oil.' : sentence(f.why),
});

export const swapped = (f: F<'asEntered' | 'crossed'>, system: UnitSystem): Words => ({
  title: 'Left and right look swapped',
  detail: `As entered the readings are ${saySmall(f.asEntered.value, system)} off the catalogue in all, the other way round ${saySmall(f.crossed.value, system)}. Void them and enter each on its own side.`,
});
