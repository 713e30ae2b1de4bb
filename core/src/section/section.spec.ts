import { InputError } from '../base/errors';
import { CONSTRUCTIONS } from '../mesh/construction';
import { bevelSection, type BevelSection } from './bevel';
import { SECTION_PARTS, type DrawnPart, type Outline, type Section, type SectionPart } from './parts';
import { axleSection, type SectionOf } from './section';

const bevel: BevelSection = {
  construction: 'integral-head-shim',
  depthShim: 'head-bearing',
  ringPlacedBy: 'outboard-shims',
  sideShims: 'behind-cup',
  ringTeeth: 41,
  pinionTeeth: 11,
  ringDiameterMm: 200,
  ringSide: 'left',
  flangeLooks: 'forward',
  spacer: 'collapsible',
  clips: true,
  unit: 'plate',
  packs: { left: [], right: [] },
};
const PLACED = {
  'integral-head-shim': 'outboard-shims',
  'integral-inboard': 'inboard-shims',
  'integral-adjusters': 'adjusters',
  'drop-out': 'adjusters',
  independent: 'covers',
  transaxle: 'covers',
} as const;
const DEPTH = { 'drop-out': 'support', transaxle: 'box-shaft' } as const;
const all: SectionOf[] = CONSTRUCTIONS.flatMap((construction): SectionOf[] =>
  construction === 'electric-reduction'
    ? [{ construction, ratio: 9, ringSide: 'left', unit: 'plain' }]
    : (['plate', 'geared', 'insert', 'locker', 'spool', 'plain'] as const).map((unit) => ({
        ...bevel,
        construction,
        ringPlacedBy: PLACED[construction],
        depthShim: (DEPTH as Partial<Record<string, 'support' | 'box-shaft'>>)[construction] ?? 'head-bearing',
        unit,
      })),
);
const part = (section: Section, name: SectionPart): DrawnPart => {
  const found = section.parts.find((one) => one.part === name);
  if (!found) throw new Error(`No ${name}.`);
  return found;
};
const mean = (outline: Outline, key: 'x' | 'y'): number =>
  outline.reduce((sum, point) => sum + point[key], 0) / outline.length;
/** Whether a point lies in a polygon: rays crossed. */
const inside = (x: number, y: number, polygon: Outline): boolean =>
  polygon.reduce((odd, a, i) => {
    const b = polygon[(i + 1) % polygon.length] as { x: number; y: number };
    return a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x ? !odd : odd;
  }, false);

describe('the section of an axle', () => {
  it('has finite outlines, parts that are known, and lies in its box, of every construction and unit', () => {
    for (const of of all) {
      const { parts, box } = axleSection(of);
      expect(parts.length).withContext(of.construction).toBeGreaterThan(12);
      for (const { part: name, outlines, off, anchor } of parts) {
        expect(SECTION_PARTS).toContain(name);
        expect(off === null ? 1 : Math.hypot(off.x, off.y)).toBeCloseTo(1, 12);
        for (const { x, y } of [...outlines.flat(), anchor]) {
          expect(x >= box.x - 1e-9 && x <= box.x + box.width + 1e-9)
            .withContext(`${of.construction} ${name}`)
            .toBeTrue();
          expect(y >= box.y - 1e-9 && y <= box.y + box.height + 1e-9)
            .withContext(`${of.construction} ${name}`)
            .toBeTrue();
        }
      }
    }
  });

  it('draws the pitch cones of its teeth: the pinion’s radius to the ring’s is as its teeth [geometry]', () => {
    for (const [ringTeeth, pinionTeeth] of [
      [41, 11],
      [43, 10],
      [40, 13],
    ] as const) {
      const section = bevelSection({ ...bevel, ringTeeth, pinionTeeth });
      const [root, other] = part(section, 'pinion').lines;
      // Both root lines at the heel are as far from the axis as the pitch radius less the same addendum.
      const radius = ((root?.[1].y ?? 0) - (other?.[1].y ?? 0)) / 2 + 0.055 * 100;
      expect(radius / 100).toBeCloseTo(pinionTeeth / ringTeeth, 9);
      // Where the pinion’s and the ring’s cones touch, their angles make a right angle together: apex at the crossing.
      const slope = radius / 100;
      expect(Math.atan(slope) + Math.atan(ringTeeth / pinionTeeth)).toBeCloseTo(Math.PI / 2, 9);
    }
  });

  it('keeps pinion and carrier out of each other at every ratio that is built', () => {
    for (const pinionTeeth of [7, 9, 11, 13, 15, 17])
      for (const of of all) {
        if (of.construction === 'electric-reduction') continue;
        const section = axleSection({ ...of, pinionTeeth });
        const [pinion, carrier] = [part(section, 'pinion'), part(section, 'carrier')];
        for (const outline of pinion.outlines)
          for (const body of carrier.outlines) {
            expect(outline.some(({ x, y }) => inside(x, y, body)))
              .withContext(`${pinionTeeth} ${of.construction}`)
              .toBeFalse();
            expect(body.some(({ x, y }) => inside(x, y, outline)))
              .withContext(`${pinionTeeth} ${of.construction}`)
              .toBeFalse();
          }
      }
  });

  it('is seen from above: the ring lies on its side of the car, whichever way the flange looks', () => {
    for (const flangeLooks of ['forward', 'rearward'] as const)
      for (const ringSide of ['left', 'right'] as const) {
        const section = bevelSection({ ...bevel, flangeLooks, ringSide });
        // The flange is at the left; with the eyes forward and the flange forward, the car’s right is up.
        expect(section.upper).toBe(flangeLooks === 'forward' ? 'right' : 'left');
        expect(section.lower).not.toBe(section.upper);
        const down = mean(part(section, 'ring').outlines[0] ?? [], 'y') > 0;
        expect(down).toBe(section.lower === ringSide);
        // Closer is towards the pinion’s axis from where the ring is.
        expect(Math.sign(section.closer?.y ?? 0)).toBe(down ? -1 : 1);
        expect(section.deeper).toEqual({ x: 1, y: 0 });
      }
  });

  it('has the plates that are in the packs, by their thickness', () => {
    const plate = (thicknessMm: number, keyedTo: 'gear' | 'case') => ({ thicknessMm, keyedTo });
    const left = [plate(2, 'case'), plate(2.5, 'gear'), plate(1.5, 'case')];
    const section = bevelSection({ ...bevel, packs: { left, right: [] } });
    const heights = part(section, 'pack-left')
      .outlines.slice(0, 3)
      .map((outline) => Math.max(...outline.map(({ y }) => y)) - Math.min(...outline.map(({ y }) => y)));
    heights.forEach((height, i) => expect(height).toBeCloseTo(left[i]?.thicknessMm ?? 0, 9));
  });

  it('shows what an axle has, and not what it has not', () => {
    const has = (of: Partial<BevelSection>, name: SectionPart): boolean =>
      bevelSection({ ...bevel, ...of }).parts.some((one) => one.part === name);
    expect(has({ clips: false }, 'c-clips')).toBeFalse();
    expect(has({ spacer: 'none' }, 'spacer')).toBeFalse();
    expect(has({ ringPlacedBy: 'adjusters' }, 'shim-left')).toBeFalse();
    expect(has({ ringPlacedBy: 'adjusters' }, 'adjuster-left')).toBeTrue();
    expect(has({ construction: 'drop-out', depthShim: 'support' }, 'support')).toBeTrue();
    expect(has({ construction: 'drop-out', depthShim: 'support' }, 'cover')).toBeFalse();
    expect(has({ construction: 'independent', ringPlacedBy: 'covers' }, 'cap-left')).toBeFalse();
    expect(has({ unit: 'spool' }, 'cross-pin')).toBeFalse();
  });

  it('refuses by field', () => {
    const field = (of: Partial<BevelSection>): string => {
      try {
        bevelSection({ ...bevel, ...of });
        return '';
      } catch (error) {
        return error instanceof InputError ? error.field : 'another error';
      }
    };
    expect(field({ ringTeeth: 9 })).toBe('pinionTeeth');
    expect(field({ ringDiameterMm: Number.NaN })).toBe('ringDiameterMm');
    expect(field({ pinionTeeth: 0 })).toBe('pinionTeeth');
  });
});
