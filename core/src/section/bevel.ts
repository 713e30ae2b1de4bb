import { InputError, requireNumber } from '../base/errors';
import { LIMITS } from '../base/limits';
import type { DepthShimPlace, MeshConstruction } from '../mesh/construction';
import type { DrawnPart, Outline, Point, Section, SectionPart, TurnsWith } from './parts';
import { at, circle, overX, overY, rect, taperAbove, turned } from './shapes';

/** A plate of a pack, outwards from its side gear. */
export interface SectionPlate {
  readonly thicknessMm: number;
  readonly keyedTo: 'gear' | 'case';
}

export interface BevelSection {
  readonly construction: Exclude<MeshConstruction, 'electric-reduction'>;
  readonly depthShim: Exclude<DepthShimPlace, 'none'>;
  readonly ringPlacedBy: 'outboard-shims' | 'inboard-shims' | 'adjusters' | 'covers';
  /** Where the shims of side covers lie. */
  readonly sideShims: 'behind-cup' | 'under-flange';
  readonly ringTeeth: number;
  readonly pinionTeeth: number;
  /** Outside of the ring, mm; 200 is ours where nobody has said it. */
  readonly ringDiameterMm: number;
  /** The side that the ring’s back looks at. */
  readonly ringSide: 'left' | 'right';
  /** Which way the pinion’s flange looks: forward at a rear axle. */
  readonly flangeLooks: 'forward' | 'rearward';
  /** What is left out where the axle has none. */
  readonly spacer: 'collapsible' | 'solid' | 'none';
  readonly clips: boolean;
  readonly unit: 'plate' | 'geared' | 'insert' | 'locker' | 'spool' | 'plain';
  readonly packs: { readonly left: readonly SectionPlate[]; readonly right: readonly SectionPlate[] };
}

/** Face of a ring’s teeth as a share of its diameter, and where its bolts lie: common proportions, ours for drawing alone. */
const FACE = 0.155;
const BOLTS_AT = 0.74;
/** Of the wall that a shaft goes through, filled by its seal. */
const HOLE = 0.21;
/** Plates of a unit of which nobody has said any: a number to draw, no one’s pack. */
const SOME_PLATES: readonly SectionPlate[] = Array.from({ length: 5 }, (_, i) => ({
  thicknessMm: 2,
  keyedTo: i % 2 === 0 ? 'case' : 'gear',
}));

/**
 * Section of an axle with ring and pinion, along both axes, seen from above with the pinion’s flange at the left. To scale are the
 * pitch cones (tan Γ = ring teeth/pinion teeth [geometry]), the face width by common proportions, and the plates of the packs by
 * their thickness; everything else is in proportion to the ring, ours. Shims are drawn thicker than they are.
 * Not counted: the offset of a hypoid, which lies across the paper; bearings and cases of a maker.
 * @throws InputError naming the field
 */
export function bevelSection(axle: BevelSection): Section {
  const ringTeeth = requireNumber('ringTeeth', axle.ringTeeth, LIMITS.teeth);
  const pinionTeeth = requireNumber('pinionTeeth', axle.pinionTeeth, LIMITS.teeth);
  const diameter = requireNumber('ringDiameterMm', axle.ringDiameterMm, LIMITS.diameterMm);
  if (pinionTeeth > ringTeeth)
    throw new InputError(
      'pinionTeeth',
      `pinionTeeth ${pinionTeeth} is more than ringTeeth ${ringTeeth}: they look swapped.`,
      'at most as many as the ring',
    );
  return new Bevel(axle, ringTeeth, pinionTeeth, diameter / 2).section();
}

class Bevel {
  private readonly parts: DrawnPart[] = [];
  /** Radius of the pinion at its heel, which is where the ring’s pitch line lies below the pinion’s axis. */
  private readonly r: number;
  /** Pitch points at the toe as a share of those at the heel. */
  private readonly toe: number;
  private readonly shim: number;

  constructor(
    private readonly axle: BevelSection,
    ringTeeth: number,
    pinionTeeth: number,
    private readonly R: number,
  ) {
    this.r = (R * pinionTeeth) / ringTeeth;
    const cone = Math.hypot(R, this.r);
    this.toe = 1 - (FACE * 2 * R) / cone;
    this.shim = 0.05 * R;
  }

  private add(
    part: SectionPart,
    turns: TurnsWith,
    outlines: readonly Outline[],
    more: Partial<Pick<DrawnPart, 'off' | 'lines' | 'exaggerated' | 'anchor'>> = {},
  ): void {
    const [first] = outlines;
    const middle = (key: keyof Point): number =>
      (first ?? []).reduce((sum, point) => sum + point[key], 0) / (first?.length ?? 1);
    this.parts.push({
      part,
      turns,
      outlines,
      lines: [],
      off: null,
      anchor: at(middle('x'), middle('y')),
      exaggerated: false,
      ...more,
    });
  }

  // From the ring’s back (below) to its tooth side (above); the whole is turned over at the end where the ring looks right.
  private get back(): number {
    return this.r + 0.27 * this.R;
  }
  private get flangeEnd(): number {
    return this.back + 0.12 * this.R;
  }
  private get packMm(): { readonly ring: number; readonly far: number } {
    const { ringSide, unit } = this.axle;
    const height = (side: 'left' | 'right'): number =>
      unit === 'plate'
        ? this.platesOf(side).reduce((sum, { thicknessMm }) => sum + thicknessMm, 0)
        : unit === 'plain' || unit === 'spool'
          ? 0.02 * this.R
          : 0.1 * this.R;
    const far = ringSide === 'left' ? 'right' : 'left';
    return { ring: height(ringSide), far: height(far) };
  }
  private platesOf(side: 'left' | 'right'): readonly SectionPlate[] {
    const said = this.axle.packs[side];
    return said.length > 0 ? said : SOME_PLATES;
  }
  /** Where the carrier’s body ends, above and below. */
  private get bodyTop(): number {
    return -(0.26 * this.R + this.packMm.far + 0.1 * this.R);
  }
  private get bodyBottom(): number {
    return Math.max(this.flangeEnd, 0.26 * this.R + this.packMm.ring + 0.1 * this.R);
  }

  section(): Section {
    const { R } = this;
    const far = this.axle.ringSide === 'left' ? 'right' : 'left';
    const near = this.axle.ringSide;
    const top = this.sideEnd(far, this.bodyTop, -1);
    const bottom = this.sideEnd(near, this.bodyBottom, 1);
    this.shafts(top, bottom);
    this.carrier();
    this.unitInside();
    this.ringAndBolts();
    const nose = this.pinionEnd();
    this.caseRound(top, bottom, nose);
    return this.turnedOver(this.withFrame(top, bottom, nose, R));
  }

  /** Everything at one end of the carrier. */
  private sideEnd(side: 'left' | 'right', from: number, way: 1 | -1) {
    const { R, axle, shim } = this;
    const width = 0.2 * R;
    const [bore, outside] = [0.2 * R, 0.36 * R];
    const inboard = axle.ringPlacedBy === 'inboard-shims' ? shim : 0;
    const seat = from + way * (0.03 * R + inboard);
    const { inner, outer, roller } = taperAbove(seat, way * width, bore, outside);
    const both = [inner, roller, outer].map(turned);
    this.add(`side-bearing-${side}`, 'carrier', [...both, ...both.map(overY)], {
      off: at(0, way),
      anchor: at(outside * 0.8, seat + (way * width) / 2),
    });
    const cupBack = seat + way * width;
    let end = cupBack;
    if (axle.ringPlacedBy === 'inboard-shims') {
      const pieces = [rect(bore, from + way * 0.02 * R, outside * 0.9, seat)];
      this.add(`shim-${side}`, 'carrier', [...pieces, ...pieces.map(overY)], { off: at(0, way), exaggerated: true });
    } else if (axle.ringPlacedBy === 'adjusters') {
      const ring = [rect(bore * 1.15, cupBack, outside, cupBack + way * 0.11 * R)];
      const threads = [0.3, 0.6, 0.9].flatMap((share): [Point, Point][] => {
        const y = cupBack + way * 0.11 * R * share;
        return [
          [at(outside - 0.03 * R, y), at(outside, y)],
          [at(-outside, y), at(-outside + 0.03 * R, y)],
        ];
      });
      this.add(`adjuster-${side}`, 'case', [...ring, ...ring.map(overY)], { off: at(0, way), lines: threads });
      end = cupBack + way * 0.11 * R;
      const lock = rect(outside * 0.72, end, outside * 0.9, end + way * 0.05 * R);
      this.add('adjuster-locks', 'case', [lock], { off: at(0, way) });
    } else {
      const under = axle.ringPlacedBy === 'covers' && axle.sideShims === 'under-flange';
      const [inner, outer] = under ? [outside + 0.06 * R, outside + 0.3 * R] : [bore * 0.9, outside];
      const from0 = under ? cupBack + way * (0.1 * R - shim) : cupBack;
      const piece = rect(inner, from0, outer, from0 + way * shim);
      this.add(`shim-${side}`, 'case', [piece, overY(piece)], {
        off: at(0, way),
        exaggerated: true,
        anchor: at(outer * 0.95, from0 + (way * shim) / 2),
      });
      end = under ? cupBack : cupBack + way * shim;
    }
    return { from, seat, cupBack, end, outside, bore, way, side };
  }

  private shafts(top: { end: number }, bottom: { end: number }): void {
    const { R, axle } = this;
    const half = 0.115 * R;
    const reach = 0.42 * R;
    const ends = { top: top.end - reach, bottom: bottom.end + reach };
    const inner = 0.1 * R;
    const far = axle.ringSide === 'left' ? 'right' : 'left';
    const clip = (way: 1 | -1): Outline[] => {
      const piece = rect(half * 0.75, way * inner, half * 1.5, way * (inner + 0.035 * R));
      return [piece, overY(piece)];
    };
    const shaft = (side: 'left' | 'right', way: 1 | -1, end: number): void =>
      this.add(`shaft-${side}`, 'shafts', [rect(-half, way * inner, half, end)], {
        off: at(0, way),
        anchor: at(half * 0.6, end - way * 0.12 * R),
      });
    shaft(far, -1, ends.top);
    shaft(axle.ringSide, 1, ends.bottom);
    if (axle.clips) this.add('c-clips', 'shafts', [...clip(-1), ...clip(1)], { off: at(1, 0) });
    const seal = (end: number, way: 1 | -1): Outline[] => {
      const piece = rect(half, end + way * 0.025 * R, HOLE * R, end + way * 0.085 * R);
      return [piece, overY(piece)];
    };
    this.add('inner-seals', 'case', [...seal(top.end, -1), ...seal(bottom.end, 1)], { off: at(0, 1) });
  }

  private carrier(): void {
    const { R } = this;
    const [half, hub, flange] = [0.47 * R, 0.2 * R, 0.84 * R];
    const hubEnd = (from: number, way: 1 | -1): number => from + way * 0.24 * R;
    const [top, bottom] = [this.bodyTop, this.bodyBottom];
    const bore = 0.14 * R;
    // The right half with its hollow, then the other one; shell of the body, hubs, flange that carries the ring.
    const innerTop = top + 0.1 * R;
    const innerBottom = bottom - 0.1 * R;
    const half1: Outline = [
      at(bore, hubEnd(top, -1)),
      at(hub, hubEnd(top, -1)),
      at(hub, top),
      at(half, top),
      at(half, this.back),
      at(flange, this.back),
      at(flange, this.flangeEnd),
      at(half, this.flangeEnd),
      at(half * 0.9, bottom),
      at(hub, bottom),
      at(hub, hubEnd(bottom, 1)),
      at(bore, hubEnd(bottom, 1)),
      at(bore, innerBottom),
      at(half - 0.1 * R, innerBottom),
      at(half - 0.1 * R, innerTop),
      at(bore, innerTop),
    ];
    this.add('carrier', 'carrier', [half1, overY(half1)], { off: at(1, 0), anchor: at(half, top * 0.8) });
  }

  private unitInside(): void {
    const { R, axle } = this;
    const room = 0.36 * R;
    const bore = 0.12 * R;
    const far = axle.ringSide === 'left' ? 'right' : 'left';
    if (axle.unit === 'spool') {
      this.add('insert', 'carrier', [rect(-room, this.bodyTop + 0.1 * R, room, this.bodyBottom - 0.1 * R)], {
        off: at(1, 0),
      });
      return;
    }
    const gear = (way: 1 | -1): Outline[] => {
      const piece: Outline = [
        at(bore, way * 0.16 * R),
        at(0.2 * R, way * 0.16 * R),
        at(0.31 * R, way * 0.22 * R),
        at(0.31 * R, way * 0.26 * R),
        at(bore, way * 0.26 * R),
      ];
      return [piece, overY(piece)];
    };
    this.add(`side-gear-${far}`, 'shafts', gear(-1), { off: at(1, 0) });
    this.add(`side-gear-${axle.ringSide}`, 'shafts', gear(1), { off: at(1, 0) });
    const spider: Outline = [
      at(0.2 * R, -0.12 * R),
      at(0.34 * R, -0.16 * R),
      at(0.34 * R, 0.16 * R),
      at(0.2 * R, 0.12 * R),
    ];
    if (axle.unit === 'geared' || axle.unit === 'locker' || axle.unit === 'insert') {
      this.add(
        'insert',
        'carrier',
        [rect(0.2 * R, -0.14 * R, room, 0.14 * R), rect(-room, -0.14 * R, -0.2 * R, 0.14 * R)],
        {
          off: at(1, 0),
          anchor: at(0.3 * R, 0),
        },
      );
    } else this.add('spiders', 'carrier', [spider, overY(spider)], { off: at(1, 0) });
    if (axle.unit !== 'geared')
      this.add('cross-pin', 'carrier', [rect(-0.46 * R, -0.055 * R, 0.46 * R, 0.055 * R)], {
        off: at(1, 0),
        anchor: at(0.44 * R, 0),
      });
    if (axle.unit === 'locker') {
      const ring = (way: 1 | -1): Outline => rect(0.2 * R, way * 0.27 * R, 0.25 * R, way * 0.3 * R);
      this.add('locker-rings', 'carrier', [ring(-1), overY(ring(-1))], { off: at(0, -1) });
    }
    if (axle.unit !== 'plate') return;
    for (const [side, way] of [
      [far, -1],
      [axle.ringSide, 1],
    ] as const) {
      let from = way * 0.26 * R;
      const plates: Outline[] = [];
      for (const { thicknessMm, keyedTo } of this.platesOf(side)) {
        const to = from + way * thicknessMm;
        // Plates of the case reach outwards, those of the gear inwards, as their ears and teeth do.
        const [inner, outer] = keyedTo === 'case' ? [0.17 * R, room] : [bore, 0.32 * R];
        plates.push(rect(inner, from, outer, to));
        from = to;
      }
      this.add(`pack-${side}`, 'carrier', [...plates, ...plates.map(overY)], {
        off: at(1, 0),
        anchor: at(0.34 * R, way * (0.26 * R + 2)),
      });
    }
  }

  private ringAndBolts(): void {
    const { R, r, toe, back } = this;
    // Pitch cone from the crossing of both axes; a ring has little of its tooth above it.
    const tooth = 0.035 * R;
    const body: Outline = [
      at(-R, r - tooth),
      at(-R * toe, r * toe - tooth),
      at(-R * toe * 0.93, back - 0.06 * R),
      at(-R * toe * 0.93, back),
      at(-R * 0.9, back),
      at(-R, r + 0.1 * R),
    ];
    const teeth = (mirror: 1 | -1): [Point, Point] => [
      at(-mirror * R, r + 0.07 * R),
      at(-mirror * R * toe, r * toe + 0.07 * R),
    ];
    this.add('ring', 'carrier', [body, overY(body)], {
      off: at(0, -1),
      lines: [teeth(1), teeth(-1)],
      anchor: at(R * 0.9, (r + back) / 2),
    });
    const x = BOLTS_AT * R;
    const bolt = (mid: number): Outline => [
      at(mid - 0.03 * R, back - 0.15 * R),
      at(mid + 0.03 * R, back - 0.15 * R),
      at(mid + 0.03 * R, this.flangeEnd),
      at(mid + 0.055 * R, this.flangeEnd),
      at(mid + 0.055 * R, this.flangeEnd + 0.06 * R),
      at(mid - 0.055 * R, this.flangeEnd + 0.06 * R),
      at(mid - 0.055 * R, this.flangeEnd),
      at(mid - 0.03 * R, this.flangeEnd),
    ];
    this.add('ring-bolts', 'carrier', [bolt(x), bolt(-x)], { off: at(0, 1), anchor: at(x, this.flangeEnd + 0.03 * R) });
  }

  /** The pinion’s shaft with all that is on it, from its head to its nut. */
  private pinionEnd() {
    const { R, r, toe, axle, shim } = this;
    const box = axle.construction === 'transaxle';
    const addendum = 0.055 * R;
    const stem = 0.17 * R;
    const headBack = -R - 0.08 * R;
    const headShim = axle.depthShim === 'head-bearing' ? shim : 0;
    const coneBack = headBack - headShim;
    const headWidth = 0.22 * R;
    const headOut = Math.max(0.4 * R, stem * 2);
    const spacerTo = coneBack - headWidth * 0.86 - (box ? 0.1 : 0.46) * R;
    const tailWidth = 0.18 * R;
    const tailBack = spacerTo - tailWidth * 0.86;
    const tailOut = 0.34 * R;
    const tailStem = 0.14 * R;
    const flangeFrom = tailBack - 0.05 * R;
    const flangeTo = box ? tailBack - 0.02 * R : flangeFrom - 0.34 * R;
    const end = box ? tailBack - 0.95 * R : flangeTo - 0.1 * R;

    const above: Outline = [
      at(-R * toe, 0),
      at(-R * toe, -(r * toe + addendum * 0.8)),
      at(-R, -(r + addendum)),
      at(headBack, -(r + addendum * 0.4)),
      at(headBack, -stem),
      at(spacerTo, -stem),
      at(spacerTo, -tailStem),
      at(end, -tailStem),
      at(end, 0),
    ];
    const whole: Outline = [...above.slice(1, -1), ...[...overX(above)].reverse().slice(1, -1)];
    const root = (sign: 1 | -1): [Point, Point] => [
      at(-R * toe, sign * (r * toe - addendum)),
      at(-R, sign * (r - addendum)),
    ];
    this.add('pinion', 'pinion', [whole], {
      off: at(1, 0),
      lines: [root(1), root(-1)],
      anchor: at(-R * 0.9, -r * 0.5),
    });

    const head = taperAbove(coneBack, -headWidth, stem, headOut);
    const cupShim = axle.depthShim === 'cup' ? shim : 0;
    const mirrored = (outline: Outline): Outline[] => [outline, overX(outline)];
    this.add('head-bearing', 'pinion', [...mirrored(head.inner), ...mirrored(head.roller)], {
      off: at(1, 0),
      anchor: at(coneBack - headWidth * 0.4, -stem * 1.5),
    });
    this.add('head-cup', 'case', mirrored(head.outer), {
      off: at(1, 0),
      anchor: at(coneBack - headWidth * 0.6, -headOut),
    });
    const cupBack = coneBack - headWidth;
    if (axle.depthShim === 'head-bearing')
      this.add('pinion-shim', 'pinion', mirrored(rect(coneBack, -stem, headBack, -headOut * 0.78)), {
        off: at(1, 0),
        exaggerated: true,
        anchor: at((coneBack + headBack) / 2, -headOut * 0.78),
      });
    if (axle.depthShim === 'cup')
      this.add('pinion-shim', 'case', mirrored(rect(cupBack - cupShim, -headOut * 0.7, cupBack, -headOut)), {
        off: at(1, 0),
        exaggerated: true,
        anchor: at(cupBack - cupShim / 2, -headOut),
      });
    if (axle.spacer !== 'none' && !box) {
      const [from, to] = [coneBack - headWidth * 0.86, spacerTo];
      const middle = (from + to) / 2;
      const bulge = axle.spacer === 'collapsible' ? 0.07 * R : 0;
      const sleeve: Outline = [
        at(from, -stem),
        at(from, -stem - 0.04 * R),
        at(middle + 0.08 * R, -stem - 0.04 * R),
        at(middle, -stem - 0.04 * R - bulge),
        at(middle - 0.08 * R, -stem - 0.04 * R),
        at(to, -stem - 0.04 * R),
        at(to, -stem),
      ];
      this.add('spacer', 'pinion', mirrored(sleeve), { off: at(-1, 0), anchor: at(middle, -stem - 0.05 * R) });
    }
    const tail = taperAbove(tailBack, tailWidth, tailStem, tailOut);
    this.add('tail-bearing', 'pinion', [...mirrored(tail.inner), ...mirrored(tail.roller)], {
      off: at(-1, 0),
      anchor: at(tailBack + tailWidth * 0.4, -tailStem * 1.6),
    });
    this.add('tail-cup', 'case', mirrored(tail.outer), {
      off: at(-1, 0),
      anchor: at(tailBack + tailWidth * 0.6, -tailOut),
    });
    if (box) {
      const gears = [0.16, 0.4, 0.64].map((x, i) =>
        rect(tailBack - x * R, -tailStem, tailBack - (x + 0.16) * R, -(0.3 + 0.07 * i) * R),
      );
      this.add('shaft-gears', 'pinion', gears.flatMap(mirrored), { off: at(-1, 0) });
      const plate = rect(tailBack - 0.02 * R, -tailOut * 0.8, tailBack - 0.1 * R, -tailOut * 1.7);
      this.add('bearing-plate', 'case', mirrored(plate), {
        off: at(-1, 0),
        anchor: at(tailBack - 0.06 * R, -tailOut * 1.6),
      });
      this.add(
        'pinion-shim',
        'case',
        mirrored(rect(tailBack + tailWidth, -tailOut * 0.6, tailBack + tailWidth + shim, -tailOut)),
        {
          off: at(-1, 0),
          exaggerated: true,
          anchor: at(tailBack + tailWidth + shim / 2, -tailOut),
        },
      );
      this.add('pinion-nut', 'pinion', mirrored(rect(end, -tailStem * 0.6, end + 0.09 * R, -tailStem * 1.4)), {
        off: at(-1, 0),
      });
    } else {
      const seal = rect(flangeFrom - 0.02 * R, -0.22 * R, flangeFrom - 0.1 * R, -0.33 * R);
      this.add('seal', 'case', mirrored(seal), { off: at(-1, 0), anchor: at(flangeFrom - 0.06 * R, -0.33 * R) });
      const boss: Outline = [
        at(tailBack, -tailStem),
        at(tailBack, -0.21 * R),
        at(flangeTo + 0.08 * R, -0.21 * R),
        at(flangeTo + 0.08 * R, -0.46 * R),
        at(flangeTo, -0.46 * R),
        at(flangeTo, -tailStem),
      ];
      this.add('flange', 'pinion', mirrored(boss), { off: at(-1, 0), anchor: at(flangeTo + 0.04 * R, -0.46 * R) });
      this.add('pinion-nut', 'pinion', mirrored(rect(flangeTo, -tailStem * 0.5, flangeTo - 0.1 * R, -0.19 * R)), {
        off: at(-1, 0),
        anchor: at(flangeTo - 0.05 * R, -0.19 * R),
      });
    }
    return {
      coneBack,
      cupBack: cupBack - cupShim,
      headOut,
      tailCup: tailBack + tailWidth,
      tailOut,
      tailBack,
      flangeFrom,
      flangeTo,
      end,
      box,
    };
  }

  private caseRound(
    top: ReturnType<Bevel['sideEnd']>,
    bottom: ReturnType<Bevel['sideEnd']>,
    nose: ReturnType<Bevel['pinionEnd']>,
  ): void {
    const { R, axle } = this;
    const wall = 0.1 * R;
    const [yTop, yBottom] = [top.end - wall, bottom.end + wall];
    const xLeft = -1.2 * R;
    const xRight = 1.16 * R;
    const shell = nose.headOut + 0.1 * R;
    const outerTail = nose.tailOut + 0.08 * R;
    const noseTo = nose.box ? nose.tailBack - 0.1 * R : nose.flangeFrom - 0.1 * R;
    const open = axle.construction === 'drop-out' || axle.construction.startsWith('integral');
    const covers = axle.ringPlacedBy === 'covers';
    const hole = covers ? top.outside + 0.05 * R : HOLE * R;
    /** From the pinion’s bore round to the side bearing, above or below the pinion’s axis. */
    const half = (sign: 1 | -1, end: ReturnType<Bevel['sideEnd']>): Outline => {
      const y = (value: number): number => sign * value;
      const outerY = end.way * wall + end.end;
      const support = axle.depthShim === 'support';
      const bore = support ? shell + 0.05 * R : nose.headOut;
      const nosePoints: Point[] = support
        ? [at(xLeft - 0.06 * R, y(bore)), at(xLeft - 0.06 * R, y(bore + 0.16 * R))]
        : [
            at(nose.cupBack, y(nose.headOut)),
            at(nose.cupBack, y(nose.headOut * 0.8)),
            at(nose.tailCup, y(nose.tailOut * 0.82)),
            at(nose.tailCup, y(nose.tailOut)),
            at(noseTo, y(nose.tailOut)),
            at(noseTo, y(outerTail)),
            at(nose.tailCup, y(outerTail)),
            at(nose.cupBack, y(shell)),
          ];
      return [
        at(xLeft + 0.1 * R, y(bore)),
        ...nosePoints,
        at(xLeft, y(Math.max(shell, bore) + 0.04 * R)),
        at(xLeft, outerY),
        at(-hole, outerY),
        // Behind the bearing, down along its seat, and back to the wall that the pinion comes through.
        at(-hole, end.end),
        at(-end.outside, end.end),
        at(-end.outside, end.seat - end.way * 0.02 * R),
        at(-end.outside - wall, end.seat - end.way * 0.02 * R),
        at(-end.outside - wall, end.end - end.way * 0.04 * R),
        at(xLeft + 0.1 * R, end.end - end.way * 0.04 * R),
      ];
    };
    const upper = half(-1, top);
    const lower = half(1, bottom);
    const rightWall: Outline[] = open
      ? []
      : [
          rect(xRight - wall, top.end, xRight, bottom.end),
          rect(hole, top.end - wall, xRight, top.end),
          rect(hole, bottom.end, xRight, bottom.end + wall),
        ];
    this.add('case', 'case', [upper, lower, ...rightWall], { anchor: at(xLeft + 0.05 * R, yTop * 0.8) });
    if (axle.depthShim === 'support') this.support(nose, xLeft, shell);
    if (axle.construction.startsWith('integral')) {
      this.add(
        'cover',
        'case',
        [
          [
            at(HOLE * R, yTop),
            at(xRight + 0.02 * R, yTop),
            at(xRight + 0.1 * R, yTop + 0.14 * R),
            at(xRight + 0.1 * R, yBottom - 0.14 * R),
            at(xRight + 0.02 * R, yBottom),
            at(HOLE * R, yBottom),
            at(HOLE * R, yBottom - 0.06 * R),
            at(xRight - 0.02 * R, yBottom - 0.06 * R),
            at(xRight + 0.04 * R, yBottom - 0.18 * R),
            at(xRight + 0.04 * R, yTop + 0.18 * R),
            at(xRight - 0.02 * R, yTop + 0.06 * R),
            at(HOLE * R, yTop + 0.06 * R),
          ],
        ],
        { off: at(1, 0), anchor: at(xRight + 0.07 * R, 0.3 * R) },
      );
      const bolt = (y: number): Outline => rect(xRight - 0.1 * R, y - 0.025 * R, xRight + 0.14 * R, y + 0.025 * R);
      this.add('cover-bolts', 'case', [bolt(yTop + 0.3 * R), bolt(yBottom - 0.3 * R)], {
        off: at(1, 0),
      });
    }
    if (open) this.caps(top, bottom);
    if (covers) this.sideCovers(top, bottom);
  }

  private support(nose: ReturnType<Bevel['pinionEnd']>, xLeft: number, shell: number): void {
    const { R, shim } = this;
    const lip = xLeft - 0.06 * R - shim;
    const noseTo = nose.flangeFrom - 0.1 * R;
    const above: Outline = [
      at(xLeft + 0.12 * R, -nose.headOut),
      at(nose.cupBack, -nose.headOut),
      at(nose.cupBack, -nose.headOut * 0.8),
      at(nose.tailCup, -nose.tailOut * 0.82),
      at(nose.tailCup, -nose.tailOut),
      at(noseTo, -nose.tailOut),
      at(noseTo, -(nose.tailOut + 0.08 * R)),
      at(lip - 0.1 * R, -(nose.tailOut + 0.1 * R)),
      at(lip - 0.1 * R, -(shell + 0.2 * R)),
      at(lip, -(shell + 0.2 * R)),
      at(lip, -(shell + 0.05 * R)),
      at(xLeft + 0.12 * R, -(shell + 0.05 * R)),
    ];
    this.add('support', 'case', [above, overX(above)], {
      off: at(-1, 0),
      anchor: at(lip - 0.05 * R, -(shell + 0.18 * R)),
    });
    const piece = rect(lip, -(shell + 0.05 * R), lip + shim, -(shell + 0.2 * R));
    this.add('pinion-shim', 'case', [piece, overX(piece)], {
      off: at(-1, 0),
      exaggerated: true,
      anchor: at(lip + shim / 2, -(shell + 0.2 * R)),
    });
    const ring = circle(xLeft + 0.02 * R, -(shell + 0.035 * R), 0.022 * R);
    this.add('support-oring', 'case', [ring, overX(ring)], { off: at(-1, 0) });
    const bolt = rect(lip - 0.16 * R, -(shell + 0.1 * R), lip + 0.08 * R, -(shell + 0.15 * R));
    this.add('support-bolts', 'case', [bolt, overX(bolt)], {
      off: at(-1, 0),
      anchor: at(lip - 0.14 * R, -(shell + 0.12 * R)),
    });
  }

  private caps(top: ReturnType<Bevel['sideEnd']>, bottom: ReturnType<Bevel['sideEnd']>): void {
    const { R } = this;
    const bolts: Outline[] = [];
    for (const { side, seat, end, outside, way } of [top, bottom]) {
      const [from, to] = [seat - way * 0.02 * R, end];
      this.add(`cap-${side}`, 'case', [rect(outside, from, outside + 0.2 * R, to)], {
        off: at(1, 0),
        anchor: at(outside + 0.18 * R, (from + to) / 2),
      });
      const middle = (from + to) / 2;
      bolts.push(rect(outside + 0.2 * R, middle - 0.06 * R, outside + 0.28 * R, middle + 0.06 * R));
    }
    this.add('cap-bolts', 'case', bolts, { off: at(1, 0) });
  }

  private sideCovers(top: ReturnType<Bevel['sideEnd']>, bottom: ReturnType<Bevel['sideEnd']>): void {
    const { R } = this;
    const bolts: Outline[] = [];
    for (const { side, end, outside, way } of [top, bottom]) {
      const half: Outline = [
        at(HOLE * R, end),
        at(outside + 0.05 * R, end),
        at(outside + 0.05 * R, end + way * 0.1 * R),
        at(outside + 0.3 * R, end + way * 0.1 * R),
        at(outside + 0.3 * R, end + way * 0.2 * R),
        at(HOLE * R, end + way * 0.2 * R),
      ];
      this.add(`side-cover-${side}`, 'case', [half, overY(half)], {
        off: at(0, way),
        anchor: at(outside + 0.2 * R, end + way * 0.15 * R),
      });
      const bolt = rect(outside + 0.16 * R, end + way * 0.02 * R, outside + 0.22 * R, end + way * 0.26 * R);
      bolts.push(bolt, overY(bolt));
    }
    this.add('side-cover-bolts', 'case', bolts, { off: at(0, 1) });
  }

  private withFrame(
    top: ReturnType<Bevel['sideEnd']>,
    bottom: ReturnType<Bevel['sideEnd']>,
    nose: ReturnType<Bevel['pinionEnd']>,
    R: number,
  ): Section {
    const { r, toe, axle, back } = this;
    const far = axle.ringSide === 'left' ? 'right' : 'left';
    const all = this.parts.flatMap(({ outlines }) => outlines.flat());
    const [x1, x2] = [Math.min(...all.map(({ x }) => x)), Math.max(...all.map(({ x }) => x))];
    const [y1, y2] = [Math.min(...all.map(({ y }) => y)), Math.max(...all.map(({ y }) => y))];
    const flank = at(R * 0.92, r * 0.92);
    return {
      parts: this.parts,
      box: { x: x1, y: y1, width: x2 - x1, height: y2 - y1 },
      deeper: at(1, 0),
      closer: at(0, -1),
      upper: far,
      lower: axle.ringSide,
      axes: [
        [at(x1, 0), at(x2, 0)],
        [at(0, y1), at(0, y2)],
      ],
      stands: {
        // Square to the flank near the heel; not on the body of the ring, not from the axis.
        tooth: {
          right: { at: flank, looks: at(0.34, 0.94) },
          wrong: [
            { at: at(R, r + 0.16 * R), looks: at(-1, 0) },
            { at: at(R * toe, r * toe), looks: at(0.9, 0.43) },
          ],
        },
        'ring-back': {
          right: { at: at(-R * 0.88, back), looks: at(0, -1) },
          wrong: [
            { at: at(-R, r + 0.06 * R), looks: at(1, 0) },
            { at: at(-0.84 * R, this.flangeEnd), looks: at(0.7, -0.7) },
          ],
        },
        shaft: {
          right: { at: at(0, bottom.end + 0.42 * R), looks: at(0, -1) },
          wrong: [{ at: at(0.115 * R, bottom.end + 0.3 * R), looks: at(-1, 0) }],
        },
      },
      depth: [at(0, 0), at(-R * toe, 0)],
      raceToFlange: [
        [at(0.62 * R, top.cupBack), at(0.62 * R, back)],
        [at(0.95 * R, bottom.cupBack), at(0.95 * R, back)],
      ],
    };
  }

  /** Seen from above with the flange at the left: the car’s right is up where the flange looks forward. */
  private turnedOver(section: Section): Section {
    const up = this.axle.flangeLooks === 'forward' ? 'right' : 'left';
    if (section.upper === up) return section;
    const over = ({ x, y }: Point): Point => at(x, -y);
    const outline = (points: Outline): Outline => points.map(over);
    const pair = ([a, b]: readonly [Point, Point]): readonly [Point, Point] => [over(a), over(b)];
    const stand = ({ at: tip, looks }: { at: Point; looks: Point }) => ({ at: over(tip), looks: over(looks) });
    const stands = Object.fromEntries(
      Object.entries(section.stands).map(([key, { right, wrong }]) => [
        key,
        { right: stand(right), wrong: wrong.map(stand) },
      ]),
    );
    return {
      ...section,
      parts: section.parts.map((part) => ({
        ...part,
        outlines: part.outlines.map(outline),
        lines: part.lines.map(pair),
        off: part.off && over(part.off),
        anchor: over(part.anchor),
      })),
      box: { ...section.box, y: -section.box.y - section.box.height },
      closer: section.closer && over(section.closer),
      upper: section.lower,
      lower: section.upper,
      axes: section.axes.map(pair),
      stands,
      depth: section.depth && pair(section.depth),
      raceToFlange: section.raceToFlange.map(pair),
    };
  }
}
