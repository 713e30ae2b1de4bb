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
  { name, standIn, cure, number }: { name: string; standIn: string; cure: string; number?: NumberFact },
  system: UnitSystem,
): Words => ({
  title: `${capital(name)} assumed: ${number ? say(number.value, number.quantity, system, 0) : standIn}`,
  detail: `Nobody has said it yet, so nothing is judged by it. ${cure}`,
});

function derive(build: Build, assumed: readonly string[], d: Derivation): void {
  for (const { paths, name, place, station, standIn, cure } of topicsOf(build)) {
    const open = assumed.filter((path) => paths.some((one) => path === one || path.startsWith(`${one}.`)));
    if (open.length === 0) continue;
    const now = standIn(build);
    const number = typeof now === 'string' ? {} : { number: now };
    d.finding({
      id: `assumed.${name.replace(/ /g, '.')}`,
      verdict: 'not-yet',
      place,
      station,
      figures: [],
      rule: 'what nobody has said yet never judges (our rule)',
      facts: { name, standIn: typeof now === 'string' ? now : '', cure, ...number },
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
