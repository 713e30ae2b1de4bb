import { hasAdjusters, type Case } from './facts';
import type { Piece } from './operation';

/** What comes off and goes on with the carrier of a set that meshes. */
export const carrierPieces = (c: Case): readonly Piece[] => [
  { part: 'Carrier', count: 1 },
  ...(hasAdjusters(c) ? [] : [{ part: 'Side shims, left and right' }]),
  ...(c.caps
    ? [
        { part: 'Bearing caps', count: 2 },
        { part: 'Cap bolts', count: 4 },
      ]
    : [{ part: 'Side covers' }, { part: 'Side cover bolts' }]),
];
