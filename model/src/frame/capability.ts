import type { Build, Taught } from './document';
import type { AxleName } from '../base/names';
import type { Derivation } from './derivation';
import type { FigureIds } from './figure';
import type { Finding, Place, StationKind } from './finding';
import type { Readings, Signature } from './readings';
import type { Subject } from './subjects';

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
  /** What it found. */
  findings(capability: Capability<never, unknown>): readonly Finding[];
}

/**
 * One capability of the model: what can be read, how figures and findings follow.
 * `derive` sees what `inputs` picks and nothing else, so that it runs again only when one of those values has changed.
 */
export interface Capability<I extends object = never, R = unknown, F extends FigureIds = FigureIds> {
  readonly name: string;
  /** Capabilities whose results it takes; they stand before it in the list. */
  readonly needs: readonly Capability<never, unknown>[];
  readonly figures: F;
  readonly subjects: readonly Subject[];
  /** Where it is said that the whole of it could not be worked out. */
  readonly place: Place;
  readonly station: StationKind;
  inputs(all: Inputs): I;
  derive(inputs: I, d: Derivation, given: Given): R;
}

export function defineCapability<I extends object, R, F extends FigureIds>(
  capability: Capability<I, R, F>,
): Capability<never, R, F> {
  return capability as unknown as Capability<never, R, F>;
}
