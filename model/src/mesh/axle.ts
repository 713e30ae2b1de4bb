import type { CONSTRUCTION_SIGNS, Depthwards, MeshConstruction, MeshJob, Round } from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { InForce } from '../frame/readings';
import type { ReadingValue } from '../frame/values';
import type { Construction } from '../library/schema';
import type { SpecSheet } from '../library/sheet';
import type { Stage } from './readings';
import type { Setup, Trial } from './schema';
import type { Stayed } from './stayed';

export type Assembled = Extract<ReadingValue, { of: 'assembly' }>;
export type Pattern = Extract<ReadingValue, { of: 'pattern' }>;

/** Backlash round the ring as it was read in one state. */
export interface BacklashRead {
  readonly reading: InForce;
  readonly state: Trial;
  readonly mm: readonly number[];
  readonly round: Round;
  /** The same round read before in the same state, newest first. */
  readonly repeats: readonly (readonly number[])[];
}

export interface PatternRead {
  readonly reading: InForce;
  readonly state: Trial;
  readonly value: Pattern;
  /** What was seen before in the same state, newest first. */
  readonly repeats: readonly Pattern[];
  /** Whether it moves anything: faint or under light drag it doesn't. */
  readonly counts: boolean;
}

/** A contact that was read all round: what is the same everywhere, and what comes once a turn. */
export interface PatternRound {
  readonly reads: readonly PatternRead[];
  /** The greatest swing of all of them, half of peak to peak, of half a tooth. */
  readonly swing: number;
  readonly flank: 'drive' | 'coast';
  readonly way: 'u' | 'v';
  /** Where it is most, degrees from place 1. */
  readonly angleDeg: number;
  /** It changes once a turn: a cocked seat, and no shim mends it. */
  readonly seat: boolean;
}

/** One time that the axle was put together, with what was read. */
export interface AssemblyState {
  /** 0 as it came. */
  readonly number: number;
  readonly reading: InForce;
  readonly value: Assembled;
  readonly pinionMm: number;
  readonly leftMm: number;
  readonly rightMm: number;
  /** Towards the pinion, from the first trial. */
  readonly ringMm: number;
  readonly backlash: Readonly<Record<Stage, BacklashRead | null>>;
  readonly pattern: Readonly<Record<Stage, PatternRead | null>>;
  /** Read at four places round the ring; null where it was not. */
  readonly patternRound: Readonly<Record<Stage, PatternRound | null>>;
  /** Of a unit that has no ring to move; null while it was not read. */
  readonly endFloatMm: Readonly<Record<Stage, number | null>>;
}

/** What is between two states: backlash there less backlash when closed for good. */
export interface Shift {
  readonly mm: number;
  readonly sigmaMm: number;
  /** From how many assemblies it was learned, on this axle and on others of its spec. */
  readonly learned: number;
}

/** A set-up of the shop that teaches the next axle of its spec. */
export interface PastSetup {
  readonly axle: AxleName;
  /** Name of the axle's spec. */
  readonly spec: string;
  readonly construction: Construction;
  /** What was tried and read; null where it can't teach. */
  readonly job: MeshJob | null;
  /** What closing up took off backlash, each time that the same shims were read before and after. */
  readonly closingsMm: readonly number[];
  /** What stayed of its turning torque over the run-in; null where that was not read. */
  readonly stayed: Stayed | null;
}

/** An axle that is set up, as far as it is known. */
export interface MeshAxle {
  readonly axle: AxleName;
  readonly setup: Setup;
  readonly sheet: SpecSheet;
  readonly construction: MeshConstruction;
  readonly ring: number;
  readonly pinion: number;
  readonly shimMoves: Depthwards | null;
  readonly bearingMoves: Depthwards | null;
  readonly ringBy: (typeof CONSTRUCTION_SIGNS)[MeshConstruction]['ringBy'];
  readonly loadedFlank: 'convex' | 'concave';
  /** Backlash band in mm; null while nobody has said one. */
  readonly band: readonly [number, number] | null;
  readonly bandWeak: boolean;
  /** Band of end float in mm; null while nobody has said one. */
  readonly floatBand: readonly [number, number] | null;
  /** Travel of the ring for one notch on both sides; null without adjusters or their data. */
  readonly notchMm: number | null;
  /** What was read before anything was loosened, whether its shims are known yet or not. */
  readonly came: { readonly backlash: BacklashRead | null; readonly pattern: PatternRead | null };
  readonly assemblies: readonly AssemblyState[];
  /** The one that is in now; null before the first. */
  readonly now: AssemblyState | null;
  /** What closing up will take off backlash from the state that the axle is in, and one deviation. */
  readonly closing: Shift;
  readonly final: boolean;
  readonly stayed: Stayed | null;
  /** Set-ups of the shop before this one, of the same spec. */
  readonly past: readonly PastSetup[];
  /** What is added to an advised pinion shim in the state that the axle is in: another bearing at the head than it was read with. */
  readonly headShimMm: number;
  /** What the advisor is asked; null while something is missing. */
  readonly job: MeshJob | null;
  /** Number of the assembly of each try of the job. */
  readonly tries: readonly number[];
}

declare module '../frame/document' {
  interface Taught {
    /** Set-ups of the shop before this one: what axles of a spec taught. */
    readonly past: readonly PastSetup[];
  }
}
