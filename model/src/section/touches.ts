import {
  InputError,
  saySmall,
  shimEffect,
  type SectionPart,
  type ShimEffect,
  type ShimTouch,
  type UnitSystem,
} from '@hot-spline/core';
import type { MeshAxle } from '../mesh/axle';

/** Something on an axle that can be changed by a little, to see what moves. */
export interface Touchable {
  readonly part: SectionPart;
  readonly label: string;
  readonly touch: ShimTouch;
}

/** By how much a drawing shows it: 5 thou, or 0.1 mm. */
export const STEP_MM: Readonly<Record<UnitSystem, number>> = { inch: 0.127, metric: 0.1 };

type Known = Pick<MeshAxle, 'setup' | 'ring' | 'pinion' | 'shimMoves' | 'bearingMoves' | 'ringBy' | 'notchMm'>;

/** What can be touched in the section of an axle. */
export function touchesOf(axle: Known, system: UnitSystem): readonly Touchable[] {
  // Centre distance is fixed where nothing moves a ring.
  if (axle.ringBy === 'none') return [];
  const mm = STEP_MM[system];
  const said = saySmall(mm, system);
  const more: Touchable[] = [
    { part: 'pinion-shim', label: `Pinion shim +${said}`, touch: { of: 'pinion-shim', mm } },
    { part: 'head-bearing', label: `Head bearing ${said} taller`, touch: { of: 'head-bearing', mm } },
  ];
  if (axle.ringBy === 'adjusters') {
    const { notchMm } = axle;
    if (notchMm !== null)
      for (const side of ['left', 'right'] as const)
        more.push({
          part: `adjuster-${side}`,
          label: `${side === 'left' ? 'Left' : 'Right'} in one notch, ${side === 'left' ? 'right' : 'left'} out one`,
          touch: { of: 'notches', inAt: side, notches: 1, notchMm },
        });
  } else
    for (const side of ['left', 'right'] as const) {
      const name = side === 'left' ? 'Left' : 'Right';
      const other = side === 'left' ? 'right' : 'left';
      more.push(
        { part: `shim-${side}`, label: `${name} shim +${said}`, touch: { of: 'side', side, what: 'shim', mm } },
        {
          part: `shim-${side}`,
          label: `${said} from ${other} to ${side}`,
          touch: { of: 'across', to: side, mm },
        },
      );
    }
  for (const side of ['left', 'right'] as const)
    more.push({
      part: `side-bearing-${side}`,
      label: `${side === 'left' ? 'Left' : 'Right'} bearing ${said} taller`,
      touch: { of: 'side', side, what: 'bearing', mm },
    });
  for (const { name, sign } of axle.setup.depth.chain)
    more.push({ part: 'case', label: `${name} ${said} thicker`, touch: { of: 'link', sign, mm } });
  return more;
}

/** What moves; null where nobody has said which way. */
export const effectOn = (axle: Known, touch: ShimTouch): ShimEffect | null => {
  try {
    return shimEffect(touch, {
      ringTeeth: axle.ring,
      pinionTeeth: axle.pinion,
      ringSide: axle.setup.ringSide,
      shimMoves: axle.shimMoves,
      bearingMoves: axle.bearingMoves,
      sideShims: axle.setup.sideShims,
    });
  } catch (error) {
    // Teeth that can be no pair are said where they are typed.
    if (!(error instanceof InputError)) throw error;
    return null;
  }
};

const STILL_MM = 1e-6;

/** What it does, in words: “pinion shallower 5 thou, backlash +1 thou”. */
export function effectWords(effect: ShimEffect | null, system: UnitSystem): string {
  if (!effect) return 'Which way it moves the pinion has to be said for this axle first.';
  const small = (mm: number): string => saySmall(Math.abs(mm), system);
  const { deeperMm, closerMm, closerLooseMm, backlashMm, sidePreloadMm } = effect;
  const parts: string[] = [];
  if (Math.abs(deeperMm) > STILL_MM) parts.push(`pinion ${deeperMm > 0 ? 'deeper' : 'shallower'} ${small(deeperMm)}`);
  if (Math.abs(closerMm) > STILL_MM) {
    const loose =
      Math.abs(closerLooseMm - closerMm) > STILL_MM ? ` (${small(closerLooseMm)} once no preload is left)` : '';
    parts.push(`ring ${closerMm > 0 ? 'closer' : 'away'} ${small(closerMm)}${loose}`);
  }
  if (Math.abs(backlashMm) > STILL_MM) parts.push(`backlash ${backlashMm > 0 ? '+' : '−'}${small(backlashMm)}`);
  if (Math.abs(sidePreloadMm) > STILL_MM)
    parts.push(`side bearings ${small(sidePreloadMm)} ${sidePreloadMm > 0 ? 'tighter' : 'looser'}`);
  return parts.length === 0 ? 'nothing moves' : parts.join(', ');
}
