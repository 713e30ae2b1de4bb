import { InputError } from '@hot-spline/core/page';
import { FORMAT_VERSION } from '../base/version';

/** What is kept and grows. A file is upgraded by its parts. */
export type Kept = 'build' | 'ledger-entry' | 'library-spec';

type Plain = Record<string, unknown>;
const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** One step: a document of version `from` as one of the next version. Numbered, pure, forward only. */
interface Step {
  readonly from: number;
  readonly upgrade: Readonly<Record<Kept, (document: Plain) => Plain>>;
}

/** Version 1 grew in place while it was young: what an early one lacks is put in as it was meant then. */
function wholeVersion1(build: Plain): Plain {
  const nulls = (keys: readonly string[]): Plain => Object.fromEntries(keys.map((key) => [key, null]));
  const face = { lined: false, condition: null };
  const pack = (one: unknown): unknown =>
    isPlain(one)
      ? {
          gearFace: face,
          caseWall: face,
          ...one,
          members: Array.isArray(one['members'])
            ? one['members'].map((member: unknown) => (isPlain(member) ? { condition: null, ...member } : member))
            : one['members'],
        }
      : one;
  const plate = (one: unknown): unknown => {
    if (!isPlain(one)) return one;
    const packs = isPlain(one['packs']) ? one['packs'] : {};
    return {
      ...nulls(['frictionSpread', 'wanted', 'sideGearBacklash', 'wearLimit', 'neededInDays', 'recheck']),
      frictionPlates: '',
      oil: '',
      bedding: { typed: '85 %', value: 85, unit: '%' },
      offers: { overhaul: null, replace: null },
      ...one,
      packs: { ...packs, left: pack(packs['left']), right: pack(packs['right']) },
    };
  };
  const axle = (one: unknown): unknown => {
    if (!isPlain(one)) return one;
    const unit = isPlain(one['unit']) ? one['unit'] : {};
    return {
      identity: null,
      carrier: '',
      matchNumbers: { ring: '', pinion: '' },
      ...one,
      unit: {
        ...nulls(['plate', 'sideGear', 'cone', 'helical', 'insert']),
        engaged: true,
        ...unit,
        plate: plate(unit['plate'] ?? null),
      },
    };
  };
  const road = isPlain(build['road']) ? build['road'] : {};
  const axles = isPlain(build['axles']) ? build['axles'] : {};
  return {
    notes: '',
    candidates: [],
    course: null,
    points: [],
    ...build,
    road: { track: { typed: '1500 mm', value: 1500, unit: 'mm' }, ...road },
    axles: { ...axles, rear: axle(axles['rear'] ?? null), front: axle(axles['front'] ?? null) },
  };
}

/** What a spec of the library says since version 3. */
function thirdSpec(spec: Plain): Plain {
  const each = (list: unknown, change: (one: Plain) => Plain): unknown =>
    Array.isArray(list) ? list.map((one: unknown) => (isPlain(one) ? change(one) : one)) : list;
  if (spec['kind'] === 'axle')
    return {
      extras: { ringBolts: null, recalibration: null },
      ...spec,
      carriers: each(spec['carriers'], (one) => ({ price: null, leadDays: null, ...one })),
      sets: each(spec['sets'], (one) => ({ welded: false, ...one })),
    };
  if (spec['kind'] === 'friction')
    return { ...spec, readings: each(spec['readings'], (one) => ({ kind: 'static', bedded: false, ...one })) };
  return spec;
}

function withThirdKeys(build: Plain): Plain {
  const entry = (typed: string, value: number, unit: string): Plain => ({ typed, value, unit });
  const plate = (one: unknown): unknown => {
    if (!isPlain(one)) return one;
    const { preload } = one;
    return {
      slidingCoefficient: null,
      frictionBedded: false,
      rampFriction: entry('0.1', 0.1, ''),
      gearGap: null,
      springLoad: { minus: entry('7.5 %', 7.5, '%'), plus: entry('15 %', 15, '%') },
      ...one,
      preload: isPlain(preload) && preload['from'] === 'measured-force' ? { acts: 'series', ...preload } : preload,
    };
  };
  const axle = (one: unknown): unknown => {
    if (!isPlain(one)) return one;
    const { unit, identity } = one;
    return {
      ...one,
      unit: isPlain(unit) ? { ...unit, plate: plate(unit['plate']) } : unit,
      identity: isPlain(identity) ? thirdSpec(identity) : identity,
    };
  };
  const climb = {
    gear: 0,
    speed: entry('30 km/h', 30, 'km/h'),
    grade: entry('12 %', 12, '%'),
    load: entry('0 kg', 0, 'kg'),
  };
  const noise = {
    speed: entry('80 km/h', 80, 'km/h'),
    rollers: 17,
    diameterRatio: entry('0.2', 0.2, ''),
    contactAngle: entry('13°', 13, '°'),
  };
  const part = (key: string): Plain => (isPlain(build[key]) ? (build[key] as Plain) : {});
  const axles = part('axles');
  return {
    ...build,
    brief: { climb, noise, unitWeights: null, ...part('brief') },
    road: { dragHeight: null, overrun: entry('20 %', 20, '%'), ...part('road') },
    axles: { ...axles, rear: axle(axles['rear'] ?? null), front: axle(axles['front'] ?? null) },
  };
}

/** Names of the sheet's values as version 4 had them. */
const SHEET_OF_4 = [
  'backlash',
  'runout',
  'variation',
  'pinionTorqueNew',
  'pinionTorqueUsed',
  'totalTorque',
  'carrierPreload',
  'spreadLimit',
  'mountingDistance',
  'bearingBore',
  'adjusterPitch',
  'adjusterNotches',
  'adjusterWrench',
  'ringBoltTorque',
  'capTorque',
  'adjusterTorque',
  'pinionNutTorque',
  'coverTorque',
  'retentionTorque',
  'wheelEndTorque',
  'fluid',
  'volume',
  'additive',
];

/** The spec sheet of an axle, the seat of a drawer; one construction has the name that it has everywhere else. */
function fourthSpec(spec: Plain): Plain {
  if (spec['kind'] === 'shims') return { seat: 'pack', bore: null, outside: null, ...spec };
  if (spec['kind'] !== 'axle') return spec;
  const { construction } = spec;
  return {
    sheet: Object.fromEntries(SHEET_OF_4.map((key) => [key, null])),
    ...spec,
    construction:
      isPlain(construction) && construction['value'] === 'integral-threaded'
        ? { ...construction, value: 'integral-adjusters' }
        : construction,
  };
}

function withSetup(build: Plain): Plain {
  const axle = (one: unknown): unknown => {
    if (!isPlain(one)) return one;
    const { identity } = one;
    return { setup: null, ...one, identity: isPlain(identity) ? fourthSpec(identity) : identity };
  };
  const axles = isPlain(build['axles']) ? build['axles'] : {};
  return {
    practice: null,
    ...build,
    axles: { ...axles, rear: axle(axles['rear'] ?? null), front: axle(axles['front'] ?? null) },
  };
}

/** End float, of units whose one shim sets nothing else. */
function fifthSpec(spec: Plain): Plain {
  const { sheet } = spec;
  return isPlain(sheet) ? { ...spec, sheet: { endFloat: null, ...sheet } } : spec;
}

function withFifthKeys(build: Plain): Plain {
  const axle = (one: unknown): unknown => {
    if (!isPlain(one)) return one;
    const { identity } = one;
    return { ...one, identity: isPlain(identity) ? fifthSpec(identity) : identity };
  };
  const axles = isPlain(build['axles']) ? build['axles'] : {};
  return { ...build, axles: { ...axles, rear: axle(axles['rear'] ?? null), front: axle(axles['front'] ?? null) } };
}

/** What holds the shafts. */
const sixthSpec = (spec: Plain): Plain => (spec['kind'] === 'axle' ? { retention: null, ...spec } : spec);

function withSixthKeys(build: Plain): Plain {
  const axle = (one: unknown): unknown => {
    if (!isPlain(one)) return one;
    const { identity } = one;
    return {
      work: null,
      joint: null,
      shafts: null,
      ...one,
      identity: isPlain(identity) ? sixthSpec(identity) : identity,
    };
  };
  const axles = isPlain(build['axles']) ? build['axles'] : {};
  return {
    customer: null,
    promised: null,
    worker: '',
    ...build,
    axles: { ...axles, rear: axle(axles['rear'] ?? null), front: axle(axles['front'] ?? null) },
  };
}

/** What locks the ring bolts besides compound, which pattern a tool has, hours of a complete unit, the day of a recheck. */
function withSeventhKeys(build: Plain): Plain {
  const axle = (one: unknown): unknown => {
    if (!isPlain(one)) return one;
    const { joint, work } = one;
    const tools = isPlain(work) && Array.isArray(work['tools']) ? (work['tools'] as unknown[]) : [];
    return {
      ...one,
      joint: isPlain(joint) ? { tabs: false, caseHardness: null, ...joint } : joint,
      work: isPlain(work)
        ? {
            ...work,
            complete: { hours: null, ...(isPlain(work['complete']) ? work['complete'] : {}) },
            runIn: { on: null, ...(isPlain(work['runIn']) ? work['runIn'] : {}) },
            tools: tools.map((tool) => (isPlain(tool) ? { pattern: '', ...tool } : tool)),
          }
        : work,
    };
  };
  const axles = isPlain(build['axles']) ? build['axles'] : {};
  return { ...build, axles: { ...axles, rear: axle(axles['rear'] ?? null), front: axle(axles['front'] ?? null) } };
}

/** Pitch of the pinion nut: how fast a spacer comes grows with it. */
function eighthSpec(spec: Plain): Plain {
  const { sheet } = spec;
  return isPlain(sheet) ? { ...spec, sheet: { pinionNutPitch: null, ...sheet } } : spec;
}

/**
 * One shock for every link of the driveline in place of the ring joint's own; where a torque of the joint was read; hollow shafts,
 * splines of other angles, what prop shaft and pinion hold; how a converter's capacity falls; where friction and gears came from.
 */
function withEighthKeys(build: Plain): Plain {
  const axles = isPlain(build['axles']) ? build['axles'] : {};
  const joints = [axles['rear'], axles['front']].flatMap((axle) =>
    isPlain(axle) && isPlain(axle['joint']) ? [axle['joint']] : [],
  );
  const shocks = joints.map((joint) => joint['shock']).filter(isPlain);
  const most = shocks.sort((a, b) => Number(b['value']) - Number(a['value']))[0];
  const end = (one: unknown): unknown => (isPlain(one) ? { angle: 30, bore: null, ...one } : one);
  const axle = (one: unknown): unknown => {
    if (!isPlain(one)) return one;
    const { joint, shafts, unit, identity } = one;
    const { shock: _, ...own } = isPlain(joint) ? joint : {};
    const { torque, fit } = own;
    const prop = isPlain(shafts) ? shafts['prop'] : null;
    return {
      ...one,
      identity: isPlain(identity) ? eighthSpec(identity) : identity,
      unit:
        isPlain(unit) && isPlain(unit['plate']) ? { ...unit, plate: { frictionFrom: null, ...unit['plate'] } } : unit,
      joint: isPlain(joint)
        ? {
            ...own,
            torque: isPlain(torque) ? { where: '', ...torque } : torque,
            fit: isPlain(fit) ? { limit: null, ...fit } : fit,
          }
        : joint,
      shafts: isPlain(shafts)
        ? {
            pinion: null,
            ...shafts,
            left: end(shafts['left']),
            right: end(shafts['right']),
            prop: isPlain(prop)
              ? { inPhase: true, material: 'unknown', shear: null, jointTorque: null, ...prop }
              : prop,
          }
        : shafts,
    };
  };
  const { coupling, gearbox, road } = build;
  return {
    ...build,
    coupling:
      isPlain(coupling) && coupling['kind'] === 'converter'
        ? {
            fullUpTo: { typed: '0.7', value: 0.7, unit: '' },
            shareAtCoupling: { typed: '50 %', value: 50, unit: '%' },
            ...coupling,
          }
        : coupling,
    gearbox: isPlain(gearbox) ? { from: null, ...gearbox } : gearbox,
    road: isPlain(road) ? { shock: most ?? { typed: '1.5', value: 1.5, unit: '' }, ...road } : road,
    axles: { ...axles, rear: axle(axles['rear'] ?? null), front: axle(axles['front'] ?? null) },
  };
}

/** A gearbox that is worked on is one of the facts; the sealing rings of a locker go on after a dry trial. */
function withNinthKeys(build: Plain): Plain {
  const axles = isPlain(build['axles']) ? build['axles'] : {};
  const axle = (one: unknown): unknown => {
    if (!isPlain(one) || !isPlain(one['work'])) return one;
    const { box, schools, ...work } = one['work'];
    const facts = box === undefined || box === 'stays' ? {} : { box };
    return {
      ...one,
      work: { ...work, schools: { ...(isPlain(schools) ? schools : {}), lockerRings: 'after-dry-trial' }, facts },
    };
  };
  return { ...build, axles: { ...axles, rear: axle(axles['rear']), front: axle(axles['front']) } };
}

/** What is at the ends of an axle and what opens its case are said; adjusters are run up by a sequence of the sheet; the carrier alone and the growth of its case have bands of their own. */
function tenthSpec(spec: Plain): Plain {
  const { sheet } = spec;
  return isPlain(sheet)
    ? {
        ...spec,
        brake: null,
        wheelBearing: null,
        outerSeal: null,
        spread: null,
        sheet: { carrierTorque: null, caseGrowth: null, compoundOpen: null, sealantOpen: null, ...sheet },
        adjusterSequence: null,
      }
    : spec;
}

function withTenthKeys(build: Plain): Plain {
  const axles = isPlain(build['axles']) ? build['axles'] : {};
  const axle = (one: unknown): unknown =>
    isPlain(one) && isPlain(one['identity']) ? { ...one, identity: tenthSpec(one['identity']) } : one;
  return { ...build, axles: { ...axles, rear: axle(axles['rear']), front: axle(axles['front']) } };
}

/** Slopes and the log of a course, limits beside the goal, and where a complaint is met. */
function withEleventhKeys(build: Plain): Plain {
  const { course, brief } = build;
  return {
    ...build,
    course: isPlain(course) ? { ...course, slopes: [], log: null } : course,
    brief: isPlain(brief)
      ? { ...brief, limits: { cruiseRpm: null, time: null, topSpeed: null, crawl: null }, complaintAt: [] }
      : brief,
    box: null,
    boxWork: null,
  };
}

const STEPS: readonly Step[] = [
  {
    from: 1,
    upgrade: {
      // The operating point left the document: where one looks belongs to the device. What nobody has said is listed.
      build(document) {
        const { operatingPoint, ...build } = wholeVersion1(document);
        return { ...build, formatVersion: 2, assumed: [], startPoint: operatingPoint };
      },
      // A reading says its value by kind, its state and who took it.
      'ledger-entry'(entry) {
        if (entry['kind'] !== 'reading') return { who: '', ...entry };
        const { subject, value, ...rest } = entry;
        const counts = isPlain(subject) && subject['what'] === 'breakaway' ? 'one' : 'least';
        return { who: '', state: {}, ...rest, subject, value: { of: 'number', counts, entries: [value] } };
      },
      'library-spec': (spec) => spec,
    },
  },
  {
    from: 2,
    upgrade: {
      // Where a spring sits, static and sliding friction, what else is bought: said by nobody in version 2.
      build: (build) => ({ ...withThirdKeys(build), formatVersion: 3 }),
      'ledger-entry': (entry) => entry,
      'library-spec': thirdSpec,
    },
  },
  {
    from: 3,
    upgrade: {
      // Set-up: the spec sheet of an axle, how it is put together, drawers by seat.
      build: (build) => ({ ...withSetup(build), formatVersion: 4 }),
      'ledger-entry': (entry) => entry,
      'library-spec': fourthSpec,
    },
  },
  {
    from: 4,
    upgrade: {
      // End float of a reduction unit on the spec sheet.
      build: (build) => ({ ...withFifthKeys(build), formatVersion: 5 }),
      'ledger-entry': (entry) => entry,
      'library-spec': fifthSpec,
    },
  },
  {
    from: 5,
    upgrade: {
      // The bench: order of work, ring joint, shafts; whose it is, and by when.
      build: (build) => ({ ...withSixthKeys(build), formatVersion: 6 }),
      'ledger-entry': (entry) => entry,
      'library-spec': sixthSpec,
    },
  },
  {
    from: 6,
    upgrade: {
      // Tab locks with the hardness of the case; the pattern of a tool; hours of a complete unit.
      build: (build) => ({ ...withSeventhKeys(build), formatVersion: 7 }),
      'ledger-entry': (entry) => entry,
      'library-spec': (spec) => spec,
    },
  },
  {
    from: 7,
    upgrade: {
      // Every figure on one footing, with where it came from.
      build: (build) => ({ ...withEighthKeys(build), formatVersion: 8 }),
      'ledger-entry': (entry) => entry,
      'library-spec': eighthSpec,
    },
  },
  {
    from: 8,
    upgrade: {
      // The order of work follows from facts: nobody has said any, so they follow from the job and the axle.
      build: (build) => ({ ...withNinthKeys(build), formatVersion: 9 }),
      'ledger-entry': (entry) => entry,
      'library-spec': (spec) => spec,
    },
  },
  {
    from: 9,
    upgrade: {
      build: (build) => ({ ...withTenthKeys(build), formatVersion: 10 }),
      'ledger-entry': (entry) => entry,
      'library-spec': (spec) => (spec['kind'] === 'axle' ? tenthSpec(spec) : spec),
    },
  },
  {
    from: 10,
    upgrade: {
      build: (build) => ({ ...withEleventhKeys(build), formatVersion: 11 }),
      'ledger-entry': (entry) => entry,
      'library-spec': (spec) => (spec['kind'] === 'gearbox' ? { ...spec, inside: null } : spec),
    },
  },
  {
    from: 11,
    upgrade: {
      build: (build) => ({ ...build, box: twelfthBox(build['box']), formatVersion: 12 }),
      'ledger-entry': (entry) => entry,
      'library-spec': (spec) => (spec['kind'] === 'gearbox' ? { ...spec, inside: twelfthBox(spec['inside']) } : spec),
    },
  },
  {
    from: 12,
    upgrade: {
      build: (build) => ({ ...withThirteenthKeys(build), formatVersion: 13 }),
      'ledger-entry': (entry) => entry,
      'library-spec': (spec) => spec,
    },
  },
];

/** Since version 13 a hold says until when, a tool that is lent when it is back: nobody has said either. */
function withThirteenthKeys(build: Plain): Plain {
  const axle = (one: unknown): unknown => {
    if (!isPlain(one) || !isPlain(one['work'])) return one;
    const { work } = one;
    return {
      ...one,
      work: {
        ...work,
        hold: isPlain(work['hold']) ? { until: null, ...work['hold'] } : work['hold'],
        tools: Array.isArray(work['tools'])
          ? work['tools'].map((tool: unknown) => (isPlain(tool) ? { back: null, ...tool } : tool))
          : work['tools'],
      },
    };
  };
  const axles = isPlain(build['axles']) ? build['axles'] : {};
  return { ...build, axles: { ...axles, rear: axle(axles['rear']), front: axle(axles['front']) } };
}

/** What a box says since version 12: its reverse gear, what is stacked before a collar, what wears, where a bolt lies. */
function twelfthBox(box: unknown): unknown {
  if (!isPlain(box)) return box;
  const each = (list: unknown, keys: Plain): unknown =>
    Array.isArray(list) ? list.map((one: unknown) => (isPlain(one) ? { ...keys, ...one } : one)) : list;
  const shaft = (one: unknown): unknown =>
    isPlain(one) ? { before: null, ...one, pieces: each(one['pieces'], { cutWhy: '' }) } : one;
  const shafts = isPlain(box['shafts']) ? box['shafts'] : {};
  return {
    wearing: [],
    ...box,
    pairs: each(box['pairs'], { idler: null }),
    shafts: { ...shafts, driving: shaft(shafts['driving']), driven: shaft(shafts['driven']) },
    places: each(box['places'], { spots: [] }),
  };
}

/** Refuses a version that this program does not know. @throws InputError on `formatVersion` */
export function requireVersion(version: unknown): number {
  const known = `1 to ${FORMAT_VERSION}`;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    throw new InputError('formatVersion', 'formatVersion must be a whole number.', known);
  if (version > FORMAT_VERSION)
    throw new InputError(
      'formatVersion',
      `formatVersion ${version} is of a later Hot Spline than this one; it is left as it is.`,
      known,
    );
  return version;
}

/** The version of a ledger entry that comes alone: the first one did not say who wrote it. */
export const entryVersion = (entry: unknown): number => (isPlain(entry) && !('who' in entry) ? 1 : FORMAT_VERSION);

/**
 * Something that was kept, as this program keeps it today. What comes back is still to be parsed.
 * @param version the version that it was kept in; a build carries its own
 * @throws InputError on `formatVersion` for a later version or none
 */
export function upgrade(kept: Kept, version: unknown, document: unknown): unknown {
  if (!isPlain(document)) return document;
  const found = requireVersion(kept === 'build' ? document['formatVersion'] : version);
  return STEPS.filter(({ from }) => from >= found).reduce((now, step) => step.upgrade[kept](now), document);
}
