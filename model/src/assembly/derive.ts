import type { Build } from '../frame/document';
import type { AxleName } from '../base/names';
import type { Capability } from '../frame/capability';
import { Deriver, type Results } from '../frame/deriver';
import { inForce, signaturesInForce, type LedgerEntry, type Readings, type Signature } from '../frame/readings';
import { subjectKey, type Subject, type SubjectOf } from '../frame/subjects';
import { capabilities } from './capabilities';
import { subjects } from './subjects';
import { box } from '../box';
import type { BoxState } from '../box/state';
import { drivenAxles } from '../gearing/axle-gearing';
import { gearing } from '../gearing';
import type { GearingState } from '../gearing/derive';
import { pack } from '../pack';
import type { PackState } from '../pack/state';
import { point } from '../point';
import type { OperatingPoint } from '../point/schema';
import { mesh, type MeshStates } from '../mesh';
import { inspect, type Inspections } from '../inspect';
import { joint, type JointStates } from '../joint';
import { plan, type Gates, type Plan } from '../plan';
import { preload, type PreloadStates } from '../preload';
import { runin, type RunIns } from '../runin';
import { shaft } from '../shaft';
import type { ShaftTorque } from '../shaft/state';
import { unit } from '../unit';
import type { UnitState } from '../unit/derive';
import type { PastSetup } from '../mesh/axle';

export interface AxleState {
  readonly pack: PackState | null;
  readonly unit: UnitState;
}

export interface Derived extends Results {
  /** The axle that the Line follows. */
  readonly main: AxleName;
  /** Where one looks, as far as the gears and ranges of the build allow. */
  readonly point: OperatingPoint;
  readonly gearing: GearingState;
  readonly axles: Partial<Record<AxleName, AxleState>>;
  /** Axles whose set-up has begun. */
  readonly mesh: MeshStates;
  readonly preload: PreloadStates;
  readonly gates: Gates;
  /** Axles whose work has been planned. */
  readonly work: Plan['work'];
  readonly joint: JointStates;
  /** What reaches each shaft of an axle whose shafts are described. */
  readonly shafts: Partial<Record<AxleName, ShaftTorque>>;
  readonly inspect: Inspections;
  readonly runin: RunIns;
  /** The gearbox from inside; null where nobody has described it. */
  readonly box: BoxState | null;
  /** Torque into the unit of the followed axle at the operating point, N·m. */
  readonly inputNm: number;
}

export interface Looking {
  /** The axle that the operating point is worked out for; the first driven one unless said. */
  readonly follow?: AxleName | undefined;
  /** The build's own starting point unless said. */
  readonly point?: OperatingPoint | undefined;
  /** The day as YYYY-MM-DD, for what falls due; without it nothing does. */
  readonly today?: string | null;
  /** Set-ups of the shop's other builds; none unless said. */
  readonly past?: readonly PastSetup[] | undefined;
}

const NO_PAST: readonly PastSetup[] = [];

/** The point as far as the build has such a gear and range: it may have lost some since the device looked last. */
export function fitPoint(build: Build, { gear, range, rpm }: OperatingPoint): OperatingPoint {
  return {
    gear: Math.min(gear, build.gearbox.gears.length - 1),
    range: Math.min(range, (build.transfer?.ranges.length ?? 1) - 1),
    rpm,
  };
}

const samePoint = (a: OperatingPoint, b: OperatingPoint): boolean =>
  a.gear === b.gear && a.range === b.range && a.rpm === b.rpm;

/**
 * Derives one build after another: only what depends on a change is worked out again.
 * @param contain whether a mistake in one capability becomes a finding instead of being thrown
 */
export class BuildDeriver {
  private readonly deriver: Deriver;
  private ledger: readonly LedgerEntry[] = [];
  private readings: Readings = new Map();
  private signed: ReadonlyMap<string, Signature> = new Map();
  private point: OperatingPoint | null = null;

  constructor(
    contain = false,
    private readonly list: readonly Capability<never, unknown>[] = capabilities,
    private readonly kinds: readonly Subject[] = subjects,
  ) {
    this.deriver = new Deriver(list, contain);
  }

  derive(build: Build, ledger: readonly LedgerEntry[], looking: Looking = {}): Derived {
    const driven = drivenAxles(build);
    const { follow, today = null, past = NO_PAST } = looking;
    const main = follow && driven.includes(follow) ? follow : (driven[0] ?? 'rear');
    if (ledger !== this.ledger) {
      this.ledger = ledger;
      this.readings = inForce(ledger, this.kinds, this.readings);
      this.signed = signaturesInForce(ledger);
    }
    const fitted = fitPoint(build, looking.point ?? build.startPoint);
    const at = this.point && samePoint(this.point, fitted) ? this.point : fitted;
    this.point = at;
    const results = this.deriver.derive({
      build,
      readings: this.readings,
      signed: this.signed,
      point: at,
      main,
      today,
      past,
    });
    const of = <R>(capability: Capability<never, R>): R | null =>
      this.list.includes(capability) ? results.of(capability) : null;
    const units = of(unit) ?? {};
    const packs = of(pack) ?? {};
    const axles: Derived['axles'] = {};
    for (const name of driven) {
      const own = units[name];
      if (own) axles[name] = { pack: packs[name] ?? null, unit: own };
    }
    return {
      ...results,
      main,
      point: at,
      gearing: of(gearing) ?? {},
      axles,
      mesh: of(mesh) ?? {},
      preload: of(preload) ?? {},
      gates: of(plan)?.gates ?? {},
      work: of(plan)?.work ?? {},
      joint: of(joint) ?? {},
      shafts: of(shaft) ?? {},
      inspect: of(inspect) ?? {},
      runin: of(runin) ?? {},
      box: of(box),
      inputNm: of(point)?.[main] ?? 0,
    };
  }
}

/** All figures and findings of a build from its specification and its ledger. Pure: the same in gives the same out. */
export function deriveBuild(build: Build, ledger: readonly LedgerEntry[], looking: Looking = {}): Derived {
  return new BuildDeriver().derive(build, ledger, looking);
}

/** The reading in force for each subject. */
export const readingsInForce = (ledger: readonly LedgerEntry[]): Readings => inForce(ledger, subjects);
/** The key of a subject. */
export const keyOfSubject = (subject: SubjectOf): string => subjectKey(subject, subjects);
