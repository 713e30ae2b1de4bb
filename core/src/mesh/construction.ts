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
  /** What adding to the pinion shim does; null where centre distance is fixed and there is none. */
  readonly addingShimMovesPinion: Depthwards | null;
  /** What a taller head bearing does; null where it is not known from the construction alone. */
  readonly tallerBearingMovesPinion: Depthwards | null;
  /** What the ring is moved by. */
  readonly ringBy: 'outboard-shims' | 'inboard-shims' | 'adjusters' | 'cover-shims' | 'shims-or-rings' | 'none';
}

/**
 * Signs by construction [exact, from how each is put together; common practice]. A transaxle's bearing height and a shim
 * under a bearing flange have a direction of their own, which is data of the axle.
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
  transaxle: { addingShimMovesPinion: 'deeper', tallerBearingMovesPinion: null, ringBy: 'shims-or-rings' },
  'electric-reduction': { addingShimMovesPinion: null, tallerBearingMovesPinion: null, ringBy: 'none' },
};

/** +1 where more shim brings the pinion nearer to the axis of the ring, −1 where it takes it away. */
export const depthSign = (moves: Depthwards): 1 | -1 => (moves === 'deeper' ? 1 : -1);
