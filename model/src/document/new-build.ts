import { CONVERTER_CAPACITY, SHOCK, entryOf } from '@hot-spline/core';
import { USUAL_SCHOOLS, type Schools } from '../library/schools';
import { UNIT_PARTS, type Unit } from '../unit/schema';
import type { Axle, Build } from './schema';
import { FORMAT_VERSION } from '../base/version';
import type { Brief } from '../identity/schema';
import type { Member, Pack, PlateSpec } from '../pack/schema';
import type { Road } from '../road/schema';

/** A short id that is unique inside one build. */
export function freshId(taken: Iterable<string>, prefix: string): string {
  const used = new Set(taken);
  let n = used.size + 1;
  while (used.has(`${prefix}${n}`)) n++;
  return `${prefix}${n}`;
}

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

/** An open differential, and nothing said of any other type. */
export function openUnit(): Unit {
  return { type: 'open', plate: null, sideGear: null, cone: null, helical: null, insert: null, engaged: true };
}

/** Ordinary parts of every type: round figures of ours, to be replaced by the maker's. */
export const ORDINARY = {
  sideGear: (): NonNullable<Unit['sideGear']> => ({
    meanRadius: entryOf(30, 'mm'),
    pressureAngle: entryOf(22.5, '°'),
    coneAngle: entryOf(55, '°'),
  }),
  cone: (): NonNullable<Unit['cone']> => ({
    frictionCoefficient: entryOf(0.12, ''),
    meanRadius: entryOf(40, 'mm'),
    halfAngle: entryOf(9, '°'),
    preload: entryOf(1200, 'N'),
  }),
  helical: (): NonNullable<Unit['helical']> => ({
    biasRatio: entryOf(2.7, ''),
    preload: entryOf(0, 'N·m'),
    platesFrom: entryOf(600, 'N·m'),
    platesHold: entryOf(30, '%'),
  }),
  insert: (): NonNullable<Unit['insert']> => ({ lock: entryOf(120, 'N·m') }),
} as const;

/**
 * The unit as one of another type: its parts as they were, or ordinary ones.
 * @param schools of the shop, for plates that are new
 */
export function unitAs(unit: Unit, type: Unit['type'], schools?: Schools): Unit {
  const ordinary = { ...ORDINARY, plate: () => newPlateSpec(schools) };
  const needed = UNIT_PARTS[type].map((part) => [part, unit[part] ?? ordinary[part]()]);
  return { ...unit, type, ...(Object.fromEntries(needed) as Partial<Unit>) };
}

export function newAxle(): Axle {
  return {
    finalDrive: { ring: 41, pinion: 10 },
    hubRatio: entryOf(1, ''),
    tyre: { designation: '225/45R17', wear: null, growth: null, factor: 'radial', measured: null },
    unit: openUnit(),
    identity: null,
    carrier: '',
    matchNumbers: { ring: '', pinion: '' },
    setup: null,
    work: null,
    joint: null,
    shafts: null,
  };
}

/** A brief to start from: least time over a quarter mile. */
export function newBrief(): Brief {
  return {
    goal: 'time',
    distance: entryOf(402.336, 'metre'),
    window: { lowRpm: 4000, highRpm: 6500 },
    crawlRatio: entryOf(60, ''),
    complaints: [],
    plannedTyre: null,
    was: null,
    sender: 'gearbox',
    climb: { gear: 0, speed: entryOf(30, 'km/h'), grade: entryOf(12, '%'), load: entryOf(0, 'kg') },
    noise: { speed: entryOf(80, 'km/h'), rollers: 17, diameterRatio: entryOf(0.2, ''), contactAngle: entryOf(13, '°') },
    unitWeights: null,
    ladder: [50, 80, 100, 130].map((speed) => entryOf(speed, 'km/h')),
  };
}

/** A car to start from; round figures, to be replaced by what the scales and the sheet say. */
export function newRoad(): Road {
  return {
    mass: entryOf(1300, 'kg'),
    rearShare: entryOf(48, '%'),
    cgHeight: entryOf(500, 'mm'),
    wheelbase: entryOf(2550, 'mm'),
    track: entryOf(1500, 'mm'),
    dragArea: entryOf(0.7, 'm²'),
    downforceArea: entryOf(0, 'm²'),
    rollingCoefficient: entryOf(0.013, ''),
    grip: entryOf(1, ''),
    efficiency: entryOf(88, '%'),
    inertiaFactor: null,
    grade: entryOf(0, '%'),
    wheelSlip: entryOf(0, '%'),
    shock: entryOf(SHOCK, ''),
    dragHeight: null,
    overrun: entryOf(20, '%'),
  };
}

/** A converter to start from. */
export function newConverter(): Extract<Build['coupling'], { kind: 'converter' }> {
  return {
    kind: 'converter',
    stallRpm: 2000,
    torqueRatio: entryOf(2, ''),
    couplingRatio: entryOf(0.87, ''),
    slip: entryOf(3, '%'),
    fullUpTo: entryOf(CONVERTER_CAPACITY.fullUpTo, ''),
    shareAtCoupling: entryOf(100 * CONVERTER_CAPACITY.shareAtCoupling, '%'),
  };
}

/** A build to start from: valid, ordinary, every value to be replaced by the job's own. */
export function newBuild(name: string): Build {
  const gears: [string, number][] = [
    ['1', 3.3],
    ['2', 2],
    ['3', 1.4],
    ['4', 1.1],
    ['5', 0.9],
  ];
  return {
    format: 'hot-spline/build',
    formatVersion: FORMAT_VERSION,
    name,
    vehicle: '',
    use: 'street',
    customer: null,
    promised: null,
    worker: '',
    notes: '',
    assumed: [],
    engine: {
      kind: 'combustion',
      torqueCurve: [
        { rpm: 1500, torque: entryOf(150, 'N·m') },
        { rpm: 4000, torque: entryOf(200, 'N·m') },
        { rpm: 6500, torque: entryOf(170, 'N·m') },
      ],
      limitRpm: 6800,
      launchRpm: 3000,
    },
    coupling: { kind: 'clutch', capacity: entryOf(300, 'N·m') },
    gearbox: {
      kind: 'synchro',
      gears: gears.map(([gear, ratio]) => ({ name: gear, ratio: entryOf(ratio, '') })),
      shiftTime: entryOf(0.3, 's'),
      from: null,
    },
    transfer: null,
    driven: 'rear',
    axles: { rear: newAxle(), front: null },
    cruiseSpeed: entryOf(100, 'km/h'),
    candidates: [],
    brief: newBrief(),
    road: newRoad(),
    shelf: { pairs: [], finals: [], steps: 'shrinking', floorRpm: 0, limiterMargin: entryOf(2, '%') },
    course: null,
    points: [],
    practice: null,
    startPoint: { gear: 2, range: 0, rpm: 4000 },
  };
}
