import {
  ROLLING_FACTORS,
  engineRpm,
  entryBase,
  explain,
  measuredCircumference,
  roadSpeed,
  rollingCircumference,
  rpmAfterShift,
  toothPair,
  tyreSize,
  wornDiameter,
  type Gearing,
  type Hunting,
  type ToothPair,
  type TyreGrowth,
  type TyreSize,
  type Working,
} from '@hot-spline/core/page';
import { EXACT } from '../frame/figure';
import type { Axle, Build } from '../frame/document';
import type { AxleName } from '../base/names';
import type { Tyre } from './schema';

export interface AxleGearingState {
  readonly name: AxleName;
  readonly tyre: TyreSize;
  readonly circumferenceMm: number;
  readonly finalDrive: ToothPair;
  readonly finalRatio: number;
  readonly hubRatio: number;
  readonly hunting: Hunting;
  readonly commonDivisor: number;
  readonly growth: TyreGrowth | null;
}

/** Axles that are driven, the one that everything else follows first. */
export function drivenAxles(build: Build): AxleName[] {
  return build.driven === 'both' ? ['rear', 'front'] : [build.driven];
}

/** Overall diameter in mm by the designation, tread wear taken off. */
export function nominalDiameter(tyre: Tyre): number {
  const { overallDiameterMm } = tyreSize(tyre.designation);
  return tyre.wear ? wornDiameter(overallDiameterMm, entryBase(tyre.wear)) : overallDiameterMm;
}

/**
 * Rolling circumference in mm of a tyre as entered; a measurement beats the designation.
 * @throws InputError naming `designation` or the measured field
 */
export function tyreCircumference(tyre: Tyre): number {
  if (!tyre.measured) return rollingCircumference(nominalDiameter(tyre), tyre.factor);
  const value = entryBase(tyre.measured.value);
  switch (tyre.measured.kind) {
    case 'rollout':
      return measuredCircumference({ kind: 'rollout', rolloutMm: value });
    case 'loaded-radius':
      return measuredCircumference({ kind: 'loaded-radius', loadedRadiusMm: value });
    case 'turns':
      return measuredCircumference({ kind: 'turns', turnsPerKm: value });
  }
}

export function axleGearingState(name: AxleName, axle: Axle): AxleGearingState {
  const { ratio, hunting, commonDivisor } = toothPair(axle.finalDrive);
  return {
    name,
    tyre: tyreSize(axle.tyre.designation),
    circumferenceMm: tyreCircumference(axle.tyre),
    finalDrive: axle.finalDrive,
    finalRatio: ratio,
    hubRatio: entryBase(axle.hubRatio),
    hunting,
    commonDivisor,
    growth: axle.tyre.growth
      ? { share: entryBase(axle.tyre.growth.share) / 100, speedMps: entryBase(axle.tyre.growth.atSpeed) }
      : null,
  };
}

export const gearRatios = (build: Build): number[] => build.gearbox.gears.map((gear) => entryBase(gear.ratio));
export const rangeRatio = (build: Build, range: number): number => {
  const entry = build.transfer?.ranges[range]?.ratio;
  return entry ? entryBase(entry) : 1;
};

/** The whole gearing in one gear and range, with another final drive if one is tried. */
export function gearingAt(
  build: Build,
  axle: AxleGearingState,
  gear: number,
  range: number,
  finalRatio = axle.finalRatio,
): Gearing {
  return {
    rollingCircumferenceMm: axle.circumferenceMm,
    gearRatio: gearRatios(build)[gear] ?? 1,
    rangeRatio: rangeRatio(build, range),
    finalRatio,
    hubRatio: axle.hubRatio,
    converterSlip: build.coupling.kind === 'converter' ? entryBase(build.coupling.slip) / 100 : 0,
    wheelSlip: entryBase(build.road.wheelSlip) / 100,
    ...(axle.growth ? { growth: axle.growth } : {}),
  };
}

export interface FanGear {
  readonly gear: string;
  readonly ratio: number;
  /** Road speed at the limiter, m/s. */
  readonly limitMps: number;
  /** Engine speed after an up-shift at the limiter; null in the last gear. */
  readonly afterShiftRpm: number | null;
}

/** Speed at the limiter and the drop of an up-shift there, for every gear of a final drive. */
export function speedFan(build: Build, axle: AxleGearingState, range: number, finalRatio = axle.finalRatio): FanGear[] {
  const ratios = gearRatios(build);
  const limit = build.engine.limitRpm;
  return build.gearbox.gears.map((gear, i) => {
    const ratio = ratios[i] ?? 1;
    const next = ratios[i + 1];
    return {
      gear: gear.name,
      ratio,
      limitMps: roadSpeed(gearingAt(build, axle, i, range, finalRatio), limit),
      afterShiftRpm: next === undefined ? null : rpmAfterShift(limit, ratio, next),
    };
  });
}

/** Index of the gear with the smallest ratio. */
export function tallestGear(build: Build): number {
  const ratios = gearRatios(build);
  return ratios.indexOf(Math.min(...ratios));
}

const gearingInputs = (gearing: Gearing) =>
  [
    ...(gearing.converterSlip
      ? [
          {
            key: 'converterSlip',
            label: 'converter slip, of 1',
            value: gearing.converterSlip,
            quantity: 'coefficient' as const,
          },
        ]
      : []),
    ...(gearing.wheelSlip
      ? [{ key: 'wheelSlip', label: 'wheel slip, of 1', value: gearing.wheelSlip, quantity: 'coefficient' as const }]
      : []),
    { key: 'circumference', label: 'rolling circumference', value: gearing.rollingCircumferenceMm, quantity: 'length' },
    { key: 'gear', label: 'gear', value: gearing.gearRatio, quantity: 'ratio' },
    { key: 'range', label: 'range', value: gearing.rangeRatio ?? 1, quantity: 'ratio' },
    { key: 'final', label: 'final drive', value: gearing.finalRatio, quantity: 'ratio' },
    { key: 'hub', label: 'hub reduction', value: gearing.hubRatio ?? 1, quantity: 'ratio' },
  ] as const;

const gearingFrom = (v: Readonly<Record<string, number>>): Gearing => ({
  rollingCircumferenceMm: v['circumference'] ?? 0,
  gearRatio: v['gear'] ?? 0,
  rangeRatio: v['range'] ?? 0,
  finalRatio: v['final'] ?? 0,
  hubRatio: v['hub'] ?? 0,
  converterSlip: v['converterSlip'] ?? 0,
  wheelSlip: v['wheelSlip'] ?? 0,
});

/** What a working says of slip and growth. */
const slipNote = (gearing: Gearing): string =>
  [
    gearing.converterSlip || gearing.wheelSlip
      ? 'engine speed ÷ ((1 − converter slip) × (1 − wheel slip)), converter slip a share of engine speed'
      : 'no slip counted',
    ...(gearing.growth ? [`tyre grows by ${(100 * gearing.growth.share).toFixed(1)} % at its reference speed`] : []),
  ].join('; ');

export function explainSpeed(title: string, gearing: Gearing, rpm: number): Working {
  return explain({
    title,
    formula: 'road speed = rolling circumference × engine speed ÷ (60 × gear × range × final drive × hub)',
    inputs: [...gearingInputs(gearing), { key: 'rpm', label: 'engine speed', value: rpm, quantity: 'rotation' }],
    sources: [{ kind: 'exact', text: `turns of the wheel in a minute; ${slipNote(gearing)}` }],
    result: { label: 'road speed', quantity: 'speed' },
    compute: (v) => {
      const g = { ...gearingFrom(v), ...(gearing.growth ? { growth: gearing.growth } : {}) };
      const total = g.gearRatio * (g.rangeRatio ?? 1) * g.finalRatio * (g.hubRatio ?? 1);
      return {
        value: roadSpeed(g, v['rpm'] ?? 0),
        steps: [
          { label: 'total ratio', value: total, quantity: 'ratio' },
          { label: 'wheel speed', value: (v['rpm'] ?? 0) / total, quantity: 'rotation' },
        ],
      };
    },
  });
}

export function explainRpm(title: string, gearing: Gearing, speedMps: number): Working {
  return explain({
    title,
    formula: 'engine speed = 60 × road speed × gear × range × final drive × hub ÷ rolling circumference',
    inputs: [...gearingInputs(gearing), { key: 'speed', label: 'road speed', value: speedMps, quantity: 'speed' }],
    sources: [{ kind: 'exact', text: `turns of the wheel in a minute; ${slipNote(gearing)}` }],
    result: { label: 'engine speed', quantity: 'rotation' },
    compute: (v) => ({
      value: engineRpm({ ...gearingFrom(v), ...(gearing.growth ? { growth: gearing.growth } : {}) }, v['speed'] ?? 0),
    }),
  });
}

export function explainCircumference(axle: Axle): Working {
  const size = tyreSize(axle.tyre.designation);
  const measured = axle.tyre.measured;
  if (measured) {
    const kinds = {
      rollout: ['rollout on the floor, one turn', 'rolling circumference = rollout', 'length'],
      'loaded-radius': ['loaded radius', 'rolling circumference = 2π × loaded radius', 'length'],
      turns: ['turns per distance', 'rolling circumference = distance ÷ turns', 'turns-per-distance'],
    } as const;
    const [label, formula, quantity] = kinds[measured.kind];
    return explain({
      title: 'Rolling circumference, measured',
      formula,
      inputs: [{ key: 'value', label, value: entryBase(measured.value), quantity }],
      sources: [{ kind: 'exact', text: 'a measurement beats the designation and replaces it' }],
      result: { label: 'rolling circumference', quantity: 'length' },
      compute: ({ value = 0 }) => ({
        value:
          measured.kind === 'rollout' ? value : measured.kind === 'loaded-radius' ? 2 * Math.PI * value : 1e6 / value,
      }),
    });
  }
  const factor = ROLLING_FACTORS[axle.tyre.factor];
  return explain({
    title: 'Rolling circumference, from the designation',
    formula:
      axle.tyre.factor === 'radial'
        ? 'rolling circumference = 3.05 × overall diameter'
        : 'rolling circumference = π × overall diameter, unloaded',
    inputs: [
      {
        key: 'diameter',
        label: `overall diameter of ${axle.tyre.designation}${axle.tyre.wear ? `, ${axle.tyre.wear.typed} worn` : ''}`,
        value: nominalDiameter(axle.tyre),
        quantity: 'length',
      },
    ],
    sources: [
      { kind: 'standard', text: 'ISO 4000-1 / ETRTO designation' },
      axle.tyre.factor === 'radial'
        ? { kind: 'standard', text: 'ETRTO rolling-circumference factor', fromMemory: true }
        : { kind: 'exact', text: 'circle' },
    ],
    result: { label: 'rolling circumference', quantity: 'length' },
    note: size.reading,
    compute: ({ diameter = 0 }) => ({ value: factor * diameter }),
  });
}

/** Working of a ratio by tooth count. */
export function explainTeeth(title: string, pair: ToothPair): Working {
  return explain({
    title,
    formula: 'ratio = ring teeth ÷ pinion teeth; hunting where the two counts share no divisor',
    inputs: [
      { key: 'ring', label: 'ring teeth', value: pair.ring, quantity: 'count' },
      { key: 'pinion', label: 'pinion teeth', value: pair.pinion, quantity: 'count' },
    ],
    sources: [EXACT],
    result: { label: 'ratio', quantity: 'ratio' },
    note: 'Count the teeth: a tag or code lies if somebody was here before.',
    compute: ({ ring = 0, pinion = 0 }) => {
      const { ratio, hunting, commonDivisor } = toothPair({ ring, pinion });
      return {
        value: ratio,
        steps: [
          { label: 'greatest common divisor', value: commonDivisor, quantity: 'count' },
          { label: 'so the pair is', value: hunting, quantity: 'text' },
        ],
      };
    },
  });
}

/** Working of the overall diameter from a designation. */
export function explainTyreSize(designation: string): Working {
  const size = tyreSize(designation);
  const metric = size.form === 'metric';
  return explain({
    title: `Overall diameter of ${designation}`,
    formula: metric ? 'diameter = rim + 2 × section × aspect ÷ 100' : 'diameter as designated',
    inputs: metric
      ? [
          { key: 'rim', label: 'rim', value: (size.rimDiameterIn ?? 0) * 25.4, quantity: 'length' },
          { key: 'section', label: 'section', value: size.sectionWidthMm ?? 0, quantity: 'length' },
          { key: 'aspect', label: 'aspect', value: size.aspectPercent ?? 0, quantity: 'percent' },
        ]
      : [{ key: 'diameter', label: 'diameter', value: size.overallDiameterMm, quantity: 'length' }],
    sources: [
      metric
        ? { kind: 'standard', text: 'ISO 4000-1 / ETRTO designation' }
        : { kind: 'exact', text: 'the designation names it' },
    ],
    result: { label: 'overall diameter, unloaded', quantity: 'length' },
    note: size.reading,
    compute: ({ rim = 0, section = 0, aspect = 0, diameter = 0 }) => ({
      value: metric ? rim + (2 * section * aspect) / 100 : diameter,
    }),
  });
}
