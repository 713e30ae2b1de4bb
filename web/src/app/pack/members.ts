import { entryOf } from '@hot-spline/core';
import { freshId, type Member, type PlateSpec, type Side } from '@hot-spline/model';

export type MemberKind = Member['kind'];

export const KIND_WORDS: Readonly<Record<MemberKind, string>> = {
  eared: 'steel, eared',
  splined: 'friction, splined',
  shim: 'shim',
  spring: 'dished spring',
};

const idsOf = (plate: PlateSpec): string[] =>
  [...plate.packs.left.members, ...plate.packs.right.members].map((member) => member.id);

/** A member like the last of its kind in the plate unit, or an ordinary one to be measured. */
export function newMember(plate: PlateSpec, side: Side, kind: MemberKind): Member {
  const id = freshId(idsOf(plate), side.slice(0, 1));
  const model = [...plate.packs[side].members].reverse().find((member) => member.kind === kind);
  if (model) return { ...structuredClone(model), id };
  const mm = (value: number) => entryOf(value, 'mm');
  switch (kind) {
    case 'eared':
      return { id, kind, label: 'steel', lined: false, thickness: mm(2) };
    case 'splined':
      return { id, kind, label: 'friction', lined: true, thickness: mm(2) };
    case 'shim':
      return { id, kind, label: 'shim', thickness: mm(0.5) };
    case 'spring': {
      const { frictionOuterDiameter: outerDiameter, frictionInnerDiameter: innerDiameter } = plate;
      return {
        id,
        kind,
        label: 'dished spring',
        thickness: mm(2),
        outerDiameter,
        innerDiameter,
        coneHeight: mm(1.2),
        hollow: 'in',
      };
    }
  }
}

/** Inserts a new member where it belongs: springs outermost, shims before the springs, plates before both. */
export function addMember(plate: PlateSpec, side: Side, kind: MemberKind): Member {
  const member = newMember(plate, side, kind);
  const { members } = plate.packs[side];
  const before = (kinds: MemberKind[]): number => {
    const at = members.findIndex((other) => kinds.includes(other.kind));
    return at < 0 ? members.length : at;
  };
  const index = kind === 'spring' ? members.length : kind === 'shim' ? before(['spring']) : before(['shim', 'spring']);
  members.splice(index, 0, member);
  return member;
}

/** Moves a member to another place in its pack. @returns whether it moved */
export function moveMember(plate: PlateSpec, side: Side, from: number, to: number): boolean {
  const { members } = plate.packs[side];
  if (from === to || to < 0 || to >= members.length) return false;
  const [member] = members.splice(from, 1);
  if (!member) return false;
  members.splice(to, 0, member);
  return true;
}

/** Makes the right pack in the order and catalogue sizes of the left one, keeping ids (and so readings) by place and kind. */
export function mirrorLeft(plate: PlateSpec): void {
  const old = [...plate.packs.right.members];
  const taken = new Set(idsOf(plate));
  plate.packs.right.members = plate.packs.left.members.map((member) => {
    const at = old.findIndex((other) => other.kind === member.kind);
    const id = at < 0 ? freshId(taken, 'r') : (old.splice(at, 1)[0]?.id ?? member.id);
    taken.add(id);
    return { ...structuredClone(member), id };
  });
}
