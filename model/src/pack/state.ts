import {
  InputError,
  entryBase,
  frictionInterfaces,
  frictionRadius,
  groupFreeHeight,
  packBreakaway,
  springColumn,
  type AtTheWheel,
  type ColumnState,
  type DiscSpring,
  type PackFriction,
  type PackMember,
  type PreloadActs,
  type SpringGroup,
} from '@hot-spline/core';
import { SPRING_KINDS, type Member, type Pack, type PlateSpec } from './schema';
import type { AxleName, Side } from '../base/names';
import { readingBase, type InForce, type Readings } from '../frame/readings';
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
  /** In the pack, one after the other. */
  readonly springs: readonly SpringGroup[];
  /** How the springs in the pack act: in series unless all of them stand inside of a pressure ring. */
  readonly acts: PreloadActs;
  /** Springs between the side gears, in their gap; null where there are none. */
  readonly between: BetweenGears | null;
  readonly springFreeMm: number;
  /** Room left for the springs: case depth less stack. */
  readonly springInstalledMm: number;
  readonly column: ColumnState | null;
  /** Why there is no clamp force, if there is none. */
  readonly clampProblem: { kind: 'slack' | 'refused'; error: string; field: string } | null;
  /** At rest: the stronger of the springs in the pack and those between the gears. */
  readonly clampN: number;
  /** The same by how the springs act. */
  readonly rest: { readonly seriesN: number; readonly parallelN: number };
  /** Static: what breaks away. */
  readonly breakawayNm: number;
  /** While it slips. */
  readonly slidingNm: number;
}

/** Springs in the gap between the side gears: they push both gears outwards. */
export interface BetweenGears {
  readonly springs: readonly SpringGroup[];
  readonly freeMm: number;
  /** Null while nobody has measured the gap. */
  readonly gapMm: number | null;
  readonly forceN: number;
}

export interface PackState {
  readonly left: PackSideState;
  readonly right: PackSideState;
  /** What is in a torque wrench's reading beside the packs. */
  readonly wheel: WheelState;
}

export interface WheelState extends AtTheWheel {
  /** Turning torque with both wheels free was read: drag is known, and taken off. */
  readonly dragKnown: boolean;
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
  switch (member.kind) {
    case 'wave':
      return {
        rateNPerMm: entryBase(member.flatForce) / entryBase(member.waveHeight),
        freeMm: thicknessMm + entryBase(member.waveHeight),
        solidMm: thicknessMm,
      };
    case 'coils':
      return {
        rateNPerMm: member.count * entryBase(member.rate),
        freeMm: thicknessMm,
        solidMm: entryBase(member.solidHeight),
      };
    case 's-spring':
      return {
        freeMm: thicknessMm,
        points: member.points.map(({ height, force }) => ({
          heightMm: entryBase(height),
          forceN: entryBase(force),
        })),
      };
    default:
      return null;
  }
}

interface Nested {
  readonly discs: DiscSpring[];
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
      if (!alike(open.discs[0] ?? spring, spring)) {
        throw new InputError(
          'members',
          'members: nested dished springs must have one size across and one cone height; thickness may differ.',
          'equal springs, or turn one round',
        );
      }
      open.discs.push(spring);
    } else {
      open = { discs: [spring], hollow: member.hollow };
      groups.push({ discs: open.discs });
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

const isShared = ({ member }: MemberState): boolean => 'shared' in member && member.shared;

/** The pieces of one pack, each as measured or else by the catalogue. */
function membersOf(plate: PlateSpec, axle: AxleName, side: Side, readings: Readings): MemberState[] {
  return plate.packs[side].members.map((member): MemberState => {
    const reading = readings.get(thickness.key({ axle, side, memberId: member.id })) ?? null;
    return {
      member,
      ...memberTurns(member),
      thicknessMm: reading ? readingBase(reading) : entryBase(member.thickness),
      reading,
    };
  });
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
  const members = membersOf(plate, axle, side, readings);
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
  // One spring between the gears presses both packs, whichever of them it is listed with.
  const own = members.filter(isShared);
  const other = side === 'left' ? 'right' : 'left';
  const shared = own.length > 0 ? own : membersOf(plate, axle, other, readings).filter(isShared);
  // More shim on each side brings both gears inwards.
  const gapMm = plate.gearGap ? entryBase(plate.gearGap) - 2 * shimMoreMm : null;
  const clamped = clamp(plate, members, shared, springInstalledMm, gapMm);
  const friction = (coefficient: number): PackFriction => ({
    ...sideFriction(plate, interfaces, clamped.clampN),
    frictionCoefficient: coefficient,
  });
  return {
    members,
    gaps,
    interfaces,
    stackMm,
    stackFrom: stackReading ? 'stack' : 'pieces',
    stackReading,
    caseDepthMm,
    caseDepthReading,
    springInstalledMm,
    ...clamped,
    breakawayNm: packBreakaway(friction(entryBase(plate.frictionCoefficient))),
    slidingNm: packBreakaway(friction(slidingFriction(plate))),
  };
}

/** The coefficient while it slips; the static one until it has been measured. */
export const slidingFriction = ({ slidingCoefficient, frictionCoefficient }: PlateSpec): number =>
  entryBase(slidingCoefficient ?? frictionCoefficient);

type Clamped = Pick<
  PackSideState,
  'springs' | 'acts' | 'between' | 'springFreeMm' | 'column' | 'clampProblem' | 'clampN' | 'rest'
>;

/**
 * How springs in the pack act: the clamp passes through them on its way to the case, unless they stand inside of the pressure
 * ring that the ramps push, with no plate before it, and push it outwards as well [exact, statics of the ring].
 */
function columnActs(members: readonly MemberState[]): PreloadActs {
  const ring = members.findIndex(({ member }) => member.kind === 'ring');
  const inside = members.slice(0, Math.max(ring, 0));
  const springs = members.filter((state) => isSpring(state.member) && !isShared(state));
  const pushes = inside.every(({ member }) => !isPlate(member)) && springs.every((state) => inside.includes(state));
  return ring > 0 && springs.length > 0 && pushes ? 'parallel' : 'series';
}

function clamp(
  plate: PlateSpec,
  members: readonly MemberState[],
  shared: readonly MemberState[],
  installedMm: number,
  gapMm: number | null,
): Clamped {
  const acts = plate.preload.from === 'measured-force' ? plate.preload.acts : columnActs(members);
  let springs: SpringGroup[] = [];
  let springFreeMm = 0;
  let between: BetweenGears | null = null;
  const result = (
    columnN: number,
    column: ColumnState | null = null,
    clampProblem: PackSideState['clampProblem'] = null,
  ): Clamped => {
    const betweenN = between?.forceN ?? 0;
    const seriesN = acts === 'series' ? columnN : 0;
    const parallelN = Math.max(acts === 'parallel' ? columnN : 0, betweenN);
    const rest = { seriesN, parallelN };
    return { springs, acts, between, springFreeMm, column, clampProblem, rest, clampN: Math.max(seriesN, parallelN) };
  };
  const slack = (error: string): Clamped => result(0, null, { kind: 'slack', error, field: 'members' });
  try {
    springs = springGroups(members.filter((state) => !isShared(state)));
    springFreeMm = springs.reduce((sum, group) => sum + groupFreeHeight(group), 0);
    if (plate.preload.from === 'measured-force') return result(entryBase(plate.preload.force));
    if (shared.length > 0) {
      const groups = springGroups(shared);
      const freeMm = groups.reduce((sum, group) => sum + groupFreeHeight(group), 0);
      const pressed = gapMm === null ? 0 : freeMm - gapMm;
      between = { springs: groups, freeMm, gapMm, forceN: 0 };
      if (gapMm === null && springs.length === 0)
        return result(0, null, {
          kind: 'refused',
          error: 'gearGap: the gap between the side gears has not been entered.',
          field: 'gearGap',
        });
      if (pressed > 0) between = { ...between, forceN: betweenForce(groups, pressed) };
      if (springs.length === 0) return pressed > 0 ? result(0) : slack('The springs between the gears stand free.');
    }
    const travel = springFreeMm - installedMm;
    if (springs.length === 0) return slack('There is no spring in this pack.');
    if (travel < 0) return between?.forceN ? result(0) : slack('The springs stand free.');
    const column = springColumn(springs, travel);
    return result(column.forceN, column);
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return result(0, null, { kind: 'refused', error: error.message, field: error.field });
  }
}

/** @throws InputError on `gearGap` where the springs between the gears can't take the gap */
function betweenForce(groups: readonly SpringGroup[], pressedMm: number): number {
  try {
    return springColumn(groups, pressedMm).forceN;
  } catch (error) {
    if (!(error instanceof InputError) || error.field !== 'travelMm') throw error;
    throw new InputError(
      'gearGap',
      `gearGap: the springs between the gears would have to close by ${pressedMm.toFixed(2)} mm.`,
      error.allowed,
    );
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
