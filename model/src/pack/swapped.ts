import { entryBase } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { readingBase } from '../frame/readings';
import * as words from './words';
import { isSpring, type PackSideState, type PackState } from './state';

/** A reading further from the catalogue than this is looked at, mm: a guard of ours. */
const APART_MM = 0.1;

/** What was measured on a side, by place, against what was expected there. */
function readings(
  { members, caseDepthReading, caseDepthMm, stackReading }: PackSideState,
  depthMm: number,
): (readonly [number, number] | null)[] {
  const sum = members.reduce((all, one) => (isSpring(one.member) ? all : all + one.thicknessMm), 0);
  return [
    ...members.map(({ member, reading, thicknessMm }) =>
      reading ? ([thicknessMm, entryBase(member.thickness)] as const) : null,
    ),
    caseDepthReading ? ([caseDepthMm, depthMm] as const) : null,
    stackReading ? ([readingBase(stackReading), sum] as const) : null,
  ];
}

/**
 * Readings of left and right that fit the other side far better than their own: probably entered crosswise. Each reading
 * is held against the catalogue of its own place and of the same place on the other side, a whole stack against the sum of its pieces.
 */
export function findSwapped(axle: AxleName, packs: PackState, depths: readonly [number, number], d: Derivation): void {
  const left = readings(packs.left, depths[0]);
  const right = readings(packs.right, depths[1]);
  if (left.length !== right.length) return;
  const pairs = left.flatMap((one, i) => {
    const other = right[i];
    return one && other ? [{ one, other }] : [];
  });
  const asEntered = pairs.reduce(
    (sum, { one, other }) => sum + Math.abs(one[0] - one[1]) + Math.abs(other[0] - other[1]),
    0,
  );
  const crossed = pairs.reduce(
    (sum, { one, other }) => sum + Math.abs(one[0] - other[1]) + Math.abs(other[0] - one[1]),
    0,
  );
  if (asEntered < APART_MM || asEntered < 3 * crossed) return;
  d.finding({
    id: `pack.swapped.${axle}`,
    verdict: 'watch',
    place: { sheet: 'pack', tab: 'measure', axle, field: 'measure-left-depth' },
    station: 'packs',
    figures: [],
    rule: 'our guard: the readings fit the other side’s catalogue at least three times better',
    facts: { asEntered: fact(asEntered, 'length', 'small'), crossed: fact(crossed, 'length', 'small') },
    say: words.swapped,
  });
}
