import { say, type UnitSystem } from '@hot-spline/core';
import {
  VERDICTS,
  platesOf,
  type Build,
  type Derived,
  type Figure,
  type Finding,
  type Sheet,
  type Unit,
  type Verdict,
} from '@hot-spline/model';

export type StationKind =
  'engine' | 'coupling' | 'gearbox' | 'transfer' | 'prop' | 'final' | 'unit' | 'packs' | 'shafts' | 'tyres';

/** One place on the Line: the figures that matter there, and its worst finding. */
export interface Station {
  readonly kind: StationKind;
  readonly sheet: Sheet;
  readonly name: string;
  readonly main: string;
  readonly sub: string;
  readonly verdict: Verdict | null;
}

/** Which station a finding belongs to, by the start of its id. */
const HOME: readonly (readonly [string, StationKind])[] = [
  ['coupling.', 'coupling'],
  ['gearing.steps', 'gearbox'],
  ['gearing.hunting', 'final'],
  ['gearing.mismatch', 'transfer'],
  ['gearing.', 'tyres'],
  ['point.', 'engine'],
  ['unit.', 'unit'],
  ['refused.unit', 'unit'],
  ['pack.', 'packs'],
  ['refused.pack', 'packs'],
  ['refused.engine', 'engine'],
  ['refused.', 'tyres'],
];

function worst(findings: readonly Finding[], kind: StationKind, axle: string): Verdict | null {
  const own = findings.filter(
    (finding) =>
      HOME.find(([start]) => finding.id.startsWith(start))?.[1] === kind && (!finding.axle || finding.axle === axle),
  );
  return own.reduce<Verdict | null>((most, { verdict }) => {
    if (most === null) return verdict;
    return VERDICTS.indexOf(verdict) < VERDICTS.indexOf(most) ? verdict : most;
  }, null);
}

const figureText = (figure: Figure | undefined, system: UnitSystem, decimals?: number): string => {
  if (!figure) return '–';
  return figure.value === null
    ? (figure.instead ?? '–')
    : say(figure.value, figure.quantity, system, decimals ?? figure.decimals);
};

const rpmText = (value: number): string => say(value, 'rotation', 'inch');

/** The driveline from engine to ground at the operating point, with the figures of one axle. */
export function stations(build: Build, derived: Derived, system: UnitSystem): Station[] {
  const { main: axle, figures, findings } = derived;
  const figure = (id: string, decimals?: number): string => figureText(figures.get(id), system, decimals);
  const number = (id: string): number => figures.get(id)?.value ?? 0;
  const { operatingPoint: point, gearbox, transfer, coupling } = build;
  const own = build.axles[axle];
  const gear = gearbox.gears[point.gear];
  const range = transfer?.ranges[point.range];
  const electric = build.engine.kind === 'electric';
  const list: (Omit<Station, 'verdict'> | null)[] = [
    {
      kind: 'engine',
      sheet: 'engine',
      name: electric ? 'Motor' : 'Engine',
      main: figure('point.engine', 0),
      sub: rpmText(point.rpm),
    },
    coupling.kind === 'clutch'
      ? {
          kind: 'coupling',
          sheet: 'engine',
          name: 'Clutch',
          main: `×${figure('coupling.margin')}`,
          sub: 'holds over peak',
        }
      : coupling.kind === 'converter'
        ? { kind: 'coupling', sheet: 'engine', name: 'Converter', main: rpmText(coupling.stallRpm), sub: 'rated stall' }
        : null,
    {
      kind: 'gearbox',
      sheet: 'engine',
      name: gearbox.kind === 'fixed' ? 'First stage' : `Gear ${gear?.name ?? ''}`,
      main: gear ? gearRatioText(build) : '–',
      sub: `${rpmText(number('point.gearboxRpm'))} out`,
    },
    range && transfer && transfer.ranges.length > 0
      ? {
          kind: 'transfer',
          sheet: 'engine',
          name: `Range ${range.name}`,
          main: ratioText(range.ratio.value, range.ratio.typed),
          sub: figure('gearing.mismatch') === '–' ? 'transfer' : `${figure('gearing.mismatch')} front`,
        }
      : null,
    electric || gearbox.kind === 'fixed'
      ? null
      : {
          kind: 'prop',
          sheet: 'gearing',
          name: 'Prop shaft',
          main: figure('point.prop', 0),
          sub: rpmText(number('point.propRpm')),
        },
    {
      kind: 'final',
      sheet: 'gearing',
      name: electric ? 'Final stage' : 'Final drive',
      main: number(`gearing.${axle}.final`).toFixed(3),
      sub: `${own?.finalDrive.ring ?? '–'} / ${own?.finalDrive.pinion ?? '–'} teeth`,
    },
    {
      kind: 'unit',
      sheet: 'unit',
      name: 'Unit',
      main: unitText(build, derived),
      sub: figure(`unit.${axle}.drive.bias`) === 'locked' ? 'locked' : `bias ${figure(`unit.${axle}.drive.bias`)}`,
    },
    own && platesOf(own.unit)
      ? {
          kind: 'packs',
          sheet: 'pack',
          name: 'Packs',
          main: figure(`pack.${axle}.wrench.other-wheel-held`, 0),
          sub: 'breakaway, neutral',
        }
      : null,
    { kind: 'shafts', sheet: 'unit', name: 'Shafts', main: figure('point.shaft', 0), sub: 'most in one' },
    { kind: 'tyres', sheet: 'gearing', name: 'Tyres', main: figure('point.speed'), sub: own?.tyre.designation ?? '–' },
  ];
  return list
    .filter((station) => station !== null)
    .map((station) => ({ ...station, verdict: worst(findings, station.kind, axle) }));
}

const ratioText = (value: number, typed: string): string => (/[/:]/.test(typed) ? value.toFixed(3) : typed);

function gearRatioText(build: Build): string {
  const gear = build.gearbox.gears[build.operatingPoint.gear];
  return gear ? ratioText(gear.ratio.value, gear.ratio.typed) : '–';
}

const ACTION_WORDS = { 'two-way': '2-way', 'one-and-a-half-way': '1½-way', 'one-way': '1-way' } as const;

/** The types in a word or two, as they fit on the Line. */
const SHORT: Readonly<Record<Unit['type'], string>> = {
  plate: 'Plate',
  'side-gear-thrust': 'Gear thrust',
  cone: 'Cone',
  helical: 'Helical',
  hybrid: 'Hybrid',
  'friction-insert': 'Insert',
  'selectable-locker': 'Locker',
  'automatic-locker': 'Auto-locker',
  spool: 'Spool',
  open: 'Open',
};

function unitText(build: Build, { main }: Derived): string {
  const unit = build.axles[main]?.unit;
  if (!unit) return '–';
  if (unit.type !== 'plate' || !unit.plate) return SHORT[unit.type];
  return `${ACTION_WORDS[unit.plate.action]} ${unit.plate.driveRamp.value}°`;
}
