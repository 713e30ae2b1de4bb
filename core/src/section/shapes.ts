import type { Outline, Point } from './parts';

export const at = (x: number, y: number): Point => ({ x, y });

/** Between two corners. */
export const rect = (x1: number, y1: number, x2: number, y2: number): Outline => [
  at(x1, y1),
  at(x2, y1),
  at(x2, y2),
  at(x1, y2),
];

const CORNERS = 28;
export const circle = (x: number, y: number, r: number): Outline =>
  Array.from({ length: CORNERS }, (_, i) => {
    const turn = (2 * Math.PI * i) / CORNERS;
    return at(x + r * Math.cos(turn), y + r * Math.sin(turn));
  });

/** The same on the other side of the pinion’s axis, of the ring’s axis. */
export const overX = (outline: Outline): Outline => outline.map(({ x, y }) => at(x, -y));
export const overY = (outline: Outline): Outline => outline.map(({ x, y }) => at(-x, y));

/**
 * One side of a tapered roller bearing round an axis along x, above it: inner race with its rollers, and outer race.
 * @param back x of the inner race’s back face, where its rollers are thick
 * @param width signed: the way from there to the outer race’s back face
 */
export function taperAbove(
  back: number,
  width: number,
  bore: number,
  outside: number,
): { inner: Outline; outer: Outline; roller: Outline } {
  const tall = outside - bore;
  const [x0, x1] = [back, back + width];
  const y = (share: number): number => -(bore + tall * share);
  return {
    inner: [at(x0, y(0)), at(x0, y(0.46)), at(x1 - width * 0.14, y(0.26)), at(x1 - width * 0.14, y(0))],
    roller: [
      at(x0 + width * 0.08, y(0.46)),
      at(x0 + width * 0.08, y(0.78)),
      at(x1 - width * 0.16, y(0.56)),
      at(x1 - width * 0.16, y(0.3)),
    ],
    outer: [at(x0 + width * 0.12, y(1)), at(x0 + width * 0.12, y(0.82)), at(x1, y(0.56)), at(x1, y(1))],
  };
}

/** x and y changed for each other: round an axis along y. */
export const turned = (outline: Outline): Outline => outline.map(({ x, y }) => at(y, x));
