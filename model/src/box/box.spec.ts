import { entryBase, entryOf, pairOnCentres, restack } from '@hot-spline/core';
import { deriveBuild } from '../assembly/derive';
import { buildSchema, type Build } from '../document/schema';
import type { LedgerEntry } from '../frame/readings';
import { libraryCsv, readLibraryCsv } from '../library/library-csv';
import { newBuild } from '../start/new-build';
import { reading } from '../testing/builds';
import { NEW_BOX_ASSUMED, newBox, newPair, takeGears, withPair } from './new-box';
import { boxRound, piecesOf, pieceName, stepWords } from './round';
import {
  boxApproved,
  boxFloat,
  boxHours,
  boxNew,
  boxRunOut,
  boxShim,
  hubPlay,
  synchroDrag,
  synchroPart,
} from './readings';
import { cutPieces, stackedBox } from './state';

// Figures of this file are invented.

const gears = ['39/13', '35/17', '33/21'].map((typed, i) => {
  const [driven = 1, driver = 1] = typed.split('/').map(Number);
  return { name: String(i + 1), ratio: { typed, value: driven / driver, unit: '' as const } };
});
/** A build with a box of three gears whose lengths count as said. */
function boxed(change: (build: Build) => void = () => undefined): Build {
  const build = newBuild('Box');
  build.assumed = [];
  build.gearbox = { ...build.gearbox, kind: 'sequential', gears: structuredClone(gears) };
  build.box = newBox(build);
  change(build);
  return buildSchema.parse(build);
}
const inside = (build: Build) => {
  if (!build.box) throw new Error('no box');
  return build.box;
};
const nth = <T>(list: readonly T[], at: number): T => {
  const found = list[at];
  if (found === undefined) throw new Error(`nothing at ${at}`);
  return found;
};
const findings = (build: Build, ledger: LedgerEntry[] = []) =>
  deriveBuild(build, ledger).findings.filter(({ id }) => id.startsWith('box.') || id.startsWith('refused.box'));
const finding = (build: Build, id: string, ledger: LedgerEntry[] = []) =>
  findings(build, ledger).find((one) => one.id === id);
const mm = (value: number) => entryOf(value, 'mm');
const shaft = 'driving' as const;
const shim = (n: string, value: number) => reading(boxShim.of({ shaft, attempt: n }), mm(value));
const float = (n: string, ...values: number[]): LedgerEntry => ({
  ...reading(boxFloat.of({ shaft, attempt: n }), mm(0.1)),
  value: { of: 'number', counts: 'mean', entries: values.map(mm) },
});
const banded = () =>
  boxed((build) => {
    inside(build).shafts.driving.float = { low: mm(0.1), high: mm(0.18) };
  });

describe('a box that was just begun', () => {
  it('goes together by its stand-ins, and judges nothing while nobody has said them', () => {
    const build = boxed();
    expect(findings(build).filter(({ verdict }) => verdict === 'stop' || verdict === 'watch')).toEqual([]);
    build.assumed = [...NEW_BOX_ASSUMED];
    const all = findings(build);
    expect(all.length).toBeGreaterThan(0);
    expect(all.every(({ verdict }) => verdict === 'not-yet')).toBeTrue();
  });

  it('fits as a whole only once floats, rings and dogs are said; a count of dogs alone says nothing of them', () => {
    const fit = (build: Build): void => {
      const box = inside(build);
      for (const one of ['driving', 'driven'] as const) box.shafts[one].float = { low: mm(0.1), high: mm(0.18) };
      // Each pair with a play of 0.05 mm on its centres.
      for (const pair of box.pairs)
        pair.shiftSum =
          pairOnCentres({
            ...{ teeth: [pair.driver, pair.driven], normalModuleMm: 2.5, helixDeg: 0, pressureAngleDeg: 20 },
            centreMm: entryBase(box.centre),
          }).shiftSum - 0.03;
    };
    expect(finding(boxed(fit), 'box.whole')?.verdict).toBe('fits');
    expect(finding(boxed(fit), 'box.unsaid')).toBeUndefined();
    const without = (change: (build: Build) => void): string =>
      finding(
        boxed((build) => {
          fit(build);
          change(build);
        }),
        'box.unsaid',
      )?.say('metric').detail ?? 'nothing';
    expect(without((b) => (inside(b).shafts.driven.float = null))).toContain('Float of the driven shaft');
    // Nor is there a worst of a float that nobody knows.
    expect(deriveBuild(boxed(fit), []).figures.has('box.worst-overlap')).toBeTrue();
    expect(deriveBuild(boxed(), []).figures.has('box.worst-overlap')).toBeFalse();
    const piece = (b: Build, kind: 'hub' | 'gear') =>
      nth(
        inside(b).shafts.driven.pieces.filter((one) => one.kind === kind),
        0,
      );
    expect(without((b) => (piece(b, 'hub').ring = null))).toContain('Ring of a hub');
    expect(without((b) => (piece(b, 'gear').dogs = null))).toContain('Dogs of gear 1');
    const counted = boxed((b) => {
      fit(b);
      inside(b).dogs = { count: 6, ring: null, gear: null };
    });
    expect(finding(counted, 'box.dogs')).toBeUndefined();
  });

  it('needs the teeth of every gear', () => {
    const build = newBuild('Ratios');
    build.gearbox.gears = [{ name: '1', ratio: entryOf(3.2, '') }];
    expect(newBox(build)).toBeNull();
  });

  it('is refused with a gear of no pair, two constant pairs, a track of no hub, corners that go back', () => {
    const refused = (change: (build: Build) => void): string => {
      const build = structuredClone(boxed());
      change(build);
      return buildSchema.safeParse(build).error?.issues[0]?.path.join('.') ?? 'taken';
    };
    expect(refused((b) => Object.assign(nth(inside(b).shafts.driving.pieces, 1), { pair: 'nowhere' }))).toBe(
      'box.shafts.driving.pieces.1.pair',
    );
    expect(refused((b) => inside(b).pairs.forEach((one) => (one.constant = true)))).toBe('box.pairs');
    expect(refused((b) => (inside(b).helix = entryOf(90, '°')))).toBe('box.helix.value');
    const drum =
      (points: [number, number][], hub = 'hub1') =>
      (b: Build) =>
        (inside(b).drum = {
          radius: mm(30),
          slop: mm(0.2),
          depth: mm(3),
          period: null,
          detents: [],
          tracks: [{ hub, points }],
        });
    expect(
      refused(
        drum(
          [
            [0, 0],
            [10, 0],
          ],
          'none',
        ),
      ),
    ).toBe('box.drum.tracks.0.hub');
    expect(
      refused(
        drum([
          [10, 0],
          [0, 0],
        ]),
      ),
    ).toBe('box.drum.tracks.0.points.1.0');
    expect(
      refused(
        drum([
          [0, 0],
          [10, 0],
        ]),
      ),
    ).toBe('taken');
  });
});

describe('what is said of a box', () => {
  it('teeth that jam, and teeth that are another gear than the one every speed is worked out by', () => {
    const build = boxed(
      (b) => (b.box = withPair(inside(b), 'p2', { driver: 19, driven: 36, fits: [], shiftSum: null }, 0)),
    );
    // 19 + 36 = 55 teeth of module 2.5 on 67.5 mm: plain on 68.75, they need −0.48 and still could; 56 do not.
    expect(finding(build, 'box.pair.p2.ratio')?.verdict).toBe('watch');
    const jams = boxed(
      (b) => (b.box = withPair(inside(b), 'p2', { driver: 20, driven: 37, fits: [], shiftSum: null }, 0)),
    );
    const said = finding(jams, 'box.pair.p2.centres');
    expect(said?.verdict).toBe('stop');
    expect(said?.say('metric').title).toContain('jams');
    const none = boxed(
      (b) => (b.box = withPair(inside(b), 'p2', { driver: 25, driven: 40, fits: [], shiftSum: null }, 0)),
    );
    expect(finding(none, 'box.pair.p2.centres')?.say('metric').title).toContain('does not meet');
  });

  it('a pair in another place than its maker’s, a shorter shaft, a ring too wide', () => {
    const place = boxed((b) => Object.assign(nth(inside(b).pairs, 0), { fits: [2] }));
    expect(finding(place, 'box.pair.p1.place')?.verdict).toBe('stop');
    const short = boxed((b) => (inside(b).shafts.driven.length = mm(20)));
    expect(finding(short, 'box.stack.driven')).toBeUndefined(); // a nut clamps what stands proud
    const clip = boxed((b) => Object.assign(inside(b).shafts.driven, { closed: 'clip', length: mm(20) }));
    expect(finding(clip, 'box.stack.driven')?.say('metric').title).toContain('shorter than its stack');
    const wide = boxed((b) => {
      const hub = inside(b).shafts.driven.pieces.find(({ kind }) => kind === 'hub');
      if (hub) hub.ring = mm(16.2);
    });
    expect(finding(wide, 'box.gap.hub1.p1')?.verdict).toBe('stop');
  });

  it('one set of gears: what is put into the box is what every speed is worked out by', () => {
    const build = boxed();
    build.box = withPair(inside(build), 'p3', { driver: 22, driven: 32, fits: [3], shiftSum: null }, 0);
    takeGears(build);
    expect(build.gearbox.gears.map(({ ratio }) => ratio.typed)).toEqual(['39/13', '35/17', '32/22']);
    expect(entryBase(nth(build.gearbox.gears, 2).ratio)).toBeCloseTo(32 / 22, 12);
    expect(buildSchema.safeParse(build).success).toBeTrue();
    expect(finding(build, 'box.pair.p3.ratio')).toBeUndefined();
  });

  it('the drum against the dogs as they are stacked: gear by gear, and two at once where a track is moved', () => {
    // Gaps of 10 − 2 − 5.5 = 2.5 mm [exact]: dogs touch from 2.3 on, a gear is in from 5.5 on.
    const drum = (aside: number) =>
      boxed((build) => {
        const second: [number, number][] = [
          [-10, 0],
          [76, 0],
          [94, -6],
          [110, -6],
        ];
        inside(build).drum = {
          radius: mm(28),
          slop: mm(0.2),
          depth: mm(3),
          period: null,
          detents: [0, 50, 100],
          tracks: [
            {
              hub: 'hub1',
              points: [
                [-10, -6],
                [6, -6],
                [24, 0],
                [26, 0],
                [44, 6],
                [56, 6],
                [74, 0],
                [110, 0],
              ],
            },
            {
              hub: 'hub-last',
              points: second.map(([angle, travel], i) => [i === 0 || i === 3 ? angle : angle - aside, travel]),
            },
          ],
        };
      });
    const state = deriveBuild(drum(0), []).box?.drum;
    expect([state?.touchMm, state?.inMm]).toEqual([2.3, 5.5]);
    expect(state?.check.ok).toBeTrue();
    // The third gear stands before its hub, the second behind its own.
    expect(state?.gears.map(({ pair }) => pair)).toEqual(['p1', 'p2', 'p3']);
    expect(finding(drum(0), 'box.drum')?.verdict).toBe('fits');
    const found = finding(drum(24), 'box.drum');
    expect(found?.verdict).toBe('stop');
    expect(found?.say('metric').title).toContain('two gears are touched at once');
    const loose = boxed((build) => {
      build.box = inside(drum(0));
      if (build.box.drum) build.box.drum.slop = mm(3);
    });
    expect(findings(loose).find(({ place }) => place.tab === 'drum')?.verdict).toBe('stop');
  });
});

describe('reverse, a collar, what wears beside the pairs', () => {
  const reversed = (driver: number, driven: number, idler: number) =>
    boxed((build) => {
      const box = inside(build);
      box.pairs.push({ ...newPair('r', { driver, driven }), idler });
      for (const shaft of ['driving', 'driven'] as const) {
        const of = box.shafts[shaft];
        const gear = { ...nth(of.pieces, 1), id: `${shaft}-r`, pair: 'r', loose: false, sleeve: null, dogs: null };
        of.pieces.splice(-1, 0, gear);
        of.length = mm(entryBase(of.length) + entryBase(gear.width));
      }
    });

  it('reverse is no gear of any speed; an idler that does not stand between its gears stops', () => {
    // 13/39 on module 2.5 makes 65 mm between the shafts: 13 and 27 leave 65 − 50 − 5 = 10 mm.
    const build = reversed(13, 27, 18);
    expect(finding(build, 'box.count')).toBeUndefined();
    expect(findings(build).filter(({ id }) => id.startsWith('box.pair.r'))).toEqual([]);
    const meet = finding(reversed(20, 35, 18), 'box.pair.r.idler');
    expect(meet?.verdict).toBe('stop');
    expect(meet?.say('metric').title).toBe('Reverse: 35/20 run into each other');
    expect(finding(reversed(10, 12, 12), 'box.pair.r.idler')?.say('metric').title).toContain('does not reach');
    takeGears(build);
    expect(build.gearbox.gears.map(({ ratio }) => ratio.typed)).toEqual(['39/13', '35/17', '33/21']);
  });

  it('what stands before a collar is judged and put on by itself; without its closing the box is refused', () => {
    const build = boxed((b) => {
      const of = inside(b).shafts.driven;
      const first = nth(of.pieces, 0);
      of.pieces.splice(1, 0, { ...first, id: 'collar', kind: 'collar', width: mm(5) });
      of.before = { length: mm(entryBase(first.width) + 0.3), closed: 'nut', nutTorque: null };
    });
    const found = finding(build, 'box.stack.driven.before');
    expect(found?.verdict).toBe('stop');
    expect(found?.place.field).toBe('box-before-length-driven');
    expect(found?.say('metric').title.toLowerCase()).toContain('before its collar');
    const { together } = boxRound(inside(build), null);
    const ids = together.map(({ id }) => id);
    expect(ids).not.toContain('driven.collar');
    expect(ids).toContain('driven.nut-before');
    expect(new Set(ids).size).toBe(ids.length);
    const words = together.map((step) => stepWords(inside(build), step, 'together', 'metric').title);
    expect(words).toContain('Nut before the collar of the driven shaft to torque');
    const open = structuredClone(build);
    inside(open).shafts.driven.before = null;
    expect(buildSchema.safeParse(open).error?.issues[0]?.path.join('.')).toBe('box.shafts.driven.before');
    const two = structuredClone(build);
    const { pieces } = inside(two).shafts.driven;
    pieces.push({ ...nth(pieces, 1), id: 'collar2' });
    expect(buildSchema.safeParse(two).success).toBeFalse();
  });

  it('hours of a bearing and a fork are counted from when they went in; an id of a pair is refused', () => {
    const run = (n: string, minutes: number) => reading(boxHours.of({ run: n }), entryOf(minutes, 'min'));
    const build = boxed((b) =>
      inside(b).wearing.push(
        { id: 'bearing', name: 'Far bearing', lifeHours: 2, fromRun: 0 },
        { id: 'fork', name: 'Fork', lifeHours: 2, fromRun: 1 },
      ),
    );
    const ledger = [run('1', 60), run('2', 54)];
    const hours = deriveBuild(build, ledger).box?.hours;
    expect(hours?.get('bearing')).toBeCloseTo(1.9, 9);
    expect(hours?.get('fork')).toBeCloseTo(0.9, 9);
    const watched = finding(build, 'box.hours.bearing', ledger);
    expect([watched?.verdict, finding(build, 'box.hours.fork', ledger)]).toEqual(['watch', undefined]);
    expect(watched?.say('metric').title).toContain('Far bearing');
    const clash = structuredClone(build);
    nth(inside(clash).wearing, 0).id = 'p1';
    expect(buildSchema.safeParse(clash).error?.issues[0]?.path.join('.')).toBe('box.wearing');
  });

  it('more places on a face than there are bolts are refused, and a box without a forward gear is', () => {
    const build = boxed((b) =>
      inside(b).places.push({
        id: 'j',
        name: 'Joint',
        face: 'motor side',
        count: 1,
        hidden: false,
        spots: [[10, 10]],
        torque: null,
        after: [],
      }),
    );
    nth(inside(build).places, 0).spots.push([20, 20]);
    expect(buildSchema.safeParse(build).error?.issues[0]?.path.join('.')).toBe('box.places.0.spots');
    const back = boxed();
    for (const pair of inside(back).pairs) pair.idler = 15;
    expect(buildSchema.safeParse(back).success).toBeFalse();
  });

  it('a unit of one pair says what it gives at both wheels, under power and overrun', () => {
    const build = newBuild('Unit');
    build.assumed = [];
    build.gearbox = { ...build.gearbox, kind: 'fixed', gears: [nth(gears, 0)] };
    build.box = newBox(build);
    build.startPoint = { ...build.startPoint, gear: 0 };
    build.road.overrun = entryOf(25, '%');
    const { figures, gearing } = deriveBuild(buildSchema.parse(build), []);
    const most = Math.max(...build.engine.torqueCurve.map(({ torque }) => entryBase(torque)));
    const own = gearing.rear;
    const wheel = most * (39 / 13) * (own?.finalRatio ?? 0) * (own?.hubRatio ?? 0);
    expect(figures.get('box.wheel-torque')?.value).toBeCloseTo(wheel, 6);
    expect(figures.get('box.wheel-overrun')?.value).toBeCloseTo(-wheel / 4, 6);
    expect(deriveBuild(boxed(), []).figures.has('box.wheel-torque')).toBeFalse();
  });
});

describe('the end float of a box', () => {
  it('one reading alone, and repeats that do not agree, do not count', () => {
    const state = (...ledger: LedgerEntry[]) => deriveBuild(banded(), ledger).box?.floats.driving;
    expect(state(shim('1', 1.7), float('1', 0.3))?.now).toBeNull();
    expect(state(shim('1', 1.7), float('1', 0.3, 0.34))?.now).toBeNull();
    const counts = state(shim('1', 1.7), float('1', 0.3, 0.32));
    expect(counts?.now?.floatMm).toBeCloseTo(0.31, 9);
    // new = old + (measured − wanted): 1.7 + 0.31 − 0.14 [common practice]
    expect(counts?.nextShimMm).toBeCloseTo(1.87, 9);
    expect(counts?.inBand).toBeFalse();
    expect(finding(banded(), 'box.float.driving', [shim('1', 1.7), float('1', 0.3)])?.say('metric').title).toContain(
      'do not agree',
    );
  });

  it('is approved for what was read then: a later reading, and another shim, ask again', () => {
    const approve = (n: string): LedgerEntry => ({
      ...reading(boxApproved.of({ shaft, attempt: n }), mm(1)),
      value: { of: 'choice', choice: 'approved' },
    });
    const base = [shim('1', 1.7), float('1', 0.13, 0.14)];
    const approved = (...more: LedgerEntry[]) =>
      deriveBuild(banded(), [...base, ...more]).box?.floats.driving.approved !== null;
    expect(approved()).toBeFalse();
    expect(approved(approve('1'))).toBeTrue();
    expect(approved(approve('1'), float('1', 0.15, 0.15))).toBeFalse();
    expect(approved(approve('1'), shim('2', 1.75))).toBeFalse();
  });

  it('heat adds what the case outgrows the shaft: 300 mm, both 80 K warmer, cast', () => {
    const hot = (arrangement: 'X' | 'O' | 'one-end') =>
      deriveBuild(
        boxed((build) => {
          const box = inside(build);
          Object.assign(box, { alloy: 'aluminium-cast', caseRise: 80, shaftRise: 80 });
          Object.assign(box.shafts.driving, { between: mm(300), arrangement, float: { low: mm(0.1), high: mm(0.18) } });
        }),
        [shim('1', 1.7), float('1', 0.14, 0.14)],
      ).box?.floats.driving.heatMm;
    // 300·80·(21.5 − 11.7)e-6 = 0.2352 [exact, handbook 14.2]
    expect(hot('X')).toBeCloseTo(0.2352, 6);
    expect(hot('O')).toBeCloseTo(-0.2352, 6);
    expect(hot('one-end')).toBe(0);
  });

  it('run-out over its sheet stops, before and after the nut', () => {
    const build = boxed((b) => (inside(b).shafts.driving.runOut = mm(0.03)));
    const read = (value: number) => [reading(boxRunOut.of({ shaft, when: 'after' }), mm(value))];
    expect(finding(build, 'box.run-out.driving.after', read(0.03))?.verdict).toBe('fits');
    expect(finding(build, 'box.run-out.driving.after', read(0.04))?.verdict).toBe('stop');
  });
});

describe('hours and synchros', () => {
  const run = (n: string, minutes: number) => reading(boxHours.of({ run: n }), entryOf(minutes, 'min'));
  it('a pair that went in new begins its hours there, by the order of the ledger', () => {
    const renew: LedgerEntry = { ...reading(boxNew.of({ pair: 'p2' }), mm(1)), value: { of: 'choice', choice: 'new' } };
    const build = boxed((b) => inside(b).pairs.forEach((one) => (one.lifeHours = 3)));
    const ledger = [run('1', 90), renew, run('2', 90)];
    const hours = deriveBuild(build, ledger).box?.hours;
    expect([hours?.get('p1'), hours?.get('p2')]).toEqual([3, 1.5]);
    expect(finding(build, 'box.hours.p1', ledger)?.verdict).toBe('stop');
    expect(finding(build, 'box.hours.p2', ledger)).toBeUndefined();
    expect(finding(build, 'box.hours.p1', [run('1', 165)])?.verdict).toBe('watch');
    // A pair that was put in behind the first run has not run it.
    const other = structuredClone(build);
    other.box = withPair(inside(other), 'p1', { driver: 14, driven: 40, fits: [], shiftSum: null }, 1);
    expect(deriveBuild(buildSchema.parse(other), [run('1', 90), run('2', 30)]).box?.hours.get('p1')).toBe(0.5);
  });

  it('worn stops, borrowed is watched, no drag stops, play of a hub against its limit', () => {
    const build = boxed((b) => (inside(b).hubPlay = mm(0.1)));
    const choice = (subject: Parameters<typeof reading>[0], value: string): LedgerEntry => ({
      ...reading(subject, mm(1)),
      value: { of: 'choice', choice: value },
    });
    const ring = (state: 'worn' | 'borrowed' | 'good') =>
      finding(build, 'box.synchro.p1.ring', [choice(synchroPart.of({ pair: 'p1', part: 'ring' }), state)])?.verdict;
    expect([ring('worn'), ring('borrowed'), ring('good')]).toEqual(['stop', 'watch', undefined]);
    expect(finding(build, 'box.synchro.p1.drag', [choice(synchroDrag.of({ pair: 'p1' }), 'none')])?.verdict).toBe(
      'stop',
    );
    expect(finding(build, 'box.hub-play.hub1', [reading(hubPlay.of({ hub: 'hub1' }), mm(0.2))])?.verdict).toBe('stop');
  });
});

describe('a round of opening', () => {
  it('of a pair: only what lies above it, both shafts out of the case, in words of the stack', () => {
    const before = inside(boxed());
    const after = withPair(before, 'p3', { driver: 22, driven: 32, fits: [], shiftSum: null }, 0);
    const zero = { driving: 0, driven: 0 };
    const list = restack(stackedBox(before, zero), stackedBox(after, zero), cutPieces(before));
    const round = boxRound(after, { round: 2, pieces: piecesOf(list) });
    const ids = (way: 'apart' | 'together') =>
      round[way].filter(({ act }) => act === 'piece').map(({ piece }) => piece?.id);
    expect(ids('apart')).toEqual(ids('together').toReversed());
    expect(ids('together')).toEqual([
      'driving-p3',
      'driving-space-last',
      'driving-last',
      'driven-p3',
      'hub-last',
      'driven-last',
    ]);
    expect(round.apart.slice(0, 2).map(({ act }) => act)).toEqual(['into-case', 'into-case']);
    const whole = boxRound(after, null);
    expect(whole.together.length).toBeGreaterThan(round.together.length);
    for (const way of ['apart', 'together'] as const)
      for (const step of whole[way]) {
        const said = stepWords(after, step, way, 'metric');
        expect(`${said.title} ${said.does.join(' ')}`).not.toMatch(/undefined|null|NaN/);
      }
    expect(
      pieceName(
        after,
        nth(
          after.shafts.driven.pieces.filter(({ id }) => id === 'driven-p3'),
          0,
        ),
      ),
    ).toBe('Gear 3, 32 teeth');
  });

  it('what is pressed or warmed says so, and gloves', () => {
    const box = inside(boxed((b) => Object.assign(nth(inside(b).shafts.driving.pieces, 1), { fit: 'warm' })));
    const step = boxRound(box, null).together.find(({ piece }) => piece?.id === 'driving-p1');
    expect(step && stepWords(box, step, 'together', 'metric').caution).toContain('gloves');
  });
});

describe('a box in the library', () => {
  it('goes through CSV and back as it was; what is no JSON is refused by its line', () => {
    const spec = {
      ...{ kind: 'gearbox' as const, name: 'Ours', torqueLimit: null },
      box: { value: 'sequential' as const, origin: 'said' as const },
      gears: gears.map((gear) => ({ ...gear, origin: 'said' as const })),
      inside: inside(boxed()),
    };
    const text = libraryCsv([{ id: null, spec }]);
    expect(readLibraryCsv(text)).toEqual({ specs: [{ id: null, spec }], bad: [] });
    const torn = readLibraryCsv(text.replace(/"\{.*\}"/, '"{ no"'));
    expect(torn.bad.map(({ why }) => why)).toEqual(['value is no JSON.']);
  });
});
