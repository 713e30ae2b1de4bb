import type { AxleName, Use } from '../base/names';
import type { FORMAT_VERSION } from '../base/version';

/*
 * The document as every capability sees it. Each brings its own part, by adding it to one of these where its schema is
 * (`declare module`); a line of `document/schema.spec.ts` does not compile where the schemas say another shape. So a capability
 * reads parts of others by name, and imports nobody for it.
 */

/** Parts of an axle, each of the capability that brings it. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- filled by capabilities
export interface AxleSlices {}
/** Parts of a build, each of the capability that brings it. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- filled by capabilities
export interface BuildSlices {}
/** What the shop’s other builds taught, each of the capability that learns from it. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- filled by capabilities
export interface Taught {}

export type Axle = { [K in keyof AxleSlices]: AxleSlices[K] };

/** What a build says of itself, whatever capabilities there are. */
interface Own {
  format: 'hot-spline/build';
  formatVersion: typeof FORMAT_VERSION;
  name: string;
  vehicle: string;
  use: Use;
  customer: string | null;
  promised: string | null;
  worker: string;
  notes: string;
  assumed: string[];
  driven: 'rear' | 'front' | 'both';
  axles: Record<AxleName, Axle | null>;
}
export type Build = { [K in keyof (Own & BuildSlices)]: (Own & BuildSlices)[K] };
