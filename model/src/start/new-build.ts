import { CONVERTER_CAPACITY, SHOCK, entryOf } from '@hot-spline/core/page';
import { openUnit } from '../unit/new-unit';
import type { Axle, Build } from '../frame/document';
import { FORMAT_VERSION } from '../base/version';
import type { Brief } from '../identity/schema';
import type { Road } from '../road/schema';

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
    limits: { cruiseRpm: null, time: null, topSpeed: null, crawl: null },
    complaints: [],
    complaintAt: [],
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
    box: null,
    boxWork: null,
    startPoint: { gear: 2, range: 0, rpm: 4000 },
  };
}
