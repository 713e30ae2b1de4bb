/** Where a shim or an adjuster acts, and which way. The same shim moves parts in opposite directions in different axles. */
export const CONSTRUCTIONS = [
  'integral-head-shim',
  'integral-inboard',
  'integral-adjusters',
  'drop-out',
  'independent',
  'transaxle',
  'electric-reduction',
] as const;
export type MeshConstruction = (typeof CONSTRUCTIONS)[number];

export type Depthwards = 'deeper' | 'shallower';

export interface ConstructionSigns {
  /** What adding to the pinion shim does; null where it has to be said (a box shaft), or where centre distance is fixed and there is none. */
  readonly addingShimMovesPinion: Depthwards | null;
  /** What a taller head bearing does; null where it is not known from the construction alone. */
  readonly tallerBearingMovesPinion: Depthwards | null;
  /** What the ring is moved by. */
  readonly ringBy: 'outboard-shims' | 'inboard-shims' | 'adjusters' | 'cover-shims' | 'shims-or-rings' | 'none';
}

/**
 * Signs by construction [exact, from how each is put together; common practice]. A transaxle has no direction of its own: in the order
 * case face, shim, race a shim moves the pinion shallower, in the order flange, shim, case face deeper. It is asked.
 */
export const CONSTRUCTION_SIGNS: Readonly<Record<MeshConstruction, ConstructionSigns>> = {
  'integral-head-shim': {
    addingShimMovesPinion: 'deeper',
    tallerBearingMovesPinion: 'deeper',
    ringBy: 'outboard-shims',
  },
  'integral-inboard': { addingShimMovesPinion: 'deeper', tallerBearingMovesPinion: 'deeper', ringBy: 'inboard-shims' },
  'integral-adjusters': { addingShimMovesPinion: 'deeper', tallerBearingMovesPinion: 'deeper', ringBy: 'adjusters' },
  'drop-out': { addingShimMovesPinion: 'shallower', tallerBearingMovesPinion: 'deeper', ringBy: 'adjusters' },
  independent: { addingShimMovesPinion: 'deeper', tallerBearingMovesPinion: 'deeper', ringBy: 'cover-shims' },
  transaxle: { addingShimMovesPinion: null, tallerBearingMovesPinion: null, ringBy: 'shims-or-rings' },
  'electric-reduction': { addingShimMovesPinion: null, tallerBearingMovesPinion: null, ringBy: 'none' },
};

/** Where the shim for pinion depth sits. */
export const DEPTH_SHIMS = ['head-bearing', 'cup', 'support', 'box-shaft', 'none'] as const;
export type DepthShimPlace = (typeof DEPTH_SHIMS)[number];

/** What adding to a shim there does; null where it has to be said. */
export const DEPTH_SHIM_MOVES: Readonly<Record<DepthShimPlace, Depthwards | null>> = {
  'head-bearing': 'deeper',
  cup: 'deeper',
  support: 'shallower',
  'box-shaft': null,
  none: null,
};

/** +1 where more shim brings the pinion nearer to the axis of the ring, −1 where it takes it away. */
export const depthSign = (moves: Depthwards): 1 | -1 => (moves === 'deeper' ? 1 : -1);
