import { engineTorque, entryBase, explain, roadSpeed } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import type { Derivation } from '../frame/derivation';
import { EXACT } from '../frame/figure';
import { fact } from '../frame/finding';
import { drivenAxles, explainSpeed, gearingAt, speedFan, type AxleGearingState } from '../gearing/axle-gearing';
import { torqueCurve } from '../road/torque-curve';
import { axleShare } from '../road/vehicle';
import { pointFigures } from './ids';
import type { OperatingPoint } from './schema';
import * as words from './words';

/** Guard band of the coupling, ours: torque that the clutch holds over the engine's most. */
export const CLUTCH_MARGIN_GUARD = 1.2;

/**
 * Torque and speed along the driveline at the operating point, full load.
 * @returns the torque into the unit of each driven axle, N·m
 */
export function derivePoint(
  build: Build,
  main: AxleName,
  axles: Partial<Record<AxleName, AxleGearingState>>,
  { gear: wanted, range: inRange, rpm }: OperatingPoint,
  all: Derivation,
): Partial<Record<AxleName, number>> {
  const own = axles[main];
  // The gears of the build may be fewer than when the device looked last.
  const gear = wanted < build.gearbox.gears.length ? wanted : build.gearbox.gears.length - 1;
  const range = inRange < (build.transfer?.ranges.length ?? 1) ? inRange : 0;
  const d = all.using(['engine.torqueCurve']);
  const curve = torqueCurve(build);
  const engineNm = engineTorque(curve, rpm);
  d.figure({
    id: pointFigures.engine(),
    label: 'Engine torque, full load',
    value: engineNm,
    quantity: 'torque',
    explain: () =>
      explain({
        title: 'Engine torque at the operating point',
        formula: 'straight lines between the points of the torque curve, full load',
        inputs: [{ key: 'rpm', label: 'engine speed', value: rpm, quantity: 'rotation' }],
        sources: [EXACT],
        result: { label: 'engine torque', quantity: 'torque' },
        compute: (v) => ({ value: engineTorque(curve, v['rpm'] ?? 0) }),
      }),
  });
  findPoint(build, rpm, all);
  findCoupling(build, d.using(['coupling']));
  if (!own) return {};
  speedsAtLimit(build, own, range, all);
  const gearing = gearingAt(build, own, gear, range);
  const rangeValue = gearing.rangeRatio ?? 1;
  const speed = roadSpeed(gearing, rpm);
  d.figure({
    id: pointFigures.speed(),
    label: 'Road speed',
    value: speed,
    quantity: 'speed',
    explain: () => explainSpeed('Road speed at the operating point', gearing, rpm),
  });
  d.figure({
    id: pointFigures.gearboxRpm(),
    label: 'Gearbox output',
    value: rpm / gearing.gearRatio,
    quantity: 'rotation',
  });
  d.figure({
    id: pointFigures.propRpm(),
    label: 'Prop shaft',
    value: rpm / (gearing.gearRatio * rangeValue),
    quantity: 'rotation',
  });
  const torque = (id: string, label: string, factors: { key: string; label: string; value: number }[]) => {
    const value = factors.reduce((product, factor) => product * factor.value, engineNm);
    d.figure({
      id,
      label,
      value,
      quantity: 'torque',
      explain: () =>
        explain({
          title: label,
          formula: ['engine torque', ...factors.map((factor) => factor.label)].join(' × '),
          inputs: [
            { key: 'engine', label: 'engine torque', value: engineNm, quantity: 'torque' },
            ...factors.map((factor) => ({ ...factor, quantity: 'ratio' as const })),
          ],
          sources: [
            {
              kind: 'exact',
              text:
                build.driven === 'both'
                  ? 'no losses counted; two driven axles share it as their tyres can take it at standing loads'
                  : 'no losses counted; all of it taken at this axle',
            },
          ],
          result: { label, quantity: 'torque' },
          compute: (v) => ({ value: Object.values(v).reduce((a, b) => a * b, 1) }),
        }),
    });
    return value;
  };
  const gearFactor = { key: 'gear', label: 'gear', value: gearing.gearRatio };
  const rangeFactor = { key: 'range', label: 'range', value: rangeValue };
  torque(pointFigures.gearbox(), 'Gearbox output torque', [gearFactor]);
  torque(pointFigures.prop(), 'Prop shaft torque', [gearFactor, rangeFactor]);
  const shares = axleShares(build, axles);
  const share = shares[main] ?? 1;
  const inputNm = torque(pointFigures.input(), 'Torque into the unit', [
    gearFactor,
    rangeFactor,
    ...(share < 1 ? [{ key: 'share', label: 'share of this axle, by what both can take', value: share }] : []),
    { key: 'final', label: 'final drive', value: own.finalRatio },
  ]);
  const propNm = inputNm / (share * own.finalRatio);
  return Object.fromEntries(
    drivenAxles(build).flatMap((name) => {
      const axle = axles[name];
      return axle ? [[name, propNm * (shares[name] ?? 1) * axle.finalRatio]] : [];
    }),
  );
}

/**
 * Share of the torque behind the transfer case that each driven axle takes: in proportion to what its tyres can put down, at
 * the prop shaft: μ·N·r ÷ (final drive × hub), standing loads. Grip, not the engine, sets what arrives [exact, equilibrium with
 * both axles tied together]; not counted: a centre differential with a split of its own.
 */
export function axleShares(
  build: Build,
  axles: Partial<Record<AxleName, AxleGearingState>>,
): Partial<Record<AxleName, number>> {
  const takes = drivenAxles(build).flatMap((name) => {
    const axle = axles[name];
    if (!axle) return [];
    return [{ name, can: (axleShare(build, name) * axle.circumferenceMm) / (axle.finalRatio * axle.hubRatio) }];
  });
  const all = takes.reduce((sum, { can }) => sum + can, 0);
  return Object.fromEntries(takes.map(({ name, can }) => [name, can / all]));
}

function speedsAtLimit(build: Build, own: AxleGearingState, range: number, all: Derivation): void {
  const d = all.using([`axles.${own.name}.tyre`, `axles.${own.name}.finalDrive`, 'gearbox.gears', 'engine.limitRpm']);
  speedFan(build, own, range).forEach((gear, i) => {
    const heading = `Speed at the limiter in ${gear.gear}`;
    d.figure({
      id: pointFigures.limit(i),
      label: heading,
      value: gear.limitMps,
      quantity: 'speed',
      explain: () => explainSpeed(heading, gearingAt(build, own, i, range), build.engine.limitRpm),
    });
  });
}

function findPoint({ engine }: Build, rpm: number, d: Derivation): void {
  if (rpm <= engine.limitRpm) return;
  d.finding({
    id: 'point.limit',
    uses: ['engine.limitRpm'],
    verdict: 'stop',
    place: { sheet: 'gearing', tab: 'speed', field: 'point-rpm' },
    station: 'engine',
    figures: [pointFigures.engine()],
    rule: 'engine speed at most the limiter [exact]',
    facts: { rpm: fact(rpm, 'rotation'), limit: fact(engine.limitRpm, 'rotation') },
    say: words.limit,
  });
}

function findCoupling(build: Build, d: Derivation): void {
  if (build.coupling.kind !== 'clutch') return;
  const most = Math.max(...torqueCurve(build).map((point) => point.torqueNm));
  const capacity = entryBase(build.coupling.capacity);
  if (most === 0) return;
  const margin = capacity / most;
  d.figure({
    id: pointFigures.coupling(),
    label: 'Clutch margin',
    value: margin,
    quantity: 'ratio',
    decimals: 2,
    explain: () =>
      explain({
        title: 'Clutch margin',
        formula: 'margin = torque the clutch holds ÷ most engine torque',
        inputs: [
          { key: 'capacity', label: 'clutch holds', value: capacity, quantity: 'torque' },
          { key: 'most', label: 'most engine torque', value: most, quantity: 'torque' },
        ],
        sources: [EXACT, { kind: 'guard-band', text: `ours: ${CLUTCH_MARGIN_GUARD}` }],
        result: { label: 'margin', quantity: 'ratio' },
        compute: (v) => ({ value: (v['capacity'] ?? 0) / (v['most'] ?? 1) }),
      }),
  });
  d.finding({
    id: 'coupling.margin',
    verdict: margin < 1 ? 'stop' : margin < CLUTCH_MARGIN_GUARD ? 'watch' : 'fits',
    place: { sheet: 'engine', field: 'clutch-capacity' },
    station: 'coupling',
    figures: [pointFigures.coupling()],
    rule: `our guard band: margin ${CLUTCH_MARGIN_GUARD}`,
    facts: {
      capacity: fact(capacity, 'torque'),
      most: fact(most, 'torque'),
      guard: fact(CLUTCH_MARGIN_GUARD, 'ratio'),
    },
    say: words.coupling,
  });
}
