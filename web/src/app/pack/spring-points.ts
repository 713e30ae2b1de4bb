import { InputError, LIMITS, entryBase, parseEntry, say, type UnitSystem } from '@hot-spline/core';
import type { Member } from '@hot-spline/model';
import type { Understood } from '../shared/field';

export type Points = Extract<Member, { kind: 's-spring' }>['points'];

const MOST = 12;

/**
 * Reads what an S-spring was measured at: `24 mm 1200 N; 22 mm 1900 N`, highest first.
 * @throws InputError naming the point
 */
export function readSpringPoints(text: string, system: UnitSystem): Understood<Points> {
  const parts = text.split(';').map((part) => part.trim());
  if (parts.length > MOST) throw new InputError('Measured', `Measured has ${parts.length} points.`, `at most ${MOST}`);
  const points = parts.map((part, i) => {
    const field = `Point ${i + 1}`;
    // The height with its unit, then the force with its own.
    const match = /^([\d.,/]+\s*[a-z"″”]*)[\s,]+([\d.,]+\s*[a-z]*)$/i.exec(part);
    if (!match) throw new InputError(field, `${field} must be a height and a force.`, 'e.g. 24 mm 1200 N');
    const read = (typed: string, quantity: 'length' | 'force') =>
      parseEntry(typed, {
        field,
        quantity,
        system,
        range: quantity === 'length' ? LIMITS.thicknessMm : { above: 0, max: LIMITS.forceN.max },
      }).entry;
    return { height: read(match[1] ?? '', 'length'), force: read(match[2] ?? '', 'force') };
  });
  points.forEach(({ height, force }, i) => {
    const before = points[i - 1];
    if (before && (entryBase(height) >= entryBase(before.height) || entryBase(force) <= entryBase(before.force)))
      throw new InputError(
        `Point ${i + 1}`,
        `Point ${i + 1}: a lower height must hold more.`,
        'heights falling, forces rising',
      );
  });
  const last = points.at(-1);
  return {
    value: points,
    said: last
      ? `${points.length} ${points.length === 1 ? 'point' : 'points'}, down to ${say(entryBase(last.height), 'length', system)}`
      : '',
  };
}
