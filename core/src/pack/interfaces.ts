import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';

/** What a member turns with, and whether it carries friction material. */
export interface PackMember {
  readonly keyedTo: 'gear' | 'case';
  readonly lined: boolean;
}

/**
 * Friction interfaces of a pack: neighbours that turn with different bodies *and* have a friction lining between
 * them. Two eared plates side by side make none [exact].
 * Not counted: bare metal on bare metal, which rubs with an unreliable coefficient of its own.
 * @param members outwards from the side gear; the gear's back face and the case wall count only if they are listed
 * @returns how many, and for each gap between neighbours whether it is one
 * @throws InputError on `members` for more than 100
 */
export function frictionInterfaces(members: readonly PackMember[]): { interfaces: number; gaps: boolean[] } {
  requireNumber('members', members.length, LIMITS.packMembers);
  const gaps = members.slice(1).map((outer, i) => {
    const inner = members[i] as PackMember;
    return inner.keyedTo !== outer.keyedTo && (inner.lined || outer.lined);
  });
  return { interfaces: gaps.filter(Boolean).length, gaps };
}
