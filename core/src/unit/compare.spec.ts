import fc from 'fast-check';
import {
  SITUATIONS,
  compareUnit,
  coneTorquePerNewton,
  lockLaw,
  sideGearThrust,
  factsOf,
  type CompareSituation,
  type CompareUnit,
} from './compare';
import { preloadThat, type Preload } from './unit-lock';

const GEAR = { meanRadiusMm: 30, pressureAngleDeg: 22.5, coneAngleDeg: 55 };
const UNITS: CompareUnit[] = [
  { type: 'open' },
  { type: 'plate', preload: preloadThat('parallel', 60), driveSlope: 0.52, overrunSlope: 0.3 },
  { type: 'plate', preload: preloadThat('series', 60), driveSlope: 0.52, overrunSlope: 0.3 },
  { type: 'plate', preload: { seriesNm: 150, parallelNm: 40 }, driveSlope: 0.3, overrunSlope: 1.2 },
  {
    type: 'side-gear-thrust',
    preloadN: 1500,
    preloadActs: 'parallel',
    frictionCoefficient: 0.1,
    interfacesPerPack: 6,
    meanRadiusMm: 45,
    gear: GEAR,
  },
  { type: 'cone', preloadN: 1200, frictionCoefficient: 0.12, meanRadiusMm: 40, halfAngleDeg: 9, gear: GEAR },
  { type: 'helical', biasRatio: 3, preloadNm: 0 },
  { type: 'helical', biasRatio: 3, preloadNm: 80 },
  { type: 'hybrid', biasRatio: 2.5, preloadNm: 0, platesFromNm: 600, platesSlope: 0.3 },
  { type: 'friction-insert', preloadNm: 120 },
  { type: 'selectable-locker', engaged: false },
  { type: 'selectable-locker', engaged: true },
  { type: 'automatic-locker' },
  { type: 'spool' },
];
const STRAIGHT: CompareSituation = {
  inputNm: 2000,
  left: { loadN: 3500, grip: 0.2 },
  right: { loadN: 3500, grip: 1 },
  tyreRadiusMm: 310,
  trackMm: 1500,
};
const unitOf = (type: CompareUnit['type'], n = 0): CompareUnit =>
  UNITS.filter((u) => u.type === type)[n] as CompareUnit;

describe('unit: laws of locking', () => {
  it('bevel side gears thrust by (T/2)/r·tan φ·sin Γ, cones multiply by 1/sin', () => {
    // [standard: Shigley, bevel gear forces and cone clutch, from memory]
    expect(sideGearThrust(GEAR)).toBeCloseTo(
      (Math.tan((22.5 * Math.PI) / 180) * Math.sin((55 * Math.PI) / 180)) / 0.06,
      9,
    );
    expect(coneTorquePerNewton(0.12, 40, 9)).toBeCloseTo((0.12 * 0.04) / Math.sin((9 * Math.PI) / 180), 12);
  });

  it('a helical unit of bias 3 holds half of the input', () => {
    expect(lockLaw(unitOf('helical'), 'drive')).toEqual({ seriesNm: 0, baseNm: 0, slope: 0.5 }); // TBR 3 ⇔ S 50 % [exact]
  });
});

describe('unit: side by side', () => {
  it('split grip: open is held by the slippery wheel, the rest by what they can lock', () => {
    const low = 3500 * 0.2 * 0.31;
    const of = (unit: CompareUnit) => compareUnit(unit, STRAIGHT);
    expect(of(unitOf('open')).deliveredNm).toBeCloseTo(2 * low, 9); // [exact]
    expect(of(unitOf('open')).slips).toBe('left');
    expect(of(unitOf('helical')).deliveredNm).toBeCloseTo(low * (1 + 3), 9); // slow wheel = TBR × fast wheel [exact]
    const plate = of(unitOf('plate'));
    // T = (2·T_low + T₀)/(1 − k) [exact, equilibrium]
    expect(plate.deliveredNm).toBeCloseTo(Math.min((2 * low + 60) / (1 - 0.52), low + 3500 * 0.31), 9);
    expect(of(unitOf('spool')).deliveredNm).toBeCloseTo(low + 3500 * 0.31, 9);
    expect(of(unitOf('spool')).slips).toBe('both');
  });

  it('a wheel in the air: helical gives nothing, with a dabbed brake T_b·TBR to the other', () => {
    const ground = { axleLoadN: 7000, grip: 1, tyreRadiusMm: 310, trackMm: 1500, cgHeightMm: 500 };
    const settings = { inputNm: 3000, overrunNm: 300, splitShare: 0.2, lateralG: 0.8, brakeNm: 150 };
    const air = factsOf('wheel-in-air', ground, settings);
    expect(compareUnit(unitOf('helical'), air).thrustN).toBe(0);
    expect(compareUnit(unitOf('helical', 1), air).thrustN).toBeGreaterThan(0); // preload
    const braked = compareUnit(unitOf('helical'), factsOf('wheel-in-air-braked', ground, settings));
    expect(braked.rightNm).toBeCloseTo(150 * 3, 9); // [exact]
    expect(braked.deliveredNm).toBeCloseTo(150 * (1 + 3), 9); // (1 + TBR)·T_b [exact]
    expect(braked.leftNm).toBeCloseTo(0, 9);
    expect(compareUnit(unitOf('selectable-locker', 1), air).thrustN).toBeGreaterThan(0);
    expect(compareUnit(unitOf('selectable-locker'), air).thrustN).toBe(0);
  });

  it('in a turn bias pushes wide on power and steadies on overrun', () => {
    const ground = { axleLoadN: 7000, grip: 1.1, tyreRadiusMm: 310, trackMm: 1500, cgHeightMm: 300 };
    const settings = { inputNm: 700, overrunNm: 300, splitShare: 0.2, lateralG: 0.5, brakeNm: 0 };
    const exit = compareUnit(unitOf('plate'), factsOf('corner-exit', ground, settings));
    // a turn to the left: the inner wheel is the left one and gets T/2 + T_lock/2 [exact]
    expect(exit.leftNm).toBeCloseTo(350 + (60 + 0.52 * 700) / 2, 9);
    expect(exit.yawNm).toBeLessThan(0); // to the right: wide
    const entry = compareUnit(unitOf('plate'), factsOf('overrun-into-corner', ground, settings));
    expect(entry.rightNm).toBeCloseTo(-(150 + (60 + 0.3 * 300) / 2), 9);
    expect(entry.yawNm).toBeLessThan(0); // against the turn: steadies
    expect(compareUnit(unitOf('open'), factsOf('corner-exit', ground, settings)).yawNm).toBeCloseTo(0, 9);
    const auto = compareUnit(unitOf('automatic-locker'), factsOf('corner-exit', ground, settings));
    expect([auto.leftNm, auto.rightNm]).toEqual([700, 0]); // the faster wheel is freed
  });

  it('a wheel with little grip gets what the springs and the ramps leave it: the larger in series, the sum in parallel', () => {
    const low = 3500 * 0.2 * 0.31;
    const delivered = (preload: Preload, driveSlope: number): number =>
      compareUnit({ type: 'plate', preload, driveSlope, overrunSlope: 0 }, STRAIGHT).deliveredNm;
    const together = low + 3500 * 0.31;
    // series T_in = max(2·T_f + T₀, 2·T_f/(1 − k)), parallel (2·T_f + T₀)/(1 − k) [exact, equilibrium]
    for (const k of [0, 0.2, 0.4])
      for (const nm of [0, 60, 400]) {
        expect(delivered(preloadThat('series', nm), k)).toBeCloseTo(
          Math.min(together, Math.max(2 * low + nm, (2 * low) / (1 - k))),
          9,
        );
        expect(delivered(preloadThat('parallel', nm), k)).toBeCloseTo(Math.min(together, (2 * low + nm) / (1 - k)), 9);
      }
  });

  it('a wheel in the air gets nothing but what springs hold', () => {
    const air = { ...STRAIGHT, left: { loadN: 0, grip: 1 }, right: { loadN: 7000, grip: 1 } };
    const right = (preload: Preload): number =>
      compareUnit({ type: 'plate', preload, driveSlope: 0.5, overrunSlope: 0 }, air).rightNm;
    expect(right(preloadThat('series', 60))).toBeCloseTo(60, 9); // T_f = 0 [exact]
    expect(right(preloadThat('parallel', 60))).toBeCloseTo(60 / (1 - 0.5), 9);
  });

  it('a spool in a turn slides its inner tyre, and says so', () => {
    const turn: CompareSituation = {
      ...STRAIGHT,
      inputNm: 700,
      outer: 'right',
      left: { loadN: 2000, grip: 1 },
      right: { loadN: 5000, grip: 1 },
    };
    const spool = compareUnit(unitOf('spool'), turn);
    expect(spool.leftNm).toBeCloseTo(2000 * 0.31, 9); // all that it holds [exact]
    expect(spool.slips).toBe('left');
    expect(compareUnit(unitOf('plate'), turn).slips).toBe('none');
  });

  it('a dragged wheel with its brake dabbed holds back no more than its tyre can, less the brake', () => {
    // a spool in a turn to the right: the left, outer wheel is held back by the shaft, and by its brake [exact]
    const at = (brakeNm: number): CompareSituation => ({
      ...STRAIGHT,
      inputNm: 500,
      outer: 'left',
      left: { loadN: 2000, grip: 1, brakeNm },
      right: { loadN: 9000, grip: 1 },
    });
    expect(compareUnit(unitOf('spool'), at(0)).leftNm).toBeCloseTo(-2000 * 0.31, 9);
    expect(compareUnit(unitOf('spool'), at(400)).leftNm).toBeCloseTo(-(2000 * 0.31 - 400), 9);
    expect(compareUnit(unitOf('spool'), at(5000)).leftNm).toBeCloseTo(0, 9);
  });

  it('balances torque in every situation and never makes energy', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    const wheel = fc.record({ loadN: number(0, 9000), grip: number(0, 1.6) });
    fc.assert(
      fc.property(
        fc.constantFrom(...UNITS),
        number(-4000, 9000),
        wheel,
        wheel,
        fc.constantFrom<'left' | 'right' | undefined>('left', 'right', undefined),
        number(0, 400),
        (unit, inputNm, left, right, outer, brake) => {
          const brakeNm = inputNm > 0 ? brake : 0;
          const situation: CompareSituation = {
            ...STRAIGHT,
            inputNm,
            left: { ...left, brakeNm },
            right,
            ...(outer ? { outer } : {}),
          };
          const result = compareUnit(unit, situation);
          const size = Math.abs(result.deliveredNm);
          // what goes in comes out: at the road and at the brake; and no more goes in than there is
          const atRoad = result.leftNm + result.rightNm;
          const atBrake = Math.abs(result.deliveredNm - atRoad);
          expect(atBrake).toBeLessThanOrEqual(brakeNm + 1e-6);
          expect(size).toBeLessThanOrEqual(Math.abs(inputNm) + 1e-6);
          // no tyre gives more than it holds
          expect(Math.abs(result.leftNm)).toBeLessThanOrEqual(left.loadN * left.grip * 0.31 + 1e-6);
          expect(Math.abs(result.rightNm)).toBeLessThanOrEqual(right.loadN * right.grip * 0.31 + 1e-6);
          // the wheels differ by no more than the unit holds
          const law = lockLaw(unit, inputNm < 0 ? 'overrun' : 'drive');
          const held = Math.max(
            law.seriesNm,
            law.baseNm + law.slope * size + (law.lateSlope ?? 0) * Math.max(0, size - (law.lateFromNm ?? 0)),
          );
          const through = [result.deliveredNm - result.rightNm, result.rightNm];
          if (brakeNm === 0 && unit.type !== 'automatic-locker')
            expect(Math.abs((through[0] ?? 0) - (through[1] ?? 0))).toBeLessThanOrEqual(held + 1e-6);
          // none slips: all of it goes through; in a turn a locked axle may pass all of it and slide a tyre
          if (result.slips === 'none') expect(size).toBeCloseTo(Math.abs(inputNm), 6);
          else if (outer === undefined) expect(size).toBeLessThan(Math.abs(inputNm));
          if (size < Math.abs(inputNm) - 1e-6) expect(result.slips).not.toBe('none');
        },
      ),
      { numRuns: 3000 },
    );
  });

  it('more lock never gives less thrust straight ahead', () => {
    const thrust = (driveSlope: number) =>
      compareUnit({ type: 'plate', preload: preloadThat('series', 0), driveSlope, overrunSlope: 0 }, STRAIGHT).thrustN;
    for (let k = 0; k < 1.4; k += 0.05) expect(thrust(k + 0.05)).toBeGreaterThanOrEqual(thrust(k) - 1e-9);
  });

  it('every unit answers in every situation', () => {
    const ground = { axleLoadN: 7000, grip: 1, tyreRadiusMm: 310, trackMm: 1500, cgHeightMm: 500 };
    const settings = { inputNm: 3000, overrunNm: 300, splitShare: 0.2, lateralG: 0.8, brakeNm: 150 };
    for (const name of SITUATIONS)
      for (const unit of UNITS)
        expect(Number.isFinite(compareUnit(unit, factsOf(name, ground, settings)).thrustN)).toBeTrue();
  });

  const bad: [string, CompareUnit, Partial<CompareSituation>][] = [
    ['biasRatio', { type: 'helical', biasRatio: 0.5, preloadNm: 0 }, {}],
    ['halfAngleDeg', { ...unitOf('cone'), halfAngleDeg: 0 } as CompareUnit, {}],
    ['frictionCoefficient', { ...unitOf('side-gear-thrust'), frictionCoefficient: 0 } as CompareUnit, {}],
    ['left.loadN', unitOf('open'), { left: { loadN: -1, grip: 1 } }],
    ['tyreRadiusMm', unitOf('open'), { tyreRadiusMm: 0 }],
    ['inputNm', unitOf('open'), { inputNm: Number.NaN }],
    ['inputNm', unitOf('open'), { inputNm: -100, left: { loadN: 0, grip: 1, brakeNm: 50 } }],
  ];
  for (const [field, unit, change] of bad) {
    it(`refuses by name: ${field}`, () => {
      expect(() => compareUnit(unit, { ...STRAIGHT, ...change })).toThrowMatching((error) => error.field === field);
    });
  }
});
