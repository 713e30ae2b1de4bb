import { axleMismatch, engineRpm, entryBase, explain, say, toothPair, totalRatio } from '@hot-spline/core';
import type { AxleName, Build } from '../document/schema';
import type { Derivation } from '../engine/figure';
import {
  EXACT,
  axleGearingState,
  drivenAxles,
  explainCircumference,
  explainRpm,
  explainSpeed,
  explainTeeth,
  gearRatios,
  gearingAt,
  speedFan,
  tallestGear,
  tyreCircumference,
  type AxleGearingState,
} from './axle-gearing';

/** Our guard bands, shown as ours. */
export const GEARING_GUARDS = {
  /** Front/rear mismatch above which a transfer case winds up on grip (common practice, from memory). */
  mismatch: 0.01,
  /** Cruise rpm above rated stall (common practice: 500 to 800). */
  aboveStallRpm: 500,
  /** A measured rolling circumference this far off the designation wants a second look. */
  tyre: 0.05,
} as const;

export type GearingState = Partial<Record<AxleName, AxleGearingState>>;

const title = (axle: AxleName): string => (axle === 'rear' ? 'Rear' : 'Front');
const percent = (fraction: number): string => `${(100 * Math.abs(fraction)).toFixed(2)} %`;

/** Tyre, gearbox and final drive: figures and what they say. */
export function deriveGearing(build: Build, main: AxleName, d: Derivation): GearingState {
  const state: GearingState = {};
  for (const name of drivenAxles(build)) {
    const axle = build.axles[name];
    if (!axle) continue;
    const own = axleGearingState(name, axle);
    state[name] = own;
    d.figure({
      id: `gearing.${name}.circumference`,
      label: `${title(name)} rolling circumference`,
      value: own.circumferenceMm,
      quantity: 'length',
      explain: () => explainCircumference(axle),
    });
    d.figure({
      id: `gearing.${name}.final`,
      label: `${title(name)} final drive`,
      value: own.finalRatio,
      quantity: 'ratio',
      explain: () => explainTeeth(`${title(name)} final drive by tooth count`, axle.finalDrive),
    });
    findHunting(name, own, d);
    findTyre(build, name, own, d);
  }
  findSteps(build, d);
  const own = state[main];
  if (!own) return state;
  speedsAtLimit(build, own, d);
  cruise(build, own, d);
  mismatch(state, d);
  return state;
}

function findHunting(name: AxleName, own: AxleGearingState, d: Derivation): void {
  const { ring, pinion } = own.finalDrive;
  d.finding({
    id: `gearing.hunting.${name}`,
    verdict: own.hunting === 'hunting' ? 'fits' : 'watch',
    sheet: 'gearing',
    axle: name,
    anchor: `final-${name}-ring`,
    figures: [`gearing.${name}.final`],
    rule: 'gcd(ring, pinion) = 1 is hunting [exact]',
    say: () =>
      own.hunting === 'hunting'
        ? {
            title: `${title(name)} ${ring}/${pinion} hunts`,
            detail: 'Every tooth meets every tooth: no timing marks to align.',
          }
        : {
            title: `${title(name)} ${ring}/${pinion} does not hunt${own.hunting === 'partial' ? ' fully' : ''}`,
            detail: `Teeth share the divisor ${own.commonDivisor}: align the timing marks of ring and pinion.`,
          },
  });
}

function findTyre(build: Build, name: AxleName, own: AxleGearingState, d: Derivation): void {
  const tyre = build.axles[name]?.tyre;
  if (!tyre?.measured) return;
  const nominal = tyreCircumference({ ...tyre, measured: null });
  const off = own.circumferenceMm / nominal - 1;
  d.finding({
    id: `gearing.tyre.${name}`,
    verdict: Math.abs(off) > GEARING_GUARDS.tyre ? 'watch' : 'fits',
    sheet: 'gearing',
    axle: name,
    anchor: `tyre-${name}-measured`,
    figures: [`gearing.${name}.circumference`],
    rule: `our guard band: measured within ${100 * GEARING_GUARDS.tyre} % of the designation`,
    say: (system) => ({
      title: `${title(name)} tyre measured ${percent(off)} ${off < 0 ? 'below' : 'above'} its designation`,
      detail:
        Math.abs(off) > GEARING_GUARDS.tyre
          ? `${say(own.circumferenceMm, 'length', system, 0)} against ${say(nominal, 'length', system, 0)}: check the unit and the tyre, then measure again under load.`
          : 'The measurement is in force.',
    }),
  });
}

function findSteps(build: Build, d: Derivation): void {
  const ratios = gearRatios(build);
  if (ratios.length < 2) return;
  const wrong = ratios.findIndex((ratio, i) => i > 0 && ratio >= (ratios[i - 1] ?? 0));
  const steps = ratios.slice(1).map((ratio, i) => (ratios[i] ?? 0) / ratio);
  const widening = steps.findIndex((step, i) => i > 0 && step > (steps[i - 1] ?? 0) * 1.005);
  const names = build.gearbox.gears.map((gear) => gear.name);
  d.finding({
    id: 'gearing.steps',
    verdict: wrong > 0 ? 'stop' : widening > 0 ? 'watch' : 'fits',
    sheet: 'engine',
    anchor: `gear-${wrong > 0 ? wrong : widening > 0 ? widening + 1 : 0}`,
    figures: [],
    rule: 'ratios fall from gear to gear; steps stay equal or shrink upwards (common practice)',
    say: () => {
      if (wrong > 0) {
        return {
          title: `Gear ${names[wrong]} is not taller than ${names[wrong - 1]}`,
          detail: 'Ratios must fall from gear to gear: check the two entries.',
        };
      }
      if (widening > 0) {
        return {
          title: `Step ${names[widening]} to ${names[widening + 1]} is wider than the one before`,
          detail: `×${(steps[widening] ?? 0).toFixed(3)} after ×${(steps[widening - 1] ?? 0).toFixed(3)}: the revs drop further up there.`,
        };
      }
      return {
        title: 'Gear steps stay equal or shrink upwards',
        detail: steps.map((step) => `×${step.toFixed(2)}`).join('  '),
      };
    },
  });
}

function speedsAtLimit(build: Build, own: AxleGearingState, d: Derivation): void {
  const range = build.operatingPoint.range;
  speedFan(build, own, range).forEach((gear, i) => {
    const heading = `Speed at the limiter in ${gear.gear}`;
    d.figure({
      id: `gearing.limit.${i}`,
      label: heading,
      value: gear.limitMps,
      quantity: 'speed',
      explain: () => explainSpeed(heading, gearingAt(build, own, i, range), build.engine.limitRpm),
    });
  });
}

function cruise(build: Build, own: AxleGearingState, d: Derivation): void {
  const gear = tallestGear(build);
  const gearing = gearingAt(build, own, gear, 0);
  const speed = entryBase(build.cruiseSpeed);
  const rpm = engineRpm(gearing, speed);
  const name = build.gearbox.gears[gear]?.name ?? '';
  d.figure({
    id: 'gearing.cruise',
    label: 'Engine speed at cruise',
    value: rpm,
    quantity: 'rotation',
    explain: () => explainRpm(`Engine speed at cruise, gear ${name}`, gearing, speed),
  });
  const stall = build.coupling.kind === 'converter' ? build.coupling.stallRpm : null;
  const over = rpm > build.engine.limitRpm;
  const margin = stall === null ? null : rpm - stall;
  const hot = margin !== null && margin < GEARING_GUARDS.aboveStallRpm;
  d.finding({
    id: 'gearing.cruise',
    verdict: over ? 'stop' : hot ? 'watch' : 'fits',
    sheet: 'gearing',
    anchor: 'cruise-speed',
    figures: ['gearing.cruise'],
    rule:
      stall === null ? 'cruise below the limiter [exact]' : 'cruise 500 to 800 rpm above rated stall (common practice)',
    say: (system) => {
      const at = `${say(speed, 'speed', system, 0)} in ${name}`;
      if (over) {
        return {
          title: `Cruise is past the limiter by ${Math.round(rpm - build.engine.limitRpm)} rpm`,
          detail: `${at} would need ${Math.round(rpm)} rpm: take a taller final drive or tyre, or cruise slower.`,
        };
      }
      if (hot) {
        return {
          title: `Cruise is ${Math.round(margin)} rpm from converter stall`,
          detail: `${Math.round(rpm)} rpm at ${at}, rated stall ${stall}: below stall + 500 the converter slips and heats. Shorten the final drive or lower the stall.`,
        };
      }
      return {
        title: `Cruise at ${Math.round(rpm)} rpm`,
        detail: `${at}${margin === null ? '' : `, ${Math.round(margin)} rpm above stall`}.`,
      };
    },
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
    id: 'gearing.mismatch',
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
    sheet: 'gearing',
    axle: 'front',
    anchor: 'final-front-ring',
    figures: ['gearing.mismatch'],
    rule: 'our guard band 1 % (common practice, from memory)',
    say: () => ({
      title: `Front shaft ${percent(value)} ${value < 0 ? 'slower' : 'faster'} than rear`,
      detail: winds
        ? 'On grip the transfer case winds up: match ratios or tyres, or keep it out of four-wheel drive on hard ground.'
        : 'Inside the 1 % guard band.',
    }),
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
export const totalAtPoint = (build: Build, own: AxleGearingState): number =>
  totalRatio(gearingAt(build, own, build.operatingPoint.gear, build.operatingPoint.range));
