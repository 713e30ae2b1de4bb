import type { AxleName } from '../base/names';
import { UNIT_PARTS, type Unit } from './schema';

/** What of a plate unit is told field by field; of another type its part as one. */
const OF_PLATE = [
  'action',
  'driveRamp',
  'overrunRamp',
  'frictionCoefficient',
  'targetHeight',
  'packs.left.caseDepth',
  'packs.left.members',
  'packs.right.caseDepth',
  'packs.right.members',
] as const;

/**
 * What nobody has said yet once somebody has chosen a type: the type is said, and nothing else of it. What was said of it before stays
 * said; what came as an ordinary one of its type is assumed.
 * @param assumed paths of the build before
 * @returns them after
 */
export function assumedOfType(
  assumed: readonly string[],
  axle: AxleName,
  before: Unit,
  after: Pick<Unit, 'type'>,
): string[] {
  const whole = `axles.${axle}.unit`;
  const unsaid = assumed.includes(whole);
  const others = assumed.filter((path) => path !== whole);
  const parts = UNIT_PARTS[after.type].filter((part) => unsaid || before[part] === undefined || before[part] === null);
  const added = parts.flatMap((part) =>
    part === 'plate' ? OF_PLATE.map((key) => `${whole}.plate.${key}`) : [`${whole}.${part}`],
  );
  return [...new Set([...others, ...added])];
}
