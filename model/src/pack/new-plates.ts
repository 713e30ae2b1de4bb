import { entryOf } from '@hot-spline/core/page';
import { USUAL_SCHOOLS, type Schools } from '../library/schools';
import type { Member, Pack, PlateSpec } from './schema';

function plainMembers(side: string): Member[] {
  const mm = (value: number) => entryOf(value, 'mm');
  const steel = (n: number): Member => ({
    id: `${side}s${n}`,
    kind: 'eared',
    label: 'steel',
    lined: false,
    thickness: mm(2),
    condition: null,
  });
  const friction = (n: number): Member => ({
    id: `${side}f${n}`,
    kind: 'splined',
    label: 'friction',
    lined: true,
    thickness: mm(2),
    condition: null,
  });
  return [
    steel(1),
    friction(1),
    steel(2),
    friction(2),
    steel(3),
    { id: `${side}z1`, kind: 'shim', label: 'shim', thickness: mm(0.8), condition: null },
    {
      id: `${side}d1`,
      kind: 'spring',
      label: 'dished spring',
      thickness: mm(1.5),
      outerDiameter: mm(100),
      innerDiameter: mm(70),
      coneHeight: mm(1.2),
      hollow: 'in',
      condition: null,
    },
  ];
}

const newPack = (side: string): Pack => ({
  caseDepth: entryOf(12.8, 'mm'),
  gearFace: { lined: false, condition: null },
  caseWall: { lined: false, condition: null },
  members: plainMembers(side),
});

/** A plate unit to start from when a unit first becomes one. Round figures, to be replaced by the maker's. */
export function newPlateSpec(schools: Pick<Schools, 'wearModel' | 'rampFrom'> = USUAL_SCHOOLS): PlateSpec {
  const mm = (value: number) => entryOf(value, 'mm');
  // The same steel, quoted as the shop quotes it.
  const ramp = (fromPlane: number) => entryOf(schools.rampFrom === 'axis' ? 90 - fromPlane : fromPlane, '°');
  return {
    action: 'two-way',
    rampFrom: schools.rampFrom,
    driveRamp: ramp(50),
    overrunRamp: ramp(70),
    pinRadius: mm(35),
    frictionCoefficient: entryOf(0.1, ''),
    slidingCoefficient: null,
    frictionBedded: false,
    rampFriction: entryOf(0.1, ''),
    frictionPlates: '',
    frictionFrom: null,
    oil: '',
    frictionSpread: null,
    bedding: entryOf(85, '%'),
    wanted: null,
    frictionOuterDiameter: mm(100),
    frictionInnerDiameter: mm(70),
    wearModel: schools.wearModel,
    preload: { from: 'dished-springs' },
    gearGap: null,
    springLoad: { minus: entryOf(7.5, '%'), plus: entryOf(15, '%') },
    targetHeight: mm(10.8),
    tolerance: mm(0.1),
    sideGearBacklash: null,
    wearLimit: null,
    offers: { overhaul: null, replace: null },
    neededInDays: null,
    recheck: null,
    packs: {
      left: newPack('l'),
      right: newPack('r'),
    },
  };
}
