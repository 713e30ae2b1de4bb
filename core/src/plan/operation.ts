import type { NumberRange } from '../base/errors';
import type { Quantity, Scale } from '../units/quantities';
import type { Act, Asked } from './acts';
import type { StepDrawing } from './drawing';
import type { Case } from './facts';

/** The parts of a job, in their order; what each is called stands with the words. */
export const PHASES = ['decide', 'in', 'unit', 'carrier', 'case', 'loop', 'final', 'box', 'close'] as const;
export type Phase = (typeof PHASES)[number];

/** What is already said of the axle, and that a record has to agree with. */
export type AgreesWith = 'thread-hand' | 'ring-teeth' | 'pinion-teeth';

/** Something that a step writes down. */
export type StepRecord =
  | {
      readonly id: string;
      readonly label: string;
      readonly of: 'number';
      readonly quantity: Quantity;
      readonly scale?: Scale;
      readonly range: NumberRange;
      /** Limits in the base unit that it passes within; a limit of ours or of the trade, as `from` says. */
      readonly pass?: { readonly atLeast?: number; readonly atMost?: number; readonly from: string };
      /** Value of the spec sheet that it is to agree with. */
      readonly sheet?: string;
      readonly agrees?: AgreesWith;
      /** What to do where this one is out; absent: what the step says. */
      readonly fails?: string;
    }
  | {
      readonly id: string;
      readonly label: string;
      readonly of: 'choice';
      readonly choices: readonly string[];
      /** Those that stop the job until something is done about it. */
      readonly stops: readonly string[];
      readonly agrees?: AgreesWith;
      readonly fails?: string;
    }
  | { readonly id: string; readonly label: string; readonly of: 'text' };

/** A part that a step takes off or puts on; `count` where it is the same on every axle. */
export interface Piece {
  readonly part: string;
  readonly count?: number;
}

/** One operation of the bench: common practice, no published source. */
export interface Operation {
  readonly id: string;
  readonly phase: Phase;
  readonly title: string;
  readonly does: readonly string[];
  /** What is done in it, in the words of the public order of work. */
  readonly acts: readonly Act[];
  /** What a gate asks for, and that is read or done in this step. */
  readonly answers: readonly Asked[];
  readonly tools: readonly string[];
  /** Bought for it, by their id in the parts list. */
  readonly parts: readonly string[];
  readonly records: readonly StepRecord[];
  readonly pass: string;
  readonly fails: string;
  readonly caution: string | null;
  /** Steps that must have been done before, where the plan has them. */
  readonly after: readonly string[];
  /** Reachable at this moment only: the step that closes it. */
  readonly closedBy: string | null;
  /** Can’t be taken back, and stands behind this gate. */
  readonly behind: 'A' | 'B' | null;
  readonly gate: 'A' | 'B' | null;
  /** Values that must come from a sheet, not out of memory, before it is begun. */
  readonly asks: readonly string[];
  /** Values of the sheet that it is worked by, beside those that it asks for and that its records are held against. */
  readonly shows: readonly string[];
  /** What comes off and is counted into a tray, what goes back on. */
  readonly takes: readonly Piece[];
  readonly returns: readonly Piece[];
  /** Bolts whose thread hand is said large here. */
  readonly hand: 'right' | 'left' | 'unknown' | null;
  /** The sheet that it is read, chosen or signed on. */
  readonly place: {
    readonly sheet: string;
    readonly tab?: string;
    /** How its fields there begin, where other steps have theirs on the same sheet. */
    readonly fields?: readonly string[];
  } | null;
  /** Done once more in each round of the set-up loop. */
  readonly eachRound: boolean;
  /** What is seen beside the words. */
  readonly drawing: StepDrawing;
  /** Planned, minutes with hands on; a guess of ours until the shop has done it. */
  readonly minutes: number;
  /** Hours in which nobody has to stand there: cooling, curing, soaking. */
  readonly waitsHours: number;
}

/** What an operation is in a case; null where the case has none. `Ref`: the steps that it names. */
export interface Recipe<Id extends string = string, Ref extends string = string> {
  readonly id: Id;
  readonly phase: Phase;
  readonly make: (c: Case) => Operation | null;
  /** Never there: the steps that it names, for the compiler. */
  readonly names?: Ref;
}

/** A step that does, asks and shows nothing: what nobody says of one. */
export const BLANK_STEP = {
  acts: [],
  answers: [],
  tools: [],
  parts: [],
  records: [],
  fails: '',
  caution: null,
  after: [],
  closedBy: null,
  behind: null,
  gate: null,
  asks: [],
  shows: [],
  takes: [],
  returns: [],
  hand: null,
  place: null,
  eachRound: false,
  waitsHours: 0,
} as const satisfies Partial<Operation>;
