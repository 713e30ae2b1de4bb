import { requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import type { DrawnPart, Outline, Section, SectionPart, TurnsWith } from './parts';
import { at, overX, rect, taperAbove } from './shapes';

export interface ElectricSection {
  /** Both stages together. */
  readonly ratio: number;
  readonly ringSide: 'left' | 'right';
  readonly unit: 'plate' | 'geared' | 'insert' | 'locker' | 'spool' | 'plain';
}

/**
 * Section of an electric reduction unit: motor shaft, layshaft and carrier on parallel shafts laid into one plane, seen from behind, left at
 * the left. Stages are drawn as the root of the whole ratio each, ours: what a set has is said nowhere yet.
 * Not counted: where the shafts really lie round each other, helix angles.
 * @throws InputError on `ratio`
 */
export function electricSection({ ratio, ringSide, unit }: ElectricSection): Section {
  const i = Math.sqrt(requireNumber('ratio', ratio, LIMITS.ratio));
  const R = 100;
  const parts: DrawnPart[] = [];
  const add = (
    part: SectionPart,
    turns: TurnsWith,
    outlines: readonly Outline[],
    more: Partial<Pick<DrawnPart, 'off' | 'exaggerated' | 'anchor'>> = {},
  ): void => {
    const [first = []] = outlines;
    const middle = (key: 'x' | 'y'): number => first.reduce((sum, point) => sum + point[key], 0) / first.length;
    parts.push({
      part,
      turns,
      outlines,
      lines: [],
      off: null,
      anchor: at(middle('x'), middle('y')),
      exaggerated: false,
      ...more,
    });
  };
  const shifted = (outline: Outline, y: number): Outline => outline.map((point) => at(point.x, point.y + y));
  const around = (outline: Outline, y: number): Outline[] => [shifted(outline, y), shifted(overX(outline), y)];
  // Pitch radii: the ring’s is R; each stage has the same ratio.
  const pinion2 = R / i;
  const gear1 = 0.8 * R;
  const pinion1 = gear1 / i;
  const [axis, lay] = [0, -(R + pinion2)];
  const motor = lay - (gear1 + pinion1);
  const [xRing, xFirst] = [-0.2 * R, 0.5 * R];
  const face = 0.26 * R;
  const [left, right] = [-0.95 * R, 0.95 * R];
  const shaft = (y: number, half: number, from: number, to: number): Outline => rect(from, y - half, to, y + half);
  const bearings = (y: number, bore: number, outside: number): Outline[] =>
    (
      [
        [left + 0.3 * R, -1],
        [right - 0.3 * R, 1],
      ] as const
    ).flatMap(([back, way]) => {
      const { inner, outer, roller } = taperAbove(back, way * 0.18 * R, bore, outside);
      return [inner, roller, outer].flatMap((one) => around(one, y));
    });

  add(
    'motor-shaft',
    'pinion',
    [
      shaft(motor, 0.1 * R, left + 0.06 * R, right + 0.5 * R),
      shaft(motor, pinion1, xFirst - face / 2, xFirst + face / 2),
    ],
    {
      off: at(1, 0),
      anchor: at(right + 0.3 * R, motor),
    },
  );
  add(
    'layshaft',
    'layshaft',
    [
      shaft(lay, 0.11 * R, left + 0.12 * R, right - 0.12 * R),
      ...around(rect(xFirst - face / 2, -0.11 * R, xFirst + face / 2, -gear1), lay),
      ...around(rect(xRing - face / 2, -0.11 * R, xRing + face / 2, -pinion2), lay),
    ],
    { off: at(1, 0), anchor: at(xFirst, lay - gear1 * 0.7) },
  );
  add('tail-bearing', 'layshaft', bearings(lay, 0.11 * R, 0.28 * R), { off: at(1, 0) });
  const ringPart = around(rect(xRing - face / 2, -0.78 * R, xRing + face / 2, -R), axis);
  add('ring', 'carrier', ringPart, { off: at(-1, 0), anchor: at(xRing, axis + 0.95 * R) });
  const half: Outline = [
    at(left + 0.1 * R, -0.13 * R),
    at(left + 0.1 * R, -0.2 * R),
    at(-0.55 * R, -0.2 * R),
    at(-0.55 * R, -0.44 * R),
    at(xRing + face / 2, -0.44 * R),
    at(xRing + face / 2, -0.92 * R),
    at(xRing + face / 2 + 0.1 * R, -0.92 * R),
    at(xRing + face / 2 + 0.1 * R, -0.44 * R),
    at(0.5 * R, -0.44 * R),
    at(0.5 * R, -0.2 * R),
    at(right - 0.1 * R, -0.2 * R),
    at(right - 0.1 * R, -0.13 * R),
    at(0.4 * R, -0.13 * R),
    at(0.4 * R, -0.34 * R),
    at(-0.45 * R, -0.34 * R),
    at(-0.45 * R, -0.13 * R),
  ];
  add('carrier', 'carrier', around(half, axis), { off: at(1, 0), anchor: at(0.45 * R, axis + 0.4 * R) });
  const bolt = rect(xRing + face / 2 - 0.1 * R, -0.82 * R, xRing + face / 2 + 0.17 * R, -0.87 * R);
  add('ring-bolts', 'carrier', around(bolt, axis), {
    off: at(1, 0),
    anchor: at(xRing + face / 2 + 0.15 * R, axis + 0.85 * R),
  });
  for (const [side, x, way] of [
    ['left', left + 0.3 * R, -1],
    ['right', right - 0.3 * R, 1],
  ] as const) {
    const { inner, outer, roller } = taperAbove(x, way * 0.18 * R, 0.2 * R, 0.36 * R);
    add(
      `side-bearing-${side}`,
      'carrier',
      [inner, roller, outer].flatMap((one) => around(one, axis)),
      { off: at(way, 0) },
    );
    const [from, to] = [x + way * 0.18 * R, x + way * 0.23 * R];
    // One shim, on the side away from the ring’s back: it sets float or preload.
    if (side !== ringSide)
      add(`shim-${side}`, 'case', around(rect(from, -0.22 * R, to, -0.36 * R), axis), {
        off: at(way, 0),
        exaggerated: true,
        anchor: at((from + to) / 2, axis + 0.34 * R),
      });
    const gear = rect(way * 0.16 * R, -0.13 * R, way * 0.27 * R, -0.3 * R);
    add(`side-gear-${side}`, 'shafts', around(gear, axis), { off: at(1, 0) });
    add(`shaft-${side}`, 'shafts', [shaft(axis, 0.115 * R, way * 0.12 * R, way * 1.5 * R)], {
      off: at(way, 0),
      anchor: at(way * 1.35 * R, axis),
    });
    const seal = around(rect(way * 1.02 * R, -0.115 * R, way * 1.08 * R, -0.22 * R), axis);
    add('inner-seals', 'case', seal, { off: at(way, 0) });
  }
  if (unit !== 'spool') {
    add('cross-pin', 'carrier', [rect(-0.05 * R, -0.4 * R, 0.05 * R, 0.4 * R)], { off: at(0, 1) });
    add('spiders', 'carrier', around(rect(-0.13 * R, -0.18 * R, 0.13 * R, -0.32 * R), axis), { off: at(0, 1) });
  }
  add('split-ring', 'carrier', around(rect(right - 0.12 * R, -0.2 * R, right - 0.09 * R, -0.25 * R), axis), {
    off: at(1, 0),
  });
  const [top, bottom] = [motor - pinion1 - 0.25 * R, R + 0.2 * R];
  const wall = (x: number, way: 1 | -1): Outline[] => {
    const inner = x - way * 0.1 * R;
    return [
      rect(inner, top, x, motor - 0.14 * R),
      rect(inner, motor + 0.14 * R, x, lay - 0.3 * R),
      rect(inner - way * 0.22 * R, lay - 0.38 * R, x, lay - 0.28 * R),
      rect(inner - way * 0.22 * R, lay + 0.28 * R, x, lay + 0.38 * R),
      rect(inner, lay + 0.38 * R, x, axis - 0.46 * R),
      rect(inner - way * 0.22 * R, axis - 0.46 * R, x, axis - 0.36 * R),
      rect(inner - way * 0.22 * R, axis + 0.36 * R, x, axis + 0.46 * R),
      rect(inner, axis + 0.46 * R, x, bottom),
    ];
  };
  const seam = 0.2 * R;
  add(
    'case',
    'case',
    [...wall(left, -1), rect(left, top, seam, top - 0.1 * R), rect(left, bottom, seam, bottom + 0.1 * R)],
    { anchor: at(left, top * 0.98) },
  );
  add(
    'cover',
    'case',
    [...wall(right, 1), rect(seam, top, right, top - 0.1 * R), rect(seam, bottom, right, bottom + 0.1 * R)],
    { off: at(1, 0), anchor: at(right - 0.05 * R, bottom) },
  );
  const caseBolt = (y: number): Outline => rect(seam - 0.12 * R, y - 0.03 * R, seam + 0.2 * R, y + 0.03 * R);
  add('case-bolts', 'case', [caseBolt(top - 0.14 * R), caseBolt(bottom + 0.14 * R)], { off: at(1, 0) });

  const all = parts.flatMap(({ outlines }) => outlines.flat());
  const [x1, x2] = [Math.min(...all.map(({ x }) => x)), Math.max(...all.map(({ x }) => x))];
  const [y1, y2] = [Math.min(...all.map(({ y }) => y)), Math.max(...all.map(({ y }) => y))];
  return {
    parts,
    box: { x: x1, y: y1, width: x2 - x1, height: y2 - y1 },
    deeper: null,
    closer: null,
    upper: 'left',
    lower: 'right',
    axes: [axis, lay, motor].map((y) => [at(x1, y), at(x2, y)] as const),
    stands: {
      shaft: {
        right: { at: at(1.5 * R, axis), looks: at(-1, 0) },
        wrong: [{ at: at(1.3 * R, axis - 0.115 * R), looks: at(0, 1) }],
      },
    },
    depth: null,
    raceToFlange: [],
  };
}
