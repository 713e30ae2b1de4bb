import { formatIn, unitLabel, type UnitSystem } from '@hot-spline/core';

const MARK_NAMES: readonly [number, string][] = [
  [18.288, '60 ft'],
  [100.584, '330 ft'],
  [201.168, '⅛ mile'],
  [304.8, '1000 ft'],
  [402.336, '¼ mile'],
];

/** A mark by its name in feet and miles; a metric shop reads the same one in metres. */
export function markName(distanceM: number, system: UnitSystem): string {
  const name = MARK_NAMES.find(([mark]) => Math.abs(mark - distanceM) < 1e-6)?.[1];
  if (name && system === 'inch') return name;
  const { text, unit } = formatIn(distanceM, 'distance', system);
  return `${text} ${unitLabel(unit)}`;
}
