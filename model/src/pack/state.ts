import {
  InputError,
  entryBase,
  frictionInterfaces,
  frictionRadius,
  groupFreeHeight,
  packBreakaway,
  springColumn,
  type ColumnState,
  type DiscSpring,
  type PackFriction,
  type PackMember,
  type SpringGroup,
} from '@hot-spline/core';
import { SPRING_KINDS, type Member, type Pack, type PlateSpec } from './schema';
import type { AxleName, Side } from '../document/names';
import { readingBase, type InForce, type Readings } from '../engine/readings';
import { caseDepth, stackHeight, thickness } from './readings';

export interface MemberState {
  readonly member: Member;
  readonly keyedTo: 'gear' | 'case';
  readonly lined: boolean;
  /** Measured where there is a reading in force, else the catalogue value. */
  readonly thicknessMm: number;
  readonly reading: InForce | null;
}

export interface PackSideState {
  readonly members: readonly MemberState[];
  /** Between gear face, members and case wall: one more than there are members. */
  readonly gaps: readonly boolean[];
  readonly interfaces: number;
  /** Without the springs. */
  readonly stackMm: number;
  /** `stack`: measured as a whole; `pieces`: sum of the pieces. */
  readonly stackFrom: 'stack' | 'pieces';
  readonly caseDepthMm: number;
  readonly caseDepthReading: InForce | null;
  readonly stackReading: InForce | null;
  readonly springs: readonly SpringGroup[];
  readonly springFreeMm: number;
  /** Room left for the springs: case depth less stack. */
  readonly springInstalledMm: number;
  readonly column: ColumnState | null;
  /** Why there is no clamp force, if there is none. */
  readonly clampProblem: { kind: 'slack' | 'refused'; error: string; field: string } | null;
  readonly clampN: number;
  readonly breakawayNm: number;
}

export interface PackState {
  readonly left: PackSideState;
  readonly right: PackSideState;
}

/** What a member turns with and whether it is lined. Everything but a splined plate turns with the case. */
export function memberTurns(member: Member): PackMember {
  return { keyedTo: member.kind === 'splined' ? 'gear' : 'case', lined: 'lined' in member && member.lined };
}

/** Whether a member gives way: it is then not in the stack height, and shares the room that is left. */
export const isSpring = ({ kind }: Member): boolean => (SPRING_KINDS as readonly string[]).includes(kind);
/** Plates whose order can be chosen. */
export const isPlate = ({ kind }: Member): boolean => kind === 'eared' || kind === 'splined';

const alike = (a: DiscSpring, b: DiscSpring): boolean =>
  a.outerDiameterMm === b.outerDiameterMm &&
  a.innerDiameterMm === b.innerDiameterMm &&
  a.coneHeightMm === b.coneHeightMm;

/** A spring that is no dished one, with its measured free height in place of the listed one. */
function otherSpring({ member, thicknessMm }: MemberState): SpringGroup | null {
  // Of a spring that presses both packs this one has the half: half the heights, and so twice the rate.
  const part = 'shared' in member && member.shared ? 2 : 1;
  switch (member.kind) {
    case 'wave':
      return {
        rateNPerMm: entryBase(member.flatForce) / entryBase(member.waveHeight),
        freeMm: thicknessMm + entryBase(member.waveHeight),
        solidMm: thicknessMm,
      };
    case 'coils':
      return {
        rateNPerMm: part * member.count * entryBase(member.rate),
        freeMm: thicknessMm / part,
        solidMm: entryBase(member.solidHeight) / part,
      };
    case 's-spring':
      return {
        freeMm: thicknessMm / part,
        points: member.points.map(({ height, force }) => ({
          heightMm: entryBase(height) / part,
          forceN: entryBase(force),
        })),
      };
    default:
      return null;
  }
}

interface Nested {
  readonly group: { spring: DiscSpring; nested: number };
  readonly hollow: 'in' | 'out';
}

/**
 * Springs in force order: dished neighbours that face the same way are nested, everything else is in series.
 * @throws InputError on `members` where nested springs are not alike
 */
function springGroups(members: readonly MemberState[]): SpringGroup[] {
  const groups: SpringGroup[] = [];
  let open: Nested | undefined;
  for (const state of members) {
    const { member } = state;
    if (member.kind !== 'spring') {
      open = undefined;
      const other = otherSpring(state);
      if (other) groups.push(other);
      continue;
    }
    const spring = {
      outerDiameterMm: entryBase(member.outerDiameter),
      innerDiameterMm: entryBase(member.innerDiameter),
      thicknessMm: state.thicknessMm,
      coneHeightMm: entryBase(member.coneHeight),
    };
    if (open?.hollow === member.hollow) {
      if (!alike(open.group.spring, spring)) {
        throw new InputError(
          'members',
          'members: nested dished springs must be of one size.',
          'equal springs, or turn one round',
        );
      }
      open.group.nested += 1;
    } else {
      open = { group: { spring, nested: 1 }, hollow: member.hollow };
      groups.push(open.group);
    }
  }
  return groups;
}

function stackReadingInForce(
  axle: AxleName,
  side: Side,
  members: readonly MemberState[],
  readings: Readings,
): InForce | null {
  const reading = readings.get(stackHeight.key({ axle, side }));
  const stood = reading && stackHeight.read(reading.subject);
  if (!stood) return null;
  const solid = members.filter(({ member }) => !isSpring(member));
  const same =
    solid.length === stood.memberIds.length && solid.every(({ member }) => stood.memberIds.includes(member.id));
  const newerPiece = solid.some((state) => state.reading && state.reading.seq > reading.seq);
  return same && !newerPiece ? reading : null;
}

/** The state of one pack from its specification and the readings in force. */
export function packSideState(
  plate: PlateSpec,
  axle: AxleName,
  side: Side,
  readings: Readings,
  shimMoreMm = 0,
): PackSideState {
  const pack: Pack = plate.packs[side];
  const members = pack.members.map((member): MemberState => {
    const reading = readings.get(thickness.key({ axle, side, memberId: member.id })) ?? null;
    return {
      member,
      ...memberTurns(member),
      thicknessMm: reading ? readingBase(reading) : entryBase(member.thickness),
      reading,
    };
  });
  const { interfaces, gaps } = frictionInterfaces([
    { keyedTo: 'gear', lined: pack.gearFace.lined },
    ...members.map(({ keyedTo, lined }) => ({ keyedTo, lined })),
    { keyedTo: 'case', lined: pack.caseWall.lined },
  ]);
  const stackReading = stackReadingInForce(axle, side, members, readings);
  const pieces = members.reduce((sum, state) => (isSpring(state.member) ? sum : sum + state.thicknessMm), 0);
  const stackMm = (stackReading ? readingBase(stackReading) : pieces) + shimMoreMm;
  const caseDepthReading = readings.get(caseDepth.key({ axle, side })) ?? null;
  const caseDepthMm = caseDepthReading ? readingBase(caseDepthReading) : entryBase(pack.caseDepth);
  const springInstalledMm = caseDepthMm - stackMm;
  const common = {
    members,
    gaps,
    interfaces,
    stackMm,
    stackFrom: stackReading ? ('stack' as const) : ('pieces' as const),
    stackReading,
    caseDepthMm,
    caseDepthReading,
    springInstalledMm,
  };
  const clamped = clamp(plate, members, springInstalledMm);
  return { ...common, ...clamped, breakawayNm: packBreakaway(sideFriction(plate, interfaces, clamped.clampN)) };
}

type Clamped = Pick<PackSideState, 'springs' | 'springFreeMm' | 'column' | 'clampProblem' | 'clampN'>;

function clamp(plate: PlateSpec, members: readonly MemberState[], installedMm: number): Clamped {
  let springs: SpringGroup[] = [];
  let springFreeMm = 0;
  try {
    springs = springGroups(members);
    springFreeMm = springs.reduce((sum, group) => sum + groupFreeHeight(group), 0);
    if (plate.preload.from === 'measured-force') {
      return { springs, springFreeMm, column: null, clampProblem: null, clampN: entryBase(plate.preload.force) };
    }
    const travel = springFreeMm - installedMm;
    if (springs.length === 0 || travel < 0) {
      const error = springs.length === 0 ? 'There is no spring in this pack.' : 'The springs stand free.';
      return {
        springs,
        springFreeMm,
        column: null,
        clampProblem: { kind: 'slack', error, field: 'members' },
        clampN: 0,
      };
    }
    const column = springColumn(springs, travel);
    return { springs, springFreeMm, column, clampProblem: null, clampN: column.forceN };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    const clampProblem = { kind: 'refused' as const, error: error.message, field: error.field };
    return { springs, springFreeMm, column: null, clampProblem, clampN: 0 };
  }
}

/** Mean friction radius of the lined plates in mm. */
export function plateRadius(plate: PlateSpec): number {
  return frictionRadius(
    entryBase(plate.frictionOuterDiameter) / 2,
    entryBase(plate.frictionInnerDiameter) / 2,
    plate.wearModel,
  );
}

/** What the core needs for the friction torque of one pack. */
export function sideFriction(plate: PlateSpec, interfaces: number, clampN: number): PackFriction {
  return {
    frictionCoefficient: entryBase(plate.frictionCoefficient),
    interfaces,
    clampN,
    outerRadiusMm: entryBase(plate.frictionOuterDiameter) / 2,
    innerRadiusMm: entryBase(plate.frictionInnerDiameter) / 2,
    wearModel: plate.wearModel,
  };
}
