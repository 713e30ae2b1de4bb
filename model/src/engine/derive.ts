import {
  InputError,
  engineTorque,
  entryBase,
  explain,
  formatUnit,
  roadSpeed,
  say,
  wheelTorques,
} from '@hot-spline/core';
import type { AxleName, Build } from '../document/schema';
import { Derivation, type Figure, type Finding, type Sheet } from './figure';
import { EXACT, drivenAxles, explainSpeed, gearingAt, type AxleGearingState } from '../gearing/axle-gearing';
import { deriveIdentity } from '../identity/derive';
import { deriveMatch } from '../gearing/match';
import { deriveGearing, type GearingState } from '../gearing/derive';
import { deriveRoad } from '../road/derive';
import { torqueCurve } from '../road/torque-curve';
import { readingsInForce } from './readings';
import type { LedgerEntry } from '../document/ledger';
import { derivePack } from '../pack/derive';
import type { PackState } from '../pack/state';
import { deriveUnit, platesOf, type UnitState } from '../unit/derive';
import { deriveSideGears } from '../unit/side-gear';

/** Guard band of the coupling, ours: torque that the clutch holds over the engine's most. */
export const CLUTCH_MARGIN_GUARD = 1.2;

export interface AxleState {
  readonly pack: PackState | null;
  readonly unit: UnitState;
}

export interface Derived {
  /** The axle that the Line follows. */
  readonly main: AxleName;
  readonly figures: ReadonlyMap<string, Figure>;
  /** Most serious first. */
  readonly findings: readonly Finding[];
  readonly gearing: GearingState;
  readonly axles: Partial<Record<AxleName, AxleState>>;
  /** Torque into the unit of the followed axle at the operating point, N·m. */
  readonly inputNm: number;
}

/** A calculation that refuses its input becomes a finding that says so; any other error is a mistake and is passed on. */
function attempt<T>(d: Derivation, where: { sheet: Sheet; axle?: AxleName; anchor: string }, run: () => T): T | null {
  try {
    return run();
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    const { message, allowed, field } = error;
    d.finding({
      id: `refused.${where.sheet}.${where.axle ?? ''}.${field}`,
      verdict: 'stop',
      ...where,
      figures: [],
      rule: 'a calculation refused this input',
      say: () => ({ title: 'Can’t be worked out', detail: `${message} Allowed: ${allowed}.` }),
    });
    return null;
  }
}

/**
 * All figures and findings of a build from its specification and its ledger. Pure: the same in gives the same out.
 * @param follow the axle that the operating point is worked out for; the first driven one unless said
 * @param today the day as YYYY-MM-DD, for what falls due; without it nothing does
 */
export function deriveBuild(
  build: Build,
  ledger: readonly LedgerEntry[],
  follow?: AxleName,
  today: string | null = null,
): Derived {
  const d = new Derivation();
  const driven = drivenAxles(build);
  const main = follow && driven.includes(follow) ? follow : (driven[0] ?? 'rear');
  const gearing =
    attempt(d, { sheet: 'gearing', axle: main, anchor: `tyre-${main}` }, () => deriveGearing(build, main, d)) ?? {};
  const own = gearing[main];
  const inputNm = attempt(d, { sheet: 'engine', anchor: 'torque-curve' }, () => derivePoint(build, own, d)) ?? 0;
  for (const name of driven) {
    const state = gearing[name];
    if (state) deriveIdentity(build, name, state, d);
  }
  if (own)
    attempt(d, { sheet: 'gearing', axle: main, anchor: 'match-reading' }, () => {
      deriveMatch(build, main, own, d);
      deriveRoad(build, main, own, d);
    });
  const readings = readingsInForce(ledger);
  const axles: Partial<Record<AxleName, AxleState>> = {};
  for (const name of driven) {
    const unit = build.axles[name]?.unit;
    if (!unit) continue;
    const plate = platesOf(unit);
    const place = { axle: name, anchor: 'stack-left' };
    const pack = plate
      ? attempt(d, { sheet: 'pack', ...place }, () => derivePack(plate, name, readings, today, d))
      : null;
    const state = attempt(d, { sheet: 'unit', axle: name, anchor: 'drive-ramp' }, () =>
      deriveUnit(unit, name, pack, inputNm, d),
    );
    attempt(d, { sheet: 'unit', axle: name, anchor: 'unit-type' }, () => deriveSideGears(unit, name, readings, d));
    if (state) axles[name] = { pack, unit: state };
  }
  const unit = axles[main]?.unit;
  if (unit && own) shafts(main, unit, inputNm * own.hubRatio, own.hubRatio, d);
  return { main, figures: d.figures, findings: d.sorted(), gearing, axles, inputNm };
}

function derivePoint(build: Build, own: AxleGearingState | undefined, d: Derivation): number {
  const { gear, range, rpm } = build.operatingPoint;
  const curve = torqueCurve(build);
  const engineNm = engineTorque(curve, rpm);
  d.figure({
    id: 'point.engine',
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
  findPoint(build, d);
  findCoupling(build, d);
  if (!own) return 0;
  const gearing = gearingAt(build, own, gear, range);
  const rangeValue = gearing.rangeRatio ?? 1;
  const speed = roadSpeed(gearing, rpm);
  d.figure({
    id: 'point.speed',
    label: 'Road speed',
    value: speed,
    quantity: 'speed',
    explain: () => explainSpeed('Road speed at the operating point', gearing, rpm),
  });
  d.figure({ id: 'point.gearboxRpm', label: 'Gearbox output', value: rpm / gearing.gearRatio, quantity: 'rotation' });
  d.figure({
    id: 'point.propRpm',
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
          sources: [{ kind: 'exact', text: 'no losses counted; all of it taken at this axle' }],
          result: { label, quantity: 'torque' },
          compute: (v) => ({ value: Object.values(v).reduce((a, b) => a * b, 1) }),
        }),
    });
    return value;
  };
  const gearFactor = { key: 'gear', label: 'gear', value: gearing.gearRatio };
  const rangeFactor = { key: 'range', label: 'range', value: rangeValue };
  torque('point.gearbox', 'Gearbox output torque', [gearFactor]);
  torque('point.prop', 'Prop shaft torque', [gearFactor, rangeFactor]);
  return torque('point.input', 'Torque into the unit', [
    gearFactor,
    rangeFactor,
    { key: 'final', label: 'final drive', value: own.finalRatio },
  ]);
}

function findPoint(build: Build, d: Derivation): void {
  const { rpm } = build.operatingPoint;
  if (rpm <= build.engine.limitRpm) return;
  d.finding({
    id: 'point.limit',
    verdict: 'stop',
    sheet: 'gearing',
    anchor: 'point-rpm',
    figures: ['point.speed'],
    rule: 'engine speed at most the limiter [exact]',
    say: () => ({
      title: `Operating point ${Math.round(rpm - build.engine.limitRpm)} rpm past the limiter`,
      detail: `${Math.round(rpm)} against ${Math.round(build.engine.limitRpm)} rpm: move the cursor or take a taller gear.`,
    }),
  });
}

function findCoupling(build: Build, d: Derivation): void {
  if (build.coupling.kind !== 'clutch') return;
  const most = Math.max(...torqueCurve(build).map((point) => point.torqueNm));
  const capacity = entryBase(build.coupling.capacity);
  if (most === 0) return;
  const margin = capacity / most;
  d.figure({
    id: 'coupling.margin',
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
    sheet: 'engine',
    anchor: 'clutch-capacity',
    figures: ['coupling.margin'],
    rule: `our guard band: margin ${CLUTCH_MARGIN_GUARD}`,
    say: (system) => ({
      title: margin < 1 ? 'Clutch slips at full torque' : `Clutch holds ×${formatUnit(margin, '', 2)}`,
      detail: `${say(capacity, 'torque', system, 0)} against ${say(most, 'torque', system, 0)} from the engine${margin < CLUTCH_MARGIN_GUARD ? `: below our ${CLUTCH_MARGIN_GUARD}` : ''}.`,
    }),
  });
}

function shafts(main: AxleName, unit: UnitState, wheelNm: number, hub: number, d: Derivation): void {
  const lockNm = unit.lock('drive', wheelNm / hub).lockNm * hub;
  // A solid unit can pass everything to one wheel, whatever it could hold beyond that.
  const most = wheelTorques(wheelNm, lockNm).slowNm;
  d.figure({
    id: 'point.shaft',
    label: 'Most torque in one shaft',
    value: most,
    quantity: 'torque',
    explain: () =>
      explain({
        title: 'Most torque in one shaft at the operating point',
        formula: 'slow wheel = (input + locking torque) ÷ 2, at most all of the input; times the hub reduction',
        inputs: [
          { key: 'input', label: 'torque at the wheels, both', value: wheelNm, quantity: 'torque' },
          { key: 'lock', label: 'locking torque at the wheels', value: lockNm, quantity: 'torque' },
        ],
        sources: [{ kind: 'exact', text: `${main} axle; tyre grip not counted, so an upper bound` }],
        result: { label: 'slow wheel', quantity: 'torque' },
        compute: (v) => ({ value: wheelTorques(v['input'] ?? 0, v['lock'] ?? 0).slowNm }),
      }),
  });
}
