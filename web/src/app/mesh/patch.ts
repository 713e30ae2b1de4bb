import type { FlankPattern } from '@hot-spline/model';

export const CENTRED: FlankPattern = {
  u: 0,
  v: 0,
  length: 0.45,
  height: 0.4,
  turnedDeg: 0,
  edges: [],
  shape: 'one',
};

/** Edges that a patch of this size runs off, there. */
export function edgesOf({ u, v, length, height }: FlankPattern): FlankPattern['edges'] {
  const off: readonly (readonly [FlankPattern['edges'][number], boolean])[] = [
    ['toe', u - length < -1.001],
    ['heel', u + length > 1.001],
    ['root', v - height < -1.001],
    ['face', v + height > 1.001],
  ];
  return off.flatMap(([edge, is]) => (is ? [edge] : []));
}
