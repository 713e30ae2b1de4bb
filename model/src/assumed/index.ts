import { entryBase, say, type UnitSystem } from '@hot-spline/core';
import type { Build } from '../frame/document';
import { capital } from '../base/names';
import { defineCapability } from '../frame/capability';
import type { Derivation } from '../frame/derivation';
import { fact, type NumberFact, type Place, type StationKind, type Words } from '../frame/finding';
import { torqueCurve } from '../road/torque-curve';

interface Topic {
  /** Paths that it stands for; a path stands for all below it. */
  readonly paths: readonly string[];
  readonly name: string;
  readonly place: Place;
  readonly station: StationKind;
  /** The stand-in that is in its place. */
  readonly standIn: (build: Build) => NumberFact | string;
  readonly cure: string;
}

/** What each path is called where it is left, and the field that says it; what is not here is said as a whole at its topic. */
const LEFT: Readonly<Record<string, { readonly name: string; readonly at: Pick<Place, 'sheet' | 'tab' | 'field'> }>> = {
  'engine.torqueCurve': { name: 'torque curve', at: { sheet: 'engine', field: 'torque-curve' } },
  'engine.limitRpm': { name: 'limiter', at: { sheet: 'engine', field: 'limit-rpm' } },
  'engine.launchRpm': { name: 'launch rpm', at: { sheet: 'engine', field: 'launch-rpm' } },
  'road.mass': { name: 'weight', at: { sheet: 'brief', tab: 'job', field: 'brief-mass' } },
  'road.rearShare': { name: 'share on the rear axle', at: { sheet: 'brief', tab: 'job', field: 'brief-rear' } },
  'road.cgHeight': { name: 'CG height', at: { sheet: 'brief', tab: 'job', field: 'brief-cg' } },
  'road.wheelbase': { name: 'wheelbase', at: { sheet: 'brief', tab: 'job', field: 'brief-base' } },
  'road.track': { name: 'track', at: { sheet: 'brief', tab: 'job', field: 'brief-track' } },
  'road.dragArea': { name: 'air drag', at: { sheet: 'brief', tab: 'job', field: 'brief-drag' } },
  'road.rollingCoefficient': { name: 'rolling resistance', at: { sheet: 'brief', tab: 'job', field: 'brief-rolling' } },
  'road.grip': { name: 'grip', at: { sheet: 'road', field: 'run-grip' } },
  'road.efficiency': { name: 'driveline efficiency', at: { sheet: 'road', field: 'run-efficiency' } },
  'brief.distance': { name: 'distance', at: { sheet: 'brief', tab: 'job', field: 'brief-distance' } },
  'brief.window': { name: 'rpm window', at: { sheet: 'brief', tab: 'job', field: 'brief-low' } },
  'brief.crawlRatio': { name: 'crawl ratio', at: { sheet: 'brief', tab: 'job', field: 'brief-crawl' } },
  cruiseSpeed: { name: 'cruise speed', at: { sheet: 'gearing', tab: 'speed', field: 'cruise-speed' } },
  'unit.plate.action': { name: 'way it works', at: { sheet: 'unit', tab: 'unit', field: 'unit-action' } },
  'unit.plate.driveRamp': { name: 'drive ramp', at: { sheet: 'unit', tab: 'unit', field: 'drive-ramp' } },
  'unit.plate.overrunRamp': { name: 'overrun ramp', at: { sheet: 'unit', tab: 'unit', field: 'overrun-ramp' } },
  'unit.plate.frictionCoefficient': {
    name: 'friction',
    at: { sheet: 'pack', tab: 'springs', field: 'friction-coefficient' },
  },
  'unit.plate.targetHeight': { name: 'target height', at: { sheet: 'pack', tab: 'springs', field: 'target-height' } },
  'unit.plate.packs.left.members': {
    name: 'plates left',
    at: { sheet: 'pack', tab: 'measure', field: 'measure-left-stack' },
  },
  'unit.plate.packs.left.caseDepth': {
    name: 'case depth left',
    at: { sheet: 'pack', tab: 'measure', field: 'measure-left-depth' },
  },
  'unit.plate.packs.right.members': {
    name: 'plates right',
    at: { sheet: 'pack', tab: 'measure', field: 'measure-right-stack' },
  },
  'unit.plate.packs.right.caseDepth': {
    name: 'case depth right',
    at: { sheet: 'pack', tab: 'measure', field: 'measure-right-depth' },
  },
};
const leftOf = (path: string) => LEFT[path.replace(/^axles\.(rear|front)\./, '')];

/** Goals that use what they are judged by; what another goal asks is not asked. */
const ASKED_BY: Readonly<Record<string, readonly Build['brief']['goal'][]>> = {
  'brief.crawlRatio': ['crawl'],
  'brief.distance': ['time', 'finish'],
  'brief.window': ['finish', 'cruise'],
};

const peak = (build: Build): number => Math.max(...torqueCurve(build).map(({ torqueNm }) => torqueNm));

function topicsOf(build: Build): Topic[] {
  const axles = build.driven === 'both' ? (['rear', 'front'] as const) : [build.driven];
  const engine = build.engine.kind === 'electric' ? 'motor' : 'engine';
  return [
    {
      paths: ['engine'],
      name: engine,
      place: { sheet: 'engine', field: 'torque-curve' },
      station: 'engine',
      standIn: () => fact(peak(build), 'torque'),
      cure: 'Type or import yours.',
    },
    {
      paths: ['coupling'],
      name: build.coupling.kind === 'converter' ? 'converter' : 'clutch',
      place: {
        sheet: 'engine',
        field: build.coupling.kind === 'converter' ? 'converter-stall' : 'clutch-capacity',
      },
      station: 'coupling',
      standIn: ({ coupling }) =>
        coupling.kind === 'clutch'
          ? fact(entryBase(coupling.capacity), 'torque')
          : coupling.kind === 'converter'
            ? fact(coupling.stallRpm, 'rotation')
            : '',
      cure: 'Say what it holds.',
    },
    {
      paths: ['gearbox'],
      name: 'gearbox',
      place: { sheet: 'engine', field: 'gear-0' },
      station: 'gearbox',
      standIn: ({ gearbox }) => gearbox.gears.map(({ ratio }) => ratio.typed).join(', '),
      cure: 'Enter its ratios, or take it from the library.',
    },
    ...axles.flatMap((axle): Topic[] => [
      {
        paths: [`axles.${axle}.finalDrive`],
        name: `${axle} final drive`,
        place: { sheet: 'gearing', tab: 'speed', axle, field: `final-${axle}-ring` },
        station: 'final',
        standIn: ({ axles: { [axle]: own } }) => `${own?.finalDrive.ring}/${own?.finalDrive.pinion}`,
        cure: 'Count the teeth.',
      },
      {
        paths: [`axles.${axle}.tyre`],
        name: `${axle} tyre`,
        place: { sheet: 'gearing', tab: 'speed', axle, field: `tyre-${axle}` },
        station: 'tyres',
        standIn: ({ axles: { [axle]: own } }) => own?.tyre.designation ?? '',
        cure: 'Read it off the sidewall.',
      },
      {
        paths: [`axles.${axle}.unit`],
        name: `${axle} unit`,
        place: { sheet: 'unit', axle, field: 'unit-type' },
        station: 'unit',
        standIn: ({ axles: { [axle]: own } }) => own?.unit.type ?? '',
        cure: 'Say what is between the wheels.',
      },
    ]),
    {
      paths: ['road'],
      name: 'car',
      place: { sheet: 'brief', tab: 'job', field: 'brief-mass' },
      station: 'tyres',
      standIn: ({ road }) => fact(entryBase(road.mass), 'mass'),
      cure: 'Put it on the scales.',
    },
    {
      paths: ['brief', 'cruiseSpeed'],
      name: 'brief',
      place: { sheet: 'brief', tab: 'job', field: 'brief-low' },
      station: 'engine',
      standIn: ({ brief }) => `${brief.window.lowRpm} to ${brief.window.highRpm} rpm`,
      cure: 'Say what the job is judged by.',
    },
  ];
}

const words = (
  {
    name,
    standIn,
    cure,
    left,
    number,
  }: { name: string; standIn: string; cure: string; left: string; number?: NumberFact },
  system: UnitSystem,
): Words =>
  left === ''
    ? {
        title: `${capital(name)} assumed: ${number ? say(number.value, number.quantity, system, 0) : standIn}`,
        detail: `Nobody has said it yet, so nothing is judged by it. ${cure}`,
      }
    : {
        title: `${capital(name)}, still assumed: ${left}`,
        detail: 'Nobody has said it yet, so nothing is judged by it.',
      };

function derive(build: Build, assumed: readonly string[], d: Derivation): void {
  for (const { paths, name, place, station, standIn, cure } of topicsOf(build)) {
    const open = assumed.filter(
      (path) =>
        paths.some((one) => path === one || path.startsWith(`${one}.`)) &&
        (ASKED_BY[path]?.includes(build.brief.goal) ?? true),
    );
    if (open.length === 0) continue;
    // Field by field where that is known: named, and the first of them is where it leads.
    const fields = open.map(leftOf);
    const [first] = fields;
    const asked = Object.keys(LEFT).filter(
      (path) =>
        paths.some((one) => path === one || path.startsWith(`${one}.`)) &&
        (ASKED_BY[path]?.includes(build.brief.goal) ?? true),
    );
    // While all of a topic is a stand-in, that is what is said of it.
    const named = open.length !== asked.length && fields.every((one) => one !== undefined);
    const now = standIn(build);
    const number = typeof now === 'string' ? {} : { number: now };
    d.finding({
      id: `assumed.${name.replace(/ /g, '.')}`,
      verdict: 'not-yet',
      place: named && first ? { ...(place.axle ? { axle: place.axle } : {}), ...first.at } : place,
      station,
      figures: [],
      rule: 'what nobody has said yet never judges (our rule)',
      facts: {
        name,
        standIn: typeof now === 'string' ? now : '',
        cure,
        left: named ? fields.map((one) => one?.name).join(', ') : '',
        ...number,
      },
      say: words,
    });
  }
}

/** What nobody has said yet: a finding for each topic, at the field where it is said. */
export const assumed = defineCapability({
  name: 'assumed',
  needs: [],
  figures: {},
  subjects: [],
  place: { sheet: 'brief', tab: 'job', field: 'brief-mass' },
  station: 'engine',
  inputs: ({ build }) => ({ build }),
  derive: ({ build }, d) => derive(build, build.assumed, d),
});
