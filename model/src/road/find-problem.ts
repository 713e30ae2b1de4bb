import { entryBase, type Bought, type FindGoal, type FindLimits, type FindProblem } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import { vehicleOf } from './vehicle';
import type { AxleGearingState } from '../gearing/axle-gearing';
import { lowRange } from '../gearing/match';

/** The goal of the brief as the ratio finder takes it. */
export function goalOf({ brief, cruiseSpeed }: Build): FindGoal {
  const { window } = brief;
  switch (brief.goal) {
    case 'time':
      return { kind: 'time', distanceM: entryBase(brief.distance) };
    case 'finish':
      return { kind: 'finish', distanceM: entryBase(brief.distance), ...window };
    case 'cruise':
      return { kind: 'cruise', speedMps: entryBase(cruiseSpeed), ...window };
    case 'crawl':
      return { kind: 'crawl', ratio: entryBase(brief.crawlRatio) };
  }
}

/** What the brief asks beside its goal. */
export function limitsOf({ brief: { limits } }: Build): FindLimits {
  const { cruiseRpm, time, topSpeed, crawl } = limits;
  return {
    ...(cruiseRpm ? { cruiseRpm: entryBase(cruiseRpm) } : {}),
    ...(time ? { timeS: entryBase(time) } : {}),
    ...(topSpeed ? { topMps: entryBase(topSpeed) } : {}),
    ...(crawl ? { crawlRatio: entryBase(crawl) } : {}),
  };
}

/** What a limit rests on beside what the goal does, by the paths of the build. */
const LIMITED_BY: Readonly<Record<keyof FindLimits, Readonly<Record<string, string>>>> = {
  cruiseRpm: { gearbox: 'gearbox', tyre: 'tyre', cruiseSpeed: 'cruise speed' },
  timeS: { engine: 'engine', coupling: 'clutch or converter', gearbox: 'gearbox', tyre: 'tyre', road: 'car' },
  topMps: { engine: 'engine', gearbox: 'gearbox', tyre: 'tyre', road: 'car' },
  crawlRatio: { gearbox: 'gearbox' },
};

/** What each goal is ranked by, by the paths of the build, in words. */
const RANKED_BY: Readonly<Record<FindGoal['kind'], Readonly<Record<string, string>>>> = {
  time: {
    engine: 'engine',
    coupling: 'clutch or converter',
    gearbox: 'gearbox',
    tyre: 'tyre',
    road: 'car',
    'brief.distance': 'distance',
  },
  finish: {
    engine: 'engine',
    coupling: 'clutch or converter',
    gearbox: 'gearbox',
    tyre: 'tyre',
    road: 'car',
    'brief.distance': 'distance',
    'brief.window': 'rpm window',
  },
  cruise: { gearbox: 'gearbox', tyre: 'tyre', cruiseSpeed: 'cruise speed', 'brief.window': 'rpm window' },
  crawl: { gearbox: 'gearbox', 'brief.crawlRatio': 'crawl ratio' },
};

/** What the ranking would rest on that nobody has said yet: while there is any, it judges nothing. */
export function findStandIns(build: Build, main: AxleName): readonly string[] {
  const by = Object.assign(
    { ...RANKED_BY[goalOf(build).kind] },
    ...(Object.keys(limitsOf(build)) as (keyof FindLimits)[]).map((limit) => LIMITED_BY[limit]),
  ) as Readonly<Record<string, string>>;
  const open = (path: string): boolean => build.assumed.some((one) => one === path || one.startsWith(`${path}.`));
  return Object.entries(by).flatMap(([path, name]) =>
    open(path === 'tyre' ? `axles.${main}.tyre` : path) ? [name] : [],
  );
}

const boughtOf = ({ price, leadDays }: { price: number | null; leadDays: number | null }): Bought => ({
  ...(price === null ? {} : { price }),
  ...(leadDays === null ? {} : { leadDays }),
});

/** What the ratio finder chooses from: the sets of the identified axle, the present one and the candidates always. */
export function findProblemOf(build: Build, main: AxleName, own: AxleGearingState): FindProblem {
  const axle = build.axles[main];
  const identity = axle?.identity ?? null;
  const sets = (identity?.sets ?? []).map(({ ring, pinion, torqueLimit, price, leadDays, welded }) => ({
    ring,
    pinion,
    ...(torqueLimit ? { torqueLimitNm: entryBase(torqueLimit) } : {}),
    ...(price === null ? {} : { price }),
    ...(leadDays === null ? {} : { leadDays }),
    ...(welded ? { welded } : {}),
  }));
  for (const pair of [own.finalDrive, ...build.candidates]) {
    if (!sets.some(({ ring, pinion }) => ring === pair.ring && pinion === pair.pinion)) sets.push({ ...pair });
  }
  return {
    vehicle: vehicleOf(build, main, own),
    candidates: sets,
    goal: goalOf(build),
    limits: limitsOf(build),
    distanceM: entryBase(build.brief.distance),
    cruiseMps: entryBase(build.cruiseSpeed),
    wheelSlip: entryBase(build.road.wheelSlip) / 100,
    lowRange: lowRange(build).ratio,
    shock: entryBase(build.road.shock),
    sender: build.brief.sender,
    carriers: (identity?.carriers ?? []).map(({ name, fromRatio, toRatio, ...offer }) => ({
      name,
      fromRatio,
      toRatio,
      ...boughtOf(offer),
    })),
    extras: {
      ...(identity?.extras.ringBolts ? { ringBolts: boughtOf(identity.extras.ringBolts) } : {}),
      ...(identity?.extras.recalibration ? { recalibration: boughtOf(identity.extras.recalibration) } : {}),
    },
    ...(axle && axle.carrier !== '' ? { presentCarrier: axle.carrier } : {}),
  };
}
