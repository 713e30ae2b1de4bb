import type { Build, Taught } from './document';
import type { AxleName } from '../base/names';
import type { Derivation } from './derivation';
import type { FigureIds } from './figure';
import type { Finding, Place, StationKind } from './finding';
import type { Readings, Signature } from './readings';
import type { Subject } from './subjects';
import type { AllWork, AxleWork, KnownWork, Work } from './work';

/** Everything that figures and findings are worked out from. */
export interface Inputs extends Taught {
  readonly build: Build;
  readonly readings: Readings;
  /** The signature in force under each gate. */
  readonly signed: ReadonlyMap<string, Signature>;
  /** Where one looks: gear, range and engine speed. It belongs to the device, not to the document. */
  readonly point: Build['startPoint'];
  /** The axle that the Line follows. */
  readonly main: AxleName;
  /** The day as YYYY-MM-DD, for what falls due; without it nothing does. */
  readonly today: string | null;
}

/** What the capabilities that this one needs gave; null where one could not be worked out. */
export interface Given {
  of<R>(capability: Capability<never, R>): R | null;
  /** What everything before it found that stops something. */
  stops(): readonly Finding[];
  /** What everything before it knows of the work on an axle. */
  work(axle: AxleName): KnownWork;
  /** Steps and parts of all that there is, before it or behind. */
  readonly all: AllWork;
}

/** Steps that a capability brings, by their ids. */
export type StepIdOf<W> = W extends { readonly steps: readonly (infer R)[] }
  ? R extends { readonly steps: readonly { readonly id: infer Id extends string }[] }
    ? Id
    : never
  : never;

/**
 * One capability of the model: what can be read, how figures and findings follow.
 * `derive` sees what `inputs` picks and nothing else, so that it runs again only when one of those values has changed.
 */
export interface Capability<
  I extends object = never,
  R = unknown,
  F extends FigureIds = FigureIds,
  W extends Work = Work,
> {
  readonly name: string;
  /** Capabilities whose results it takes: they stand before it in the list; or whatever stands before it. */
  readonly needs: readonly Capability<never, unknown>[] | 'all-before';
  readonly figures: F;
  readonly subjects: readonly Subject[];
  /** Where it is said that the whole of it could not be worked out. */
  readonly place: Place;
  readonly station: StationKind;
  inputs(all: Inputs): I;
  derive(inputs: I, d: Derivation, given: Given): R;
  /** Its steps of the order of work, and what they buy. */
  readonly work?: W;
  /** What it knows of the work on an axle, once it was derived. */
  knows?(axle: AxleName, result: R, inputs: I, given: Given): AxleWork<StepIdOf<W>>;
}

export function defineCapability<I extends object, R, F extends FigureIds, const W extends Work = Work<never, never>>(
  capability: Capability<I, R, F, W>,
): Capability<never, R, F, W> {
  return capability as unknown as Capability<never, R, F, W>;
}
