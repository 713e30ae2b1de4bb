import {
  InputError,
  discGroupFreeHeight,
  entryBase,
  frictionInterfaces,
  frictionRadius,
  packBreakaway,
  springColumn,
  type ColumnState,
  type DiscGroup,
  type PackFriction,
  type PackMember,
} from '@hot-spline/core';
import type { AxleName, Member, Pack, PlateSpec, Side } from '../build/schema';
import { subjectKey } from '../ledger/readings';
import type { Reading } from '../ledger/schema';

export type Readings = ReadonlyMap<string, Reading>;

export interface MemberState {
  readonly member: Member;
  readonly keyedTo: 'gear' | 'case';
  readonly lined: boolean;
  /** Measured where there is a reading in force, else the catalogue value. */
  readonly thicknessMm: number;
  readonly reading: Reading | null;
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
  readonly caseDepthReading: Reading | null;
  readonly stackReading: Reading | null;
  readonly springs: readonly DiscGroup[];
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

/** What a member turns with and whether it is lined. Shims and springs turn with the case. */
export function memberTurns(member: Member): PackMember {
  return {
    keyedTo: member.kind === 'splined' ? 'gear' : 'case',
    lined: (member.kind === 'splined' || member.kind === 'eared') && member.lined,
  };
}

const alike = (a: DiscGroup['spring'], b: DiscGroup['spring']): boolean =>
  a.outerDiameterMm === b.outerDiameterMm &&
  a.innerDiameterMm === b.innerDiameterMm &&
  a.coneHeightMm === b.coneHeightMm;

/**
 * Springs in force order: neighbours that face the same way are nested, everything else is in series.
 * @throws InputError on `members` where nested springs are not alike
 */
function springGroups(members: readonly MemberState[]): DiscGroup[] {
  const groups: { spring: DiscGroup['spring']; nested: number }[] = [];
  let before: MemberState | null = null;
  for (const state of members) {
    const { member } = state;
    if (member.kind === 'spring') {
      const spring = {
        outerDiameterMm: entryBase(member.outerDiameter),
        innerDiameterMm: entryBase(member.innerDiameter),
        thicknessMm: state.thicknessMm,
        coneHeightMm: entryBase(member.coneHeight),
      };
      const last = groups.at(-1);
      if (last && before?.member.kind === 'spring' && before.member.hollow === member.hollow) {
        if (!alike(last.spring, spring)) {
          throw new InputError(
            'members',
            'members: nested dished springs must be of one size.',
            'equal springs, or turn one round',
          );
        }
        last.nested += 1;
      } else {
        groups.push({ spring, nested: 1 });
      }
    }
    before = state;
  }
  return groups;
}

function stackReadingInForce(
  axle: AxleName,
  side: Side,
  members: readonly MemberState[],
  readings: Readings,
): Reading | null {
  const reading = readings.get(`stack-height/${axle}/${side}`) ?? null;
  if (reading?.subject.what !== 'stack-height') return null;
  const solid = members.filter(({ member }) => member.kind !== 'spring');
  const same =
    solid.length === reading.subject.memberIds.length &&
    solid.every(
      ({ member }) => reading.subject.what === 'stack-height' && reading.subject.memberIds.includes(member.id),
    );
  const newerPiece = solid.some((state) => state.reading && state.reading.at > reading.at);
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
    const reading = readings.get(subjectKey({ what: 'thickness', axle, side, memberId: member.id })) ?? null;
    return {
      member,
      ...memberTurns(member),
      thicknessMm: entryBase((reading ?? { value: member.thickness }).value),
      reading,
    };
  });
  const { interfaces, gaps } = frictionInterfaces([
    { keyedTo: 'gear', lined: false },
    ...members.map(({ keyedTo, lined }) => ({ keyedTo, lined })),
    { keyedTo: 'case', lined: false },
  ]);
  const stackReading = stackReadingInForce(axle, side, members, readings);
  const pieces = members.reduce((sum, state) => (state.member.kind === 'spring' ? sum : sum + state.thicknessMm), 0);
  const stackMm = (stackReading ? entryBase(stackReading.value) : pieces) + shimMoreMm;
  const caseDepthReading = readings.get(subjectKey({ what: 'case-depth', axle, side })) ?? null;
  const caseDepthMm = entryBase((caseDepthReading ?? { value: pack.caseDepth }).value);
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
  let springs: DiscGroup[] = [];
  let springFreeMm = 0;
  try {
    springs = springGroups(members);
    springFreeMm = springs.reduce((sum, group) => sum + discGroupFreeHeight(group), 0);
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
