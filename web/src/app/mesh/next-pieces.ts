import { depthSign, entryBase, formatIn, saySmall, unitLabel, type Entry, type UnitSystem } from '@hot-spline/core';
import type { MeshAxle } from '@hot-spline/model';
import type { Proposed } from '../section/shim-play';
import type { Assembly } from './set-up';

type Now = Omit<MeshAxle, 'now'> & { readonly now: NonNullable<MeshAxle['now']> };

/** Thinner than this nothing is changed. */
const SAME_MM = 0.0005;
const sum = (pieces: readonly Entry[]): number => pieces.reduce((mm, piece) => mm + entryBase(piece), 0);

/** The assembly that is proposed, as pieces: the pinion’s sum, what it is made of, both sides. */
export function pieceRows(plan: Assembly, { now, ringBy }: Now, system: UnitSystem) {
  const shown = (mm: number) => formatIn(mm, 'length', system, undefined, 'small');
  const text = (mm: number): string => shown(mm).text;
  const [to, from] = [sum(plan.pinion), now.pinionMm];
  const { unit } = shown(to);
  const side = (label: string, was: number, is: number) => ({
    label,
    text: Math.abs(is - was) < SAME_MM ? `${text(was)} stays` : `${text(was)} → ${text(is)}`,
  });
  const notch = (label: string, was: number, is: number) => {
    const by = is - was;
    return { label, text: by === 0 ? 'stays' : `${Math.abs(by)} ${by > 0 ? 'in' : 'out'}` };
  };
  return {
    to: text(to),
    unit: unitLabel(unit),
    from: Math.abs(to - from) < SAME_MM ? '' : text(from),
    of: plan.pinion.length > 1 ? plan.pinion.map((piece) => text(entryBase(piece))).join(' + ') : '',
    rows:
      ringBy === 'adjusters'
        ? [
            notch('Left adjuster, notches', now.value.leftNotches, plan.leftNotches),
            notch('Right adjuster, notches', now.value.rightNotches, plan.rightNotches),
          ]
        : [side('Left shim', now.leftMm, sum(plan.left)), side('Right shim', now.rightMm, sum(plan.right))],
  };
}

/** What the proposed assembly touches in the section, and what moves. */
export function proposedOf(plan: Assembly, mesh: Now, system: UnitSystem): Proposed {
  const { now, ringBy, notchMm, setup, shimMoves } = mesh;
  const shim = sum(plan.pinion) - now.pinionMm;
  const small = (mm: number): string => saySmall(Math.abs(mm), system);
  const more = (mm: number): string => `${small(mm)} ${mm > 0 ? 'more' : 'less'}`;
  const deeperMm = shimMoves === null ? 0 : depthSign(shimMoves) * shim;
  const said: { part: Proposed['touched'][number]; text: string }[] = [];
  if (Math.abs(shim) >= SAME_MM) said.push({ part: 'pinion-shim', text: more(shim) });
  const back = setup.ringSide === 'left' ? 'leftNotches' : 'rightNotches';
  let closerMm = 0;
  if (ringBy === 'adjusters') {
    const by = { left: plan.leftNotches - now.value.leftNotches, right: plan.rightNotches - now.value.rightNotches };
    for (const side of ['left', 'right'] as const)
      if (by[side] !== 0)
        said.push({ part: `adjuster-${side}`, text: `${side}: ${Math.abs(by[side])} ${by[side] > 0 ? 'in' : 'out'}` });
    closerMm = (plan[back] - now.value[back]) * (notchMm ?? 0);
  } else {
    const by = { left: sum(plan.left) - now.leftMm, right: sum(plan.right) - now.rightMm };
    for (const side of ['left', 'right'] as const)
      if (Math.abs(by[side]) >= SAME_MM) said.push({ part: `shim-${side}`, text: `${side}: ${more(by[side])}` });
    closerMm = by[setup.ringSide] * (setup.sideShims === 'behind-cup' ? 1 : -1);
  }
  const moves = [
    ...(Math.abs(deeperMm) < SAME_MM ? [] : [`pinion ${deeperMm > 0 ? 'deeper' : 'shallower'} ${small(deeperMm)}`]),
    ...(Math.abs(closerMm) < SAME_MM ? [] : [`ring ${closerMm > 0 ? 'closer' : 'away'} ${small(closerMm)}`]),
  ];
  return {
    touched: said.map(({ part }) => part),
    said,
    shift: { deeperMm, closerMm },
    text: moves.length === 0 ? 'Nothing moves.' : `This moves the ${moves.join(', the ')}. Drawn larger than it is.`,
  };
}
