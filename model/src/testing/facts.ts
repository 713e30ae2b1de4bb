import { PERMITTED, presetOf, type Facts, type Job } from '@hot-spline/core';

/** What a spec says of a job; the rest is usual. */
export type Told = Partial<Facts> & { readonly job?: Job };

/** The facts of a usual job, changed as told; a construction brings its own places of shim and ring. */
export function usualFacts({ job = 'full-build', ...told }: Told = {}): Facts {
  const construction = told.construction ?? 'integral-head-shim';
  const { depthShim, ringPlacedBy } = PERMITTED[construction];
  return {
    construction,
    depthShim: depthShim[0] ?? 'none',
    ringPlacedBy: ringPlacedBy[0] ?? 'none',
    spacer: 'collapsible',
    retention: 'c-clips',
    ringOff: null,
    pinionOut: null,
    unitKind: 'plate',
    depth: 'gauge-first',
    bearings: 'set-up',
    ringGear: 'heated',
    ringHand: 'right',
    lockerRings: 'after-dry-trial',
    brake: null,
    wheelBearing: null,
    outerSeal: null,
    spread: null,
    ...presetOf(job, told.unitKind ?? 'plate'),
    ...told,
  };
}
