import { say, type UnitSystem } from '@hot-spline/core';
import { capital } from '../base/names';
import type { NumberFact, Words } from '../frame/finding';

type N = NumberFact;
const sayPlain = (value: number, decimals: number): string => value.toFixed(decimals).replace('-', '−');
const mm = (of: N, system: UnitSystem): string => say(of.value, 'length', system, undefined, of.scale);

/** Teeth that do not go on these centres. */
export function centres(
  f: { gear: string; teeth: string; verdict: string; sum: N; given: N; said: boolean; play: N; other: string },
  system: UnitSystem,
): Words {
  const needs = `${f.teeth} needs shifts of ${sayPlain(f.sum.value, 2)} together`;
  const better = f.other === '' ? '' : ` ${f.other} can go.`;
  switch (f.verdict) {
    case 'no mesh':
      return { title: `${f.gear}: ${f.teeth} does not meet`, detail: `Too many teeth for these centres.${better}` };
    case 'jams':
      return {
        title: `${f.gear} jams at this centre distance`,
        detail: f.said
          ? `${needs}, the pair has ${sayPlain(f.given.value, 2)}: ${mm({ ...f.play, value: Math.abs(f.play.value) }, system)} short of play.${better}`
          : `${needs}: less than a set is cut with.${better}`,
      };
    case 'loose':
      return {
        title: `${f.gear} runs loose at this centre distance`,
        detail: f.said
          ? `${needs}, the pair has ${sayPlain(f.given.value, 2)}: ${mm(f.play, system)} of play.${better}`
          : `${needs}: more than a set is cut with.${better}`,
      };
    default:
      return {
        title: `${f.gear}: ${f.teeth} can fit`,
        detail: `${needs}. Its maker’s own sum is not said: then it fits, or does not.`,
      };
  }
}

/** An idler that does not stand between its gears. */
export const idler = (f: { teeth: string; idler: N; meet: boolean; clear: N }, system: UnitSystem): Words =>
  f.meet
    ? {
        title: `Reverse: ${f.teeth} run into each other`,
        detail: `Their tips want ${mm(f.clear, system)} more between the shafts: with an idler the two gears never touch.`,
      }
    : {
        title: `Reverse: an idler of ${f.idler.value} does not reach both gears`,
        detail: `On these centres ${f.teeth} are too far apart for it, or it is too large to stand beside them.`,
      };

export const hands = (f: { gear: string; alike: boolean }): Words =>
  f.alike
    ? { title: `${f.gear}: both gears of one hand`, detail: 'Gears on parallel shafts have opposite hands.' }
    : { title: `${f.gear}: hands not said`, detail: 'The box is helical: say which hand each gear has.' };

export const placeOf = (f: { gear: string; teeth: string; fits: string }): Words => ({
  title: `${f.gear}: ${f.teeth} is made for another place`,
  detail: `By its maker it fits ${f.fits}.`,
});

export const missing = (f: { gear: string; what: string }): Words => ({
  title: `${f.gear}: ${f.what}`,
  detail:
    f.what === 'no hub beside it'
      ? 'A loose gear needs its hub next to it: nothing else lies between but washers.'
      : 'A pair has one gear on each shaft, and one of them turns loosely until its hub takes it.',
});

export const overlap = (f: { gear: string; worst: N; asked: N; apart: N }, system: UnitSystem): Words => ({
  title: `${f.gear}: planes do not meet`,
  detail: `${sayPlain(100 * f.worst.value, 0)} % of the narrower face at the worst of both floats, ${sayPlain(100 * f.asked.value, 0)} % asked. The middles are ${mm({ ...f.apart, value: Math.abs(f.apart.value) }, system)} apart.`,
});

export const gap = (f: { gear: string; gap: N; asked: N; said: boolean }, system: UnitSystem): Words =>
  f.gap.value <= 0
    ? {
        title: `${f.gear}: dogs touch in neutral`,
        detail: `${mm({ ...f.gap, value: Math.abs(f.gap.value) }, system)} too far into each other: spacer or ring.`,
      }
    : {
        title: `${f.gear}: dogs stand close in neutral`,
        detail: f.said
          ? `${mm(f.gap, system)} between them, ${mm(f.asked, system)} asked.`
          : `${mm(f.gap, system)} between them.`,
      };

export const stack = (f: { shaft: string; nut: boolean; spare: N; holds: boolean }, system: UnitSystem): Words => {
  const by = mm({ ...f.spare, value: Math.abs(f.spare.value) }, system);
  if (f.holds)
    return {
      title: `${capital(f.shaft)}: the stack is right`,
      detail: f.nut ? `It stands ${by} proud: the nut clamps it.` : `${by} of play below the clip.`,
    };
  return f.nut
    ? {
        title: `${capital(f.shaft)}: the nut clamps nothing`,
        detail: `The stack is ${by} shorter than its shaft: something is missing, or a spacer too thin.`,
      }
    : {
        title: `${capital(f.shaft)} is shorter than its stack`,
        detail: `${by} too much for the clip: something is in twice, or a spacer too thick.`,
      };
};

export const tight = (f: { gear: string }): Words => ({
  title: `${f.gear}: clamped by its own sleeve`,
  detail: 'The needle sleeve is no longer than its gear: a loose gear needs play on it.',
});

export const idle = (f: { hub: string }): Words => ({
  title: `${f.hub} serves no gear`,
  detail: 'A hub serves one loose gear or two beside it.',
});

export const ratio = (f: { gear: string; inBox: N; said: N }): Words => ({
  title: `Gear ${f.gear} is another one in the box`,
  detail: `${sayPlain(f.inBox.value, 3)} by its teeth, ${sayPlain(f.said.value, 3)} on Engine and gearbox: every speed is worked out by that.`,
});

export const count = (f: { inBox: N; said: N }): Words => ({
  title: `${f.inBox.value} gears in the box, ${f.said.value} on Engine and gearbox`,
  detail: 'Every speed is worked out by the latter.',
});

export const whole = (f: { pairs: N; worst: N }): Words => ({
  title: 'The box goes together',
  detail: `${f.pairs.value === 1 ? '1 pair on its' : `${f.pairs.value} pairs on their`} centres, faces ${sayPlain(100 * f.worst.value, 0)} % on each other at worst.`,
});

export const drum = (f: { ok: boolean; faults: string; steepest: N; through: boolean }): Words =>
  f.ok && f.through
    ? {
        title: 'Drum: one gear at any angle, a neutral between',
        detail: `Steepest ramp ${sayPlain(f.steepest.value, 1)}°.`,
      }
    : {
        title: f.ok ? 'Drum: a gear is not in at its detent' : `Drum: ${f.faults}`,
        detail: f.ok
          ? 'At each detent one gear is in to its depth, and every gear has one.'
          : 'Solved where the tracks cross the threshold, for every angle.',
      };

export const dogs = (f: { never: boolean; chance: N; turn: N; play: N }): Words =>
  f.never
    ? {
        title: 'Dogs can never go in',
        detail: `They are wider together than their spacing: play ${sayPlain(f.play.value, 1)}°.`,
      }
    : {
        title: `Dog on dog in ${sayPlain(10 * f.chance.value, 0)} of 10`,
        detail: `Standing still: turn the shaft by up to ${sayPlain(f.turn.value, 0)}° and try again.`,
      };

export function float(
  f: {
    shaft: string;
    state: string;
    float: N;
    low: N;
    high: N;
    shim: N;
    possible: boolean;
    hot: N;
    heat: boolean;
    spread: N;
  },
  system: UnitSystem,
): Words {
  const hot = f.heat
    ? ` ${f.hot.value < 0 ? `Hot it is ${mm({ ...f.hot, value: Math.abs(f.hot.value) }, system)} of squeeze.` : `Hot it is ${mm(f.hot, system)}.`}`
    : '';
  switch (f.state) {
    case 'unread':
      return {
        title: `${capital(f.shaft)}: end float not read`,
        detail: 'Bare shaft with what sets its length; seated, zeroed, drawn.',
      };
    case 'apart':
      return {
        title: `${capital(f.shaft)}: the readings do not agree`,
        detail: `${mm(f.spread, system)} apart, or one alone: it does not count. Seat, zero, draw again.`,
      };
    case 'no band':
      return {
        title: `${capital(f.shaft)} float ${mm(f.float, system)}`,
        detail: `Its band is not said: straight-cut wider, helical tighter.${hot}`,
      };
    case 'fits':
      return {
        title: `${capital(f.shaft)} float ${mm(f.float, system)}`,
        detail: `Wanted ${mm(f.low, system)} to ${mm(f.high, system)} cold.${hot}`,
      };
    default:
      return {
        title: `${capital(f.shaft)} float ${mm(f.float, system)}, outside its band`,
        detail: f.possible
          ? `Wanted ${mm(f.low, system)} to ${mm(f.high, system)} cold: next shim ${mm(f.shim, system)}.${hot}`
          : `Wanted ${mm(f.low, system)} to ${mm(f.high, system)} cold: no shim is that thin.${hot}`,
      };
  }
}

export const approve = (f: { shaft: string; approved: boolean; who: string }): Words =>
  f.approved
    ? { title: `${capital(f.shaft)}: float approved`, detail: f.who === '' ? 'By nobody’s name.' : `By ${f.who}.` }
    : { title: `${capital(f.shaft)}: float not approved yet`, detail: 'In its band: approve it, or read it again.' };

export const runOut = (
  f: { shaft: string; when: string; read: N; limit: N; fits: boolean },
  system: UnitSystem,
): Words => ({
  title: `${capital(f.shaft)}: run-out ${mm(f.read, system)} ${f.when} the nut`,
  detail: f.fits
    ? `At most ${mm(f.limit, system)}.`
    : `At most ${mm(f.limit, system)}: what a shaft over its limit gets is its builder’s word. Lock nothing before.`,
});

export const hours = (f: { gear: string; hours: N; limit: N; over: boolean }): Words => ({
  title: f.over ? `${f.gear} has run its hours` : `${f.gear} comes near its hours`,
  detail: `${sayPlain(f.hours.value, 1)} h since it went in, ${sayPlain(f.limit.value, 0)} h by its maker.`,
});

export const synchro = (f: { gear: string; part: string; state: string }): Words =>
  f.state === 'worn'
    ? { title: `${f.gear}: ${f.part} worn`, detail: 'New before the box is closed.' }
    : { title: `${f.gear}: ${f.part} borrowed`, detail: 'From another box: its wear and its drag are not known.' };

export const drag = (f: { gear: string; drag: string }): Words => ({
  title: `${f.gear}: ${f.drag === 'none' ? 'the ring does not drag' : 'the ring drags weakly'}`,
  detail: 'A ring that turns with firm drag synchronises; oiled or dry as its maker says.',
});

export const play = (f: { hub: string; play: N; limit: N; fits: boolean }, system: UnitSystem): Words => ({
  title: `${f.hub}: ${mm(f.play, system)} of play on its spline`,
  detail: f.fits
    ? `At most ${mm(f.limit, system)}.`
    : `At most ${mm(f.limit, system)}: hub or shaft new, by which of them is worn.`,
});

export const counted = (f: { closed: boolean; out: string; over: string; early: string }): Words =>
  f.early !== ''
    ? { title: 'Gone in too early', detail: `${f.early}: out again, in its order.` }
    : f.over !== ''
      ? { title: 'The counts do not agree', detail: `${f.over}: open again, or count again.` }
      : f.closed
        ? { title: 'Everything is counted in', detail: 'Nothing loose, nothing trapped.' }
        : f.out === ''
          ? { title: 'Nothing is counted out yet', detail: 'Every bolt, seal, ring and sensor, hidden ones too.' }
          : { title: 'Still out', detail: `${f.out}.` };

export const unsaid = (f: { missing: string }): Words => ({
  title: 'Not all of the box is said',
  detail: `${f.missing.charAt(0).toUpperCase()}${f.missing.slice(1)}: without it the stack is not judged whole.`,
});
