import { growthFactor, grownSpeed, type TyreGrowth } from '../gearing/corrections';
import { coupledAtFull, freeEngineRpm, speedRatioOfShare, torqueRatioAt } from './converter';
import type { Engine, Vehicle } from './vehicle';

/** One gear of a checked vehicle; speeds in m/s, forces in N. */
export interface GearState {
  readonly index: number;
  readonly totalRatio: number;
  /** λ·m with the engine tied to the road, kg. */
  readonly inertiaKg: number;
  /** Road speed at the limiter. */
  readonly limitMps: number;
  /** Road speed from which the engine is tied to the road: clutch closed, converter at coupling. */
  readonly lockMps: number;
  /** Engine speed at a road speed, slip of clutch or converter included. */
  rpm(speedMps: number): number;
  /** Speed of the gearbox input at a road speed: of the turbine, or of the clutch plate. */
  kinematicRpm(speedMps: number): number;
  /** Thrust at the tyre for 1 N·m at the gearbox input, N. */
  thrustPerNm(speedMps: number): number;
  /** Thrust of the engine's full torque at the tyre, nothing being accelerated and grip not counted. */
  engineThrust(speedMps: number): number;
  /** Thrust at which a closed clutch begins to slip; infinite where no capacity is told. */
  clutchThrust(speedMps: number): number;
  /** Road speeds at which the slope of the thrust jumps, ascending. */
  kinks(): readonly number[];
  /** Below this road speed the thrust follows no straight line: a converter slips; infinite on a tyre that grows. */
  readonly curvedToMps: number;
  /** Power at the tyres that does not depend on speed, W; 0 where there is a torque curve. */
  readonly powerW: number;
  /** The straight line that holds at a speed, and on to the side of `upwards`. */
  line(speedMps: number, upwards: boolean, into: Line): void;
}

/** Thrust = `still` + `perMps`·v N between two road speeds. */
export interface Line {
  fromMps: number;
  toMps: number;
  still: number;
  perMps: number;
}

export interface Engineside {
  /** From this kinematic speed on the engine is tied to the road. */
  readonly lockRpm: number;
  /** Torque into the gearbox from `fromRpm` on: straight lines between these kinematic speeds, level below the first and past the last. */
  readonly lines: { readonly fromRpm: number; readonly rpms: readonly number[]; readonly torques: readonly number[] };
  rpm(kinematicRpm: number): number;
  /** Torque into the gearbox at the engine's speed. */
  torque(kinematicRpm: number): number;
  /** Kinematic speeds at which something bends. */
  kinks(): readonly number[];
}

/** The curve from an engine speed on, by the kinematic speeds that go with its points. */
function linesFrom(
  marks: readonly number[],
  torque: (rpm: number) => number,
  lowestRpm: number,
  { perRpm, multiplied } = { perRpm: 1, multiplied: 1 },
) {
  const rpms = [lowestRpm, ...marks.filter((mark) => mark > lowestRpm)];
  return { rpms: rpms.map((rpm) => rpm * perRpm), torques: rpms.map((rpm) => torque(rpm) * multiplied) };
}

/** What the engine brings to the gearbox, by the speed of the gearbox input. @param first whether a clutch slips at launch */
export function engineside(
  vehicle: Vehicle,
  engine: Extract<Engine, { torqueCurve: unknown }>,
  torque: (rpm: number) => number,
  first: boolean,
): Engineside {
  const marks = engine.torqueCurve.map((point) => point.rpm);
  const { converter } = vehicle;
  if (converter) {
    const { stallRpm, couplingRatio, slip = 0 } = converter;
    const coupledRpm = coupledAtFull(converter, torque, engine.limitRpm);
    const lockRpm = couplingRatio * coupledRpm;
    const rpm = (kinematic: number): number =>
      kinematic < lockRpm
        ? freeEngineRpm(converter, torque, kinematic, coupledRpm)
        : Math.max(coupledRpm, kinematic / (1 - slip));
    // One that slips more than it does at coupling multiplies throughout.
    const beyond = { perRpm: 1 - slip, multiplied: torqueRatioAt(converter, 1 - slip) };
    const stallNm = torque(stallRpm);
    // Where the engine passes a bend of its curve while the converter still slips: the speed ratio follows from the capacity.
    const slipping = (): number[] =>
      marks
        .filter((mark) => mark > stallRpm && mark < coupledRpm && stallNm > 0)
        .map((mark) => mark * speedRatioOfShare(converter, (torque(mark) / stallNm) * (stallRpm / mark) ** 2));
    return {
      lockRpm,
      lines: { fromRpm: lockRpm, ...linesFrom(marks, torque, coupledRpm, beyond) },
      rpm,
      torque: (kinematic) => {
        const engineRpm = rpm(kinematic);
        return torque(engineRpm) * torqueRatioAt(converter, kinematic / engineRpm);
      },
      kinks: () => [
        speedRatioOfShare(converter, 1) * stallRpm,
        lockRpm,
        coupledRpm * (1 - slip),
        ...slipping(),
        ...marks.map((mark) => mark * (1 - slip)),
      ],
    };
  }
  const launchRpm = first ? (vehicle.launchRpm ?? marks[0] ?? 0) : 0;
  const rpm = (kinematic: number): number => Math.max(launchRpm, kinematic);
  return {
    lockRpm: launchRpm,
    lines: { fromRpm: 0, ...linesFrom(marks, torque, Math.max(launchRpm, marks[0] ?? 0)) },
    rpm,
    torque: (kinematic) => torque(rpm(kinematic)),
    kinks: () => [launchRpm, ...marks],
  };
}

/** What all gears of a car share. */
export interface Wheels {
  /** λ·m by the total ratio, kg. */
  inertiaKg(totalRatio: number): number;
  readonly efficiency: number;
  /** Share of the wheels' speed that does not slip. */
  readonly holds: number;
  readonly radiusM: number;
  readonly growth: TyreGrowth | null;
  /** Torque that a clutch passes before it slips; infinite where none does. */
  readonly clutchNm: number;
}

abstract class Gear {
  readonly inertiaKg: number;
  /** Turns of the gearbox input in a minute for 1 m/s of a tyre that does not grow. */
  protected readonly perMps: number;

  constructor(
    readonly index: number,
    readonly totalRatio: number,
    protected readonly wheels: Wheels,
  ) {
    this.inertiaKg = wheels.inertiaKg(totalRatio);
    this.perMps = (60 * totalRatio) / (2 * Math.PI * wheels.radiusM) / wheels.holds;
  }

  kinematicRpm(speedMps: number): number {
    const { growth } = this.wheels;
    return (growth ? speedMps / growthFactor(growth, speedMps) : speedMps) * this.perMps;
  }

  thrustPerNm(speedMps: number): number {
    const { growth, radiusM, efficiency } = this.wheels;
    return (this.totalRatio * efficiency) / (radiusM * (growth ? growthFactor(growth, speedMps) : 1));
  }
}

/** A gear behind constant power: no limiter, no clutch. */
export class PoweredGear extends Gear implements GearState {
  readonly limitMps = Number.POSITIVE_INFINITY;
  readonly lockMps = 0;
  readonly curvedToMps = 0;
  readonly powerW: number;

  constructor(index: number, totalRatio: number, wheels: Wheels, constantPowerW: number) {
    super(index, totalRatio, wheels);
    this.powerW = constantPowerW * wheels.efficiency * wheels.holds;
  }

  rpm(speedMps: number): number {
    return this.kinematicRpm(speedMps);
  }

  engineThrust(speedMps: number): number {
    return speedMps <= 0 ? Number.MAX_VALUE : this.powerW / speedMps;
  }

  clutchThrust(): number {
    return Number.POSITIVE_INFINITY;
  }

  kinks(): readonly number[] {
    return [];
  }

  line(_speedMps: number, _upwards: boolean, into: Line): void {
    into.fromMps = 0;
    into.toMps = Number.POSITIVE_INFINITY;
    into.still = 0;
    into.perMps = 0;
  }
}

/** A gear behind a torque curve. */
export class CurvedGear extends Gear implements GearState {
  readonly limitMps: number;
  readonly lockMps: number;
  readonly curvedToMps: number;
  readonly powerW = 0;
  private bends: readonly number[] | null = null;

  /** @param topRpm of the gearbox input at the limiter */
  constructor(
    index: number,
    totalRatio: number,
    wheels: Wheels,
    private readonly side: Engineside,
    topRpm: number,
  ) {
    super(index, totalRatio, wheels);
    this.limitMps = this.grown(topRpm);
    this.lockMps = this.grown(side.lockRpm);
    this.curvedToMps = wheels.growth ? Number.POSITIVE_INFINITY : side.lines.fromRpm / this.perMps;
  }

  rpm(speedMps: number): number {
    return this.side.rpm(this.kinematicRpm(speedMps));
  }

  engineThrust(speedMps: number): number {
    return this.side.torque(this.kinematicRpm(speedMps)) * this.thrustPerNm(speedMps);
  }

  clutchThrust(speedMps: number): number {
    return this.wheels.clutchNm * this.thrustPerNm(speedMps);
  }

  kinks(): readonly number[] {
    const top = this.limitMps * this.perMps;
    this.bends ??= [...new Set(this.side.kinks().map((kink) => (kink > 0 && kink < top ? this.grown(kink) : 0)))]
      .filter((speed) => speed > 0 && speed < this.limitMps)
      .sort((a, b) => a - b);
    return this.bends;
  }

  line(speedMps: number, upwards: boolean, into: Line): void {
    const { rpms, torques } = this.side.lines;
    const rpm = speedMps * this.perMps;
    const thrustPerNm = (this.totalRatio * this.wheels.efficiency) / this.wheels.radiusM;
    let i = 0;
    while (i < rpms.length && (upwards ? (rpms[i] as number) <= rpm : (rpms[i] as number) < rpm)) i++;
    into.fromMps = i === 0 ? 0 : (rpms[i - 1] as number) / this.perMps;
    into.toMps = i === rpms.length ? Number.POSITIVE_INFINITY : (rpms[i] as number) / this.perMps;
    const low = torques[Math.max(i - 1, 0)] as number;
    const level = i === 0 || i === rpms.length;
    into.perMps = level ? 0 : (((torques[i] as number) - low) * thrustPerNm) / (into.toMps - into.fromMps);
    into.still = low * thrustPerNm - into.perMps * into.fromMps;
  }

  /** Road speed that goes with a speed of the gearbox input. */
  private grown(rpm: number): number {
    const { growth } = this.wheels;
    return growth ? grownSpeed(growth, rpm / this.perMps) : rpm / this.perMps;
  }
}
