import { ABOVE_STALL, axleMismatch, engineRpm, entryBase, explain, toothPair, totalRatio } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import { capital } from '../base/names';
import type { Derivation } from '../frame/derivation';
import { fact } from '../frame/finding';
import { gearingFigures } from './ids';
import * as words from './words';
import { EXACT } from '../frame/figure';
import {
  axleGearingState,
  drivenAxles,
  explainCircumference,
  explainRpm,
  explainTeeth,
  gearRatios,
  gearingAt,
  tallestGear,
  tyreCircumference,
  type AxleGearingState,
} from './axle-gearing';

/** Our guard bands, shown as ours. */
export const GEARING_GUARDS = {
  /** Front/rear mismatch above which a transfer case winds up on grip (common practice, from memory). */
  mismatch: 0.01,
  /** A measured rolling circumference this far off the designation wants a second look. */
  tyre: 0.05,
} as const;

export type GearingState = Partial<Record<AxleName, AxleGearingState>>;

/** Tyre, gearbox and final drive: figures and what they say. */
export function deriveGearing(build: Build, main: AxleName, all: Derivation): GearingState {
  const state: GearingState = {};
  for (const name of drivenAxles(build)) {
    const axle = build.axles[name];
    if (!axle) continue;
    const d = all.using([`axles.${name}.tyre`, `axles.${name}.finalDrive`]);
    const own = axleGearingState(name, axle);
    state[name] = own;
    d.figure({
      id: gearingFigures.circumference(name),
      label: `${capital(name)} rolling circumference`,
      value: own.circumferenceMm,
      quantity: 'length',
      rests: axle.tyre.measured ? 'measured' : 'said',
      explain: () => explainCircumference(axle),
    });
    d.figure({
      id: gearingFigures.final(name),
      label: `${capital(name)} final drive`,
      value: own.finalRatio,
      quantity: 'ratio',
      explain: () => explainTeeth(`${capital(name)} final drive by tooth count`, axle.finalDrive),
    });
    findHunting(name, own, d);
    findTyre(build, name, own, d);
  }
  findSteps(build, all.using(['gearbox.gears']));
  const own = state[main];
  if (!own) return state;
  const whole = all.using([`axles.${main}.tyre`, `axles.${main}.finalDrive`, 'gearbox.gears']);
  cruise(build, own, whole);
  mismatch(state, all.using(['axles.rear', 'axles.front']));
  return state;
}

function findHunting(name: AxleName, own: AxleGearingState, d: Derivation): void {
  const { ring, pinion } = own.finalDrive;
  d.finding({
    id: `gearing.hunting.${name}`,
    verdict: own.hunting === 'hunting' ? 'fits' : 'watch',
    place: { sheet: 'gearing', tab: 'speed', axle: name, field: `final-${name}-ring` },
    station: 'final',
    figures: [gearingFigures.final(name)],
    rule: 'gcd(ring, pinion) = 1 is hunting [exact]',
    facts: { axle: name, teeth: `${ring}/${pinion}`, hunting: own.hunting, divisor: fact(own.commonDivisor, 'count') },
    say: words.hunting,
  });
}

function findTyre(build: Build, name: AxleName, own: AxleGearingState, d: Derivation): void {
  const tyre = build.axles[name]?.tyre;
  if (!tyre?.measured) return;
  const nominal = tyreCircumference({ ...tyre, measured: null });
  const off = own.circumferenceMm / nominal - 1;
  const far = Math.abs(off) > GEARING_GUARDS.tyre;
  d.finding({
    id: `gearing.tyre.${name}`,
    verdict: far ? 'watch' : 'fits',
    place: { sheet: 'gearing', tab: 'speed', axle: name, field: `tyre-${name}-measured` },
    station: 'tyres',
    figures: [gearingFigures.circumference(name)],
    rule: `our guard band: measured within ${100 * GEARING_GUARDS.tyre} % of the designation`,
    facts: {
      axle: name,
      far,
      off: fact(100 * off, 'percent'),
      measured: fact(own.circumferenceMm, 'length'),
      nominal: fact(nominal, 'length'),
    },
    say: words.tyre,
  });
}

function findSteps(build: Build, d: Derivation): void {
  const ratios = gearRatios(build);
  if (ratios.length < 2) return;
  const wrong = ratios.findIndex((ratio, i) => i > 0 && ratio >= (ratios[i - 1] ?? 0));
  const steps = ratios.slice(1).map((ratio, i) => (ratios[i] ?? 0) / ratio);
  const widening = steps.findIndex((step, i) => i > 0 && step > (steps[i - 1] ?? 0) * 1.005);
  const at = wrong > 0 ? wrong : widening > 0 ? widening + 1 : 0;
  const name = (i: number): string => build.gearbox.gears[i]?.name ?? '';
  d.finding({
    id: 'gearing.steps',
    verdict: wrong > 0 ? 'stop' : widening > 0 ? 'watch' : 'fits',
    place: { sheet: 'engine', field: `gear-${at}` },
    station: 'gearbox',
    figures: [],
    rule: 'ratios fall from gear to gear; steps stay equal or shrink upwards (common practice)',
    facts: {
      problem: wrong > 0 ? 'rises' : widening > 0 ? 'widens' : '',
      gear: name(at),
      before: name(at - 1),
      step: fact(steps[widening] ?? 0, 'ratio'),
      stepBefore: fact(steps[widening - 1] ?? 0, 'ratio'),
      steps: steps.map((step) => `×${step.toFixed(2)}`).join('  '),
    },
    say: words.steps,
  });
}

function cruise(build: Build, own: AxleGearingState, d: Derivation): void {
  const gear = tallestGear(build);
  const gearing = gearingAt(build, own, gear, 0);
  const speed = entryBase(build.cruiseSpeed);
  const rpm = engineRpm(gearing, speed);
  const name = build.gearbox.gears[gear]?.name ?? '';
  d.figure({
    id: gearingFigures.cruise(),
    label: 'Engine speed at cruise',
    value: rpm,
    quantity: 'rotation',
    explain: () => explainRpm(`Engine speed at cruise, gear ${name}`, gearing, speed),
  });
  const stall = build.coupling.kind === 'converter' ? build.coupling.stallRpm : null;
  const over = rpm > build.engine.limitRpm;
  const margin = stall === null ? null : rpm - stall;
  const hot = margin !== null && margin < ABOVE_STALL * (stall ?? 0);
  d.finding({
    id: 'gearing.cruise',
    uses: ['cruiseSpeed', 'engine.limitRpm', ...(stall === null ? [] : ['coupling'])],
    verdict: over ? 'stop' : hot ? 'watch' : 'fits',
    place: { sheet: 'gearing', tab: 'speed', field: 'cruise-speed' },
    station: 'tyres',
    figures: [gearingFigures.cruise()],
    rule:
      stall === null
        ? 'cruise below the limiter [exact]'
        : 'cruise a quarter above rated stall: a guard of ours; the converter’s sheet wins',
    facts: {
      over,
      hot,
      gear: name,
      speed: fact(speed, 'speed'),
      rpm: fact(rpm, 'rotation'),
      limit: fact(build.engine.limitRpm, 'rotation'),
      ...(stall === null ? {} : { stall: fact(stall, 'rotation') }),
    },
    say: words.cruise,
  });
}

function mismatch(state: GearingState, d: Derivation): void {
  const { front, rear } = state;
  if (!front || !rear) return;
  const axle = (own: AxleGearingState) => ({
    rollingCircumferenceMm: own.circumferenceMm,
    axleRatio: own.finalRatio * own.hubRatio,
  });
  const value = axleMismatch(axle(front), axle(rear));
  d.figure({
    id: gearingFigures.mismatch(),
    label: 'Front prop shaft against rear',
    value: 100 * value,
    quantity: 'percent',
    decimals: 2,
    explain: () =>
      explain({
        title: 'Front to rear mismatch',
        formula: 'mismatch = (front ratio ÷ front circumference) ÷ (rear ratio ÷ rear circumference) − 1',
        inputs: [
          { key: 'if', label: 'front final drive × hub', value: front.finalRatio * front.hubRatio, quantity: 'ratio' },
          { key: 'cf', label: 'front rolling circumference', value: front.circumferenceMm, quantity: 'length' },
          { key: 'ir', label: 'rear final drive × hub', value: rear.finalRatio * rear.hubRatio, quantity: 'ratio' },
          { key: 'cr', label: 'rear rolling circumference', value: rear.circumferenceMm, quantity: 'length' },
        ],
        sources: [
          EXACT,
          { kind: 'trade', text: 'above about 1 % the transfer case winds up on grip', fromMemory: true },
        ],
        result: { label: 'front faster than rear', quantity: 'percent' },
        compute: (v) => ({
          value:
            100 *
            axleMismatch(
              { axleRatio: v['if'] ?? 0, rollingCircumferenceMm: v['cf'] ?? 0 },
              { axleRatio: v['ir'] ?? 0, rollingCircumferenceMm: v['cr'] ?? 0 },
            ),
        }),
      }),
  });
  const winds = Math.abs(value) > GEARING_GUARDS.mismatch;
  d.finding({
    id: 'gearing.mismatch',
    verdict: winds ? 'watch' : 'fits',
    place: { sheet: 'gearing', tab: 'speed', axle: 'front', field: 'final-front-ring' },
    station: 'transfer',
    figures: [gearingFigures.mismatch()],
    rule: 'our guard band 1 % (common practice, from memory)',
    facts: { winds, mismatch: fact(100 * value, 'percent') },
    say: words.mismatch,
  });
}

/** Every final drive on the picture: the present one first, then the candidates. */
export function finalsOf(build: Build, own: AxleGearingState): { label: string; ratio: number; present: boolean }[] {
  const present = { label: `${own.finalDrive.ring}/${own.finalDrive.pinion}`, ratio: own.finalRatio, present: true };
  const others = build.candidates.map((pair) => ({
    label: `${pair.ring}/${pair.pinion}`,
    ratio: toothPair(pair).ratio,
    present: false,
  }));
  return [present, ...others];
}

/** Ratio from crankshaft to wheel at the operating point. */
export const totalAtPoint = (build: Build, own: AxleGearingState, { gear, range }: Build['startPoint']): number =>
  totalRatio(gearingAt(build, own, gear, range));
