import { entryOf } from '@hot-spline/core';
import { freshId, type Member, type PlateSpec, type Side } from '@hot-spline/model';

export type MemberKind = Member['kind'];

export const KIND_WORDS: Readonly<Record<MemberKind, string>> = {
  eared: 'steel, eared',
  splined: 'friction, splined',
  shim: 'shim',
  spring: 'dished spring',
  ring: 'pressure ring',
  wave: 'wave plate',
  coils: 'coil springs',
  's-spring': 'S-spring',
};

const idsOf = (plate: PlateSpec): string[] =>
  [...plate.packs.left.members, ...plate.packs.right.members].map((member) => member.id);

/** A member like the last of its kind in the plate unit, or an ordinary one to be measured. */
export function newMember(plate: PlateSpec, side: Side, kind: MemberKind): Member {
  const id = freshId(idsOf(plate), side.slice(0, 1));
  const model = [...plate.packs[side].members].reverse().find((member) => member.kind === kind);
  const condition = null;
  if (model) return { ...structuredClone(model), id, condition };
  const mm = (value: number) => entryOf(value, 'mm');
  switch (kind) {
    case 'eared':
      return { id, kind, label: 'steel', lined: false, thickness: mm(2), condition };
    case 'splined':
      return { id, kind, label: 'friction', lined: true, thickness: mm(2), condition };
    case 'shim':
      return { id, kind, label: 'shim', thickness: mm(0.5), condition };
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
        condition,
      };
    }
    case 'ring':
      return { id, kind, label: 'pressure ring', thickness: mm(6), condition };
    case 'wave': {
      const flatForce = entryOf(800, 'N');
      return {
        id,
        kind,
        label: 'wave plate',
        lined: false,
        thickness: mm(1.5),
        waveHeight: mm(0.6),
        flatForce,
        condition,
      };
    }
    case 'coils': {
      const rate = entryOf(40, 'N/mm');
      const solidHeight = mm(20);
      return {
        id,
        kind,
        label: 'coil springs',
        thickness: mm(30),
        count: 4,
        rate,
        solidHeight,
        shared: true,
        condition,
      };
    }
    case 's-spring': {
      const points = [{ height: mm(24), force: entryOf(1200, 'N') }];
      return { id, kind, label: 'S-spring', thickness: mm(30), points, shared: true, condition };
    }
  }
}

/** From the gear outwards: plates, then the ring that presses them, shims, springs. */
const PLACES: Readonly<Record<MemberKind, number>> = {
  eared: 0,
  splined: 0,
  wave: 1,
  ring: 2,
  shim: 3,
  spring: 4,
  coils: 4,
  's-spring': 4,
};

/** Inserts a new member where it belongs. */
export function addMember(plate: PlateSpec, side: Side, kind: MemberKind): Member {
  const member = newMember(plate, side, kind);
  const { members } = plate.packs[side];
  const after = members.findIndex((other) => PLACES[other.kind] > PLACES[kind]);
  members.splice(after < 0 ? members.length : after, 0, member);
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

/** Makes the right pack in the order and catalogue sizes of the left one, keeping ids (and so readings) and what was seen by place and kind. */
export function mirrorLeft(plate: PlateSpec): void {
  const old = [...plate.packs.right.members];
  const taken = new Set(idsOf(plate));
  plate.packs.right.members = plate.packs.left.members.map((member) => {
    const at = old.findIndex((other) => other.kind === member.kind);
    const was = at < 0 ? undefined : old.splice(at, 1)[0];
    const id = was?.id ?? freshId(taken, 'r');
    taken.add(id);
    return { ...structuredClone(member), id, condition: was?.condition ?? null };
  });
}
