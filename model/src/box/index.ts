import {
  BOX_SHAFTS,
  boxRatio,
  boxThrusts,
  entryBase,
  isReverse,
  judgeBox,
  type BoxShaft,
  type Counted,
  type PairJudged,
} from '@hot-spline/core';
import type { AxleName } from '../base/names';
import type { Build } from '../frame/document';
import type { AxleWork } from '../frame/work';
import { defineCapability } from '../frame/capability';
import type { Derivation } from '../frame/derivation';
import { fact, type Verdict } from '../frame/finding';
import { readingBase, type Readings } from '../frame/readings';
import type { BoxInside, BoxPairSpec } from '../library/box';
import { gearing } from '../gearing';
import { road } from '../road';
import { torqueCurve } from '../road/torque-curve';
import { boxFigures } from './ids';
import { NEW_BOX_ASSUMED, NEW_DRUM_ASSUMED, pairThatGoes } from './new-box';
import { SHAFT_WORDS, SYNCHRO_PARTS, boxRunOut, boxSubjects, hubPlay, synchroDrag, synchroPart } from './readings';
import {
  countOf,
  dogsOf,
  drumState,
  floatJob,
  gearPairs,
  hoursOf,
  stackedBox,
  type BoxState,
  type DrumState,
  type FloatJob,
} from './state';
import * as words from './words';

const STATION = 'gearbox';
/** From this share of its hours on a pair is watched: ours. */
const NEAR_HOURS = 0.9;
const at = (field: string, tab?: string) => ({ sheet: 'box', field, ...(tab === undefined ? {} : { tab }) });

/** What a pair is called: its gear, or what turns the layshaft. */
export const pairName = (inside: BoxInside, pair: Pick<BoxPairSpec, 'id' | 'constant' | 'idler'>): string =>
  pair.constant
    ? 'Constant pair'
    : isReverse(pair)
      ? 'Reverse'
      : `Gear ${gearPairs(inside).findIndex(({ id }) => id === pair.id) + 1}`;
export const teethText = ({ driver, driven }: Pick<BoxPairSpec, 'driver' | 'driven'>): string => `${driven}/${driver}`;
/** What a hub is called: by the gears that it takes. */
export function hubName(inside: BoxInside, judged: BoxState['judged'], hub: string): string {
  const gears = judged.gaps
    .filter((one) => one.hub === hub)
    .map(({ pair }) => {
      const reverse = inside.pairs.some((one) => one.id === pair && isReverse(one));
      return reverse ? 'R' : gearPairs(inside).findIndex(({ id }) => id === pair) + 1 || 'constant';
    })
    .sort();
  return gears.length > 0 ? `Hub ${gears.join('–')}` : 'A hub';
}

/** The gearbox from inside: stacked, floated, shifted, and what each pair has run. */
export const box = defineCapability({
  name: 'box',
  needs: [gearing, road],
  figures: boxFigures,
  subjects: boxSubjects,
  place: at('box-centre', 'inside'),
  station: STATION,
  inputs: ({ build, readings, main }) => ({
    main,
    inside: build.box,
    gears: build.gearbox.gears,
    overrun: build.road.overrun,
    build,
    readings,
  }),
  derive: ({ inside, gears, build, main, overrun, readings }, all, given): BoxState | null => {
    if (!inside) return null;
    // A box that was just begun stands on lengths that nobody has said; what is read and counted does not.
    const d = all.using(NEW_BOX_ASSUMED);
    const jobs = Object.fromEntries(
      BOX_SHAFTS.map((shaft) => [shaft, floatJob(shaft, inside.shafts[shaft], inside, readings)]),
    ) as Record<BoxShaft, FloatJob>;
    const floats = { driving: floatMm(jobs.driving), driven: floatMm(jobs.driven) };
    return d.attempt(at('box-centre', 'inside'), STATION, () => {
      const stacked = stackedBox(inside, floats);
      const judged = judgeBox(stacked);
      for (const one of judged.pairs) pairFindings(inside, one, stacked.overlapShare, d);
      for (const one of judged.gaps) gapFinding(inside, one, stacked.dogGapMm, d);
      for (const shaft of BOX_SHAFTS) stackFindings(inside, judged, shaft, d);
      gearFindings(inside, gears, d);
      unsaidFinding(inside, judged, jobs, d);
      // Without a float there is no worst of it.
      const worst = BOX_SHAFTS.some((shaft) => !floatKnown(jobs[shaft]))
        ? []
        : judged.pairs.flatMap(({ overlap }) => (overlap ? [overlap.worstShare] : []));
      if (worst.length > 0)
        d.figure({
          id: boxFigures.worstOverlap(),
          label: 'Faces on each other, the worst pair',
          value: 100 * Math.min(...worst),
          quantity: 'percent',
          decimals: 0,
        });
      if (!d.findings.some(({ id }) => id.startsWith('box.')))
        d.finding({
          id: 'box.whole',
          verdict: 'fits',
          place: at('box-centre', 'inside'),
          station: STATION,
          figures: worst.length > 0 ? [boxFigures.worstOverlap()] : [],
          rule: 'centres [ISO 21771, from memory], planes, hubs, dogs and stack [exact]; the share of a face is a guard of ours',
          facts: { pairs: fact(judged.pairs.length, 'count'), worst: fact(Math.min(1, ...worst), 'ratio') },
          say: words.whole,
        });
      for (const shaft of BOX_SHAFTS) floatFindings(inside, jobs[shaft], shaft, readings, all);
      const drum = d.attempt(at('drum-radius', 'drum'), STATION, () => drumState(inside, judged));
      if (drum) drumFinding(inside, drum, d.using(NEW_DRUM_ASSUMED));
      const dogs = all.attempt(at('dogs-count', 'inside'), STATION, () => dogsOf(inside));
      if (dogs) dogsFinding(dogs, all);
      const hours = hoursOf(inside, readings);
      hourFindings(inside, hours, all);
      synchroFindings(inside, judged, readings, all);
      const most = Math.max(...torqueCurve(build).map(({ torqueNm }) => torqueNm));
      const thrusts =
        d.attempt(at('box-helix', 'inside'), STATION, () => boxThrusts(stacked, most, entryBase(overrun) / 100)) ?? [];
      for (const shaft of BOX_SHAFTS) {
        const largest = Math.max(0, ...thrusts.map(({ drive }) => Math.abs(drive[shaft])));
        if (largest > 0)
          d.figure({
            id: boxFigures.thrust(shaft),
            label: `Most thrust on the ${SHAFT_WORDS[shaft]}`,
            value: largest,
            quantity: 'force',
            decimals: 0,
            uses: ['engine.torqueCurve'],
          });
      }
      const own = given.of(gearing)?.[main];
      const single = gearPairs(inside)[0];
      // A reduction unit has nothing to be chosen: what it gives is its answer.
      if (own && single && alwaysIn(inside))
        unitFigures(most * boxRatio(inside, single) * own.finalRatio * own.hubRatio, entryBase(overrun) / 100, d);
      const counted = all.attempt(at('box-places', 'counted'), STATION, () =>
        countOf(inside, build.boxWork?.round ?? 1, readings),
      );
      if (counted) countFinding(inside, counted, all);
      return { stacked, judged, drum, dogs, floats: jobs, thrusts, hours, counted };
    });
  },
  knows: (axle, result, { build }) => countedAtGate(build, axle, result?.counted ?? null),
});

/** What waits at the gate of a unit that is its axle: everything counted in. */
function countedAtGate(build: Build, axle: AxleName, counted: Counted | null): AxleWork<never> {
  if (!counted || build.axles[axle]?.identity?.construction.value !== 'electric-reduction') return {};
  return {
    needs: {
      B: ({ asks }) =>
        asks.B.includes('float')
          ? [
              {
                of: 'together',
                need: 'Everything counted in again',
                met: counted.closed,
                says: counted.closed ? 'all of it' : 'not all, on Box',
              },
            ]
          : [],
    },
  };
}

const floatKnown = ({ now, wantedMm }: FloatJob): boolean => now !== null || wantedMm !== null;
/** The float that counts in an overlap: as it was read, else the middle of its band, else none. */
const floatMm = ({ now, wantedMm }: FloatJob): number => now?.floatMm ?? wantedMm ?? 0;

/** Torque of a unit at both wheels together. Not counted: losses, what grip allows, the motor’s own inertia. */
function unitFigures(wheelNm: number, overrunShare: number, d: Derivation): void {
  const common = { quantity: 'torque', decimals: 0, uses: ['engine.torqueCurve'] } as const;
  d.figure({ ...common, id: boxFigures.wheelTorque(), label: 'At both wheels, full torque', value: wheelNm });
  d.figure({
    ...common,
    id: boxFigures.wheelOverrun(),
    label: 'At both wheels, overrun',
    value: -wheelNm * overrunShare,
  });
}

/** Teeth near this ratio that go on these centres, whoever cuts them; empty where there are none. */
function otherText(inside: BoxInside, { driver, driven }: Pick<BoxPairSpec, 'driver' | 'driven'>): string {
  const other = pairThatGoes(inside, driven / driver, null);
  return other ? teethText(other) : '';
}

/** A reduction unit has one pair and no hub: it is always in. */
const alwaysIn = (inside: BoxInside): boolean =>
  gearPairs(inside).length === 1 &&
  !BOX_SHAFTS.some((shaft) => inside.shafts[shaft].pieces.some(({ kind }) => kind === 'hub'));

function pairFindings(inside: BoxInside, judged: PairJudged, asked: number, d: Derivation): void {
  const { pair } = judged;
  const gear = pairName(inside, pair);
  const teeth = teethText(pair);
  const common = { station: STATION, figures: [], place: at(`box-driver-${pair.id}`, 'inside') } as const;
  const { centres: on, idler } = judged;
  if (idler && idler.verdict !== 'fits')
    d.finding({
      ...common,
      id: `box.pair.${pair.id}.idler`,
      verdict: 'stop',
      rule: 'both gears of reverse keep clear of each other, and the idler reaches both; straight-cut, plain teeth [exact]',
      facts: {
        teeth,
        idler: fact(pair.idler ?? 0, 'count'),
        meet: idler.verdict === 'gears meet',
        clear: fact(Math.abs(idler.clearMm), 'length', 'plate'),
      },
      say: words.idler,
    });
  const verdict = idler ? 'fits' : (on?.verdict ?? 'no mesh');
  if (verdict !== 'fits')
    d.finding({
      ...common,
      id: `box.pair.${pair.id}.centres`,
      verdict: verdict === 'can-fit' ? 'not-yet' : verdict === 'loose' ? 'watch' : 'stop',
      rule: 'profile shifts that a pair needs on its centres against its own [ISO 21771, from memory]; −0.5 to 1.2 and a tenth of the module of play: ours',
      facts: {
        gear,
        teeth,
        verdict,
        sum: fact(on?.shiftSum ?? 0, 'ratio'),
        given: fact(pair.shiftSum ?? 0, 'ratio'),
        said: pair.shiftSum !== null,
        play: fact(on?.playMm ?? 0, 'length', 'small'),
        other: verdict === 'can-fit' ? '' : otherText(inside, pair),
      },
      say: words.centres,
    });
  if (judged.hands === 'alike' || judged.hands === 'not said')
    d.finding({
      ...common,
      id: `box.pair.${pair.id}.hands`,
      verdict: judged.hands === 'alike' ? 'stop' : 'not-yet',
      rule: 'gears on parallel shafts have opposite hands [exact]',
      facts: { gear, alike: judged.hands === 'alike' },
      say: words.hands,
    });
  if (!judged.place)
    d.finding({
      ...common,
      id: `box.pair.${pair.id}.place`,
      verdict: 'stop',
      rule: 'which pair fits where is its maker’s word',
      facts: { gear, teeth, fits: pair.fits.map((n) => `gear ${n}`).join(', ') },
      say: words.placeOf,
    });
  const { driving, driven } = judged.onShafts;
  const what =
    driving !== 1 || driven !== 1
      ? driving === 0 || driven === 0
        ? 'one of its gears is on no shaft'
        : 'one of its gears is on its shaft twice'
      : pair.constant || alwaysIn(inside) || (isReverse(pair) && judged.slides)
        ? null
        : judged.looseOn === null
          ? 'none of its gears turns loosely, or both do'
          : judged.hub === null
            ? 'no hub beside it'
            : null;
  if (what !== null)
    d.finding({
      ...common,
      id: `box.pair.${pair.id}.shafts`,
      verdict: 'stop',
      rule: 'one gear on each shaft, one of them loose between its hub and a face that holds it [exact]',
      facts: { gear, what },
      say: words.missing,
    });
  const { overlap, planesApartMm } = judged;
  if (overlap && overlap.worstShare < asked - 1e-9)
    d.finding({
      ...common,
      id: `box.pair.${pair.id}.overlap`,
      verdict: overlap.worstShare < 0.8 * asked ? 'stop' : 'watch',
      rule: 'faces on each other at the worst of both floats [exact]; 95 % of the narrower, below four fifths of that stop: ours',
      facts: {
        gear,
        worst: fact(overlap.worstShare, 'ratio'),
        asked: fact(asked, 'ratio'),
        apart: fact(planesApartMm ?? 0, 'length', 'plate'),
      },
      say: words.overlap,
    });
}

function gapFinding(
  inside: BoxInside,
  gap: BoxState['judged']['gaps'][number],
  asked: number | null,
  d: Derivation,
): void {
  if (gap.gapMm > 0 && (asked === null || gap.gapMm >= asked - 1e-9)) return;
  const pair = inside.pairs.find(({ id }) => id === gap.pair);
  if (!pair) return;
  d.finding({
    id: `box.gap.${gap.hub}.${gap.pair}`,
    verdict: gap.gapMm <= 0 ? 'stop' : 'watch',
    place: at(`box-driver-${pair.id}`, 'inside'),
    station: STATION,
    figures: [],
    rule: 'in neutral a ring is clear of both its gears [exact]; by how much is the builder’s word',
    facts: {
      gear: pairName(inside, pair),
      gap: fact(gap.gapMm, 'length', 'small'),
      asked: fact(asked ?? 0, 'length', 'small'),
      said: asked !== null,
    },
    say: words.gap,
  });
}

function stackFindings(inside: BoxInside, judged: BoxState['judged'], shaft: BoxShaft, d: Derivation): void {
  const { tight, idle, ...far } = judged.shafts[shaft];
  const common = { station: STATION, figures: [], place: at(`box-length-${shaft}`, 'inside') } as const;
  const spec = inside.shafts[shaft];
  const sides = [
    { id: `box.stack.${shaft}`, held: far, closed: spec.closed, before: false, field: `box-length-${shaft}` },
    ...(far.before && spec.before
      ? [
          {
            id: `box.stack.${shaft}.before`,
            held: far.before,
            closed: spec.before.closed,
            before: true,
            field: `box-before-length-${shaft}`,
          },
        ]
      : []),
  ];
  for (const { id, held, closed, before, field } of sides)
    if (!held.holds)
      d.finding({
        ...common,
        place: at(field, 'inside'),
        id,
        verdict: 'stop',
        rule: 'a nut clamps a stack that stands proud of its shaft, a clip goes in where something is spare [exact]',
        facts: {
          shaft: `${SHAFT_WORDS[shaft]}${before ? ', before its collar' : ''}`,
          nut: closed === 'nut',
          spare: fact(held.spareMm, 'length', 'plate'),
          holds: held.holds,
        },
        say: words.stack,
      });
  for (const id of tight) {
    const piece = inside.shafts[shaft].pieces.find((one) => one.id === id);
    const pair = inside.pairs.find((one) => one.id === piece?.pair);
    if (pair)
      d.finding({
        ...common,
        id: `box.tight.${id}`,
        verdict: 'stop',
        rule: 'a loose gear has play on its sleeve [exact]',
        facts: { gear: pairName(inside, pair) },
        say: words.tight,
      });
  }
  for (const id of idle)
    d.finding({
      ...common,
      id: `box.idle.${id}`,
      verdict: 'watch',
      rule: 'a hub serves one gear or two [exact]',
      facts: { hub: inside.shafts[shaft].pieces.find((one) => one.id === id)?.name || 'A hub' },
      say: words.idle,
    });
}

/** What a judgement of the whole still lacks: a float that counts in the faces, a ring or dogs that count in neutral. */
function unsaidFinding(
  inside: BoxInside,
  judged: BoxState['judged'],
  jobs: Readonly<Record<BoxShaft, FloatJob>>,
  d: Derivation,
): void {
  const pieces = BOX_SHAFTS.flatMap((shaft) => inside.shafts[shaft].pieces);
  const rings = pieces.filter(({ kind, ring }) => kind === 'hub' && ring === null);
  const dogs = judged.pairs.filter(({ hub, pair }) => {
    const gear = pieces.find((one) => one.pair === pair.id && one.loose);
    return hub !== null && gear?.dogs === null;
  });
  const missing = [
    ...BOX_SHAFTS.filter((shaft) => !floatKnown(jobs[shaft])).map((shaft) => `float of the ${SHAFT_WORDS[shaft]}`),
    ...(rings.length > 0 ? [`ring of ${rings.length === 1 ? 'a hub' : `${rings.length} hubs`}`] : []),
    ...dogs.map(({ pair }) => `dogs of ${pairName(inside, pair).toLowerCase()}`),
  ];
  if (missing.length === 0) return;
  d.finding({
    id: 'box.unsaid',
    verdict: 'not-yet',
    place: at('box-low-driving', 'inside'),
    station: STATION,
    figures: [],
    rule: 'faces are judged at the worst of both floats, rings in neutral by ring and dogs: without them nothing fits',
    facts: { missing: missing.join(', ') },
    say: words.unsaid,
  });
}

/** The gears that every speed is worked out by, against the teeth in the box. */
function gearFindings(
  inside: BoxInside,
  gears: readonly { readonly ratio: Parameters<typeof entryBase>[0] }[],
  d: Derivation,
): void {
  const pairs = gearPairs(inside);
  const common = { station: STATION, figures: [], verdict: 'watch', rule: 'one set of gears in both places' } as const;
  if (pairs.length !== gears.length)
    d.finding({
      ...common,
      id: 'box.count',
      place: at(`box-driver-${pairs[0]?.id ?? ''}`, 'inside'),
      facts: { inBox: fact(pairs.length, 'count'), said: fact(gears.length, 'count') },
      say: words.count,
    });
  pairs.forEach((pair, i) => {
    const said = gears[i];
    if (!said) return;
    const [inBox, typed] = [boxRatio(inside, pair), entryBase(said.ratio)];
    if (Math.abs(inBox / typed - 1) < 5e-4) return;
    d.finding({
      ...common,
      id: `box.pair.${pair.id}.ratio`,
      place: at(`box-driver-${pair.id}`, 'inside'),
      facts: { gear: String(i + 1), inBox: fact(inBox, 'ratio'), said: fact(typed, 'ratio') },
      say: words.ratio,
    });
  });
}

function floatFindings(inside: BoxInside, job: FloatJob, shaft: BoxShaft, readings: Readings, d: Derivation): void {
  const spec = inside.shafts[shaft];
  const last = job.tries.at(-1) ?? null;
  const { now, heatMm, nextShimMm, inBand } = job;
  const length = { quantity: 'length', scale: 'small', rests: 'measured' } as const;
  if (now?.floatMm !== null && now !== null) {
    d.figure({ id: boxFigures.float(shaft), label: `End float, ${SHAFT_WORDS[shaft]}`, value: now.floatMm, ...length });
    if (heatMm !== null)
      d.figure({
        id: boxFigures.floatHot(shaft),
        label: `Hot, ${SHAFT_WORDS[shaft]}`,
        value: now.floatMm + heatMm,
        ...length,
        rests: 'memory',
      });
    if (nextShimMm !== null)
      d.figure({
        id: boxFigures.nextShim(shaft),
        label: `Next shim, ${SHAFT_WORDS[shaft]}`,
        value: nextShimMm,
        ...length,
      });
  }
  const state =
    now === null ? (last?.reading ? 'apart' : 'unread') : inBand === null ? 'no band' : inBand ? 'fits' : 'out';
  const verdicts: Record<string, Verdict> = { fits: 'fits', out: 'watch', apart: 'watch' };
  const hot = (now?.floatMm ?? 0) + (heatMm ?? 0);
  const squeezed = heatMm !== null && now !== null && hot < 0;
  if (spec.float !== null || last !== null)
    d.finding({
      id: `box.float.${shaft}`,
      verdict: squeezed && state === 'fits' ? 'watch' : (verdicts[state] ?? 'not-yet'),
      place: at(`box-float-${shaft}`, 'float'),
      station: STATION,
      figures: now ? [boxFigures.float(shaft)] : [],
      rule: `new shim = old + (measured − wanted); repeats within 0.02 mm, two at least: ours; heat by α·L·ΔT (common practice, exact)`,
      facts: {
        shaft: SHAFT_WORDS[shaft],
        state,
        float: fact(now?.floatMm ?? 0, 'length', 'small'),
        low: fact(spec.float ? entryBase(spec.float.low) : 0, 'length', 'small'),
        high: fact(spec.float ? entryBase(spec.float.high) : 0, 'length', 'small'),
        shim: fact(nextShimMm ?? 0, 'length', 'plate'),
        possible: nextShimMm !== null,
        hot: fact(hot, 'length', 'small'),
        heat: heatMm !== null && now !== null,
        spread: fact(last?.spreadMm ?? 0, 'length', 'small'),
      },
      say: words.float,
    });
  if (inBand)
    d.finding({
      id: `box.approved.${shaft}`,
      verdict: job.approved ? 'fits' : 'not-yet',
      place: at(`box-float-${shaft}`, 'float'),
      station: STATION,
      figures: [boxFigures.float(shaft)],
      rule: 'what was read is approved by somebody; a later reading asks again (common practice)',
      facts: { shaft: SHAFT_WORDS[shaft], approved: job.approved !== null, who: job.approved?.who ?? '' },
      say: words.approve,
    });
  for (const when of ['before', 'after'] as const) {
    const read = readings.get(boxRunOut.key({ shaft, when }));
    if (!read || !spec.runOut) continue;
    const [was, limit] = [readingBase(read), entryBase(spec.runOut)];
    d.finding({
      id: `box.run-out.${shaft}.${when}`,
      verdict: was <= limit + 1e-9 ? 'fits' : 'stop',
      place: at(`box-run-out-${shaft}`, 'float'),
      station: STATION,
      figures: [],
      rule: 'on V-blocks at the bearing seats, before and after the nut, against its builder’s sheet (common practice)',
      facts: {
        shaft: SHAFT_WORDS[shaft],
        when,
        read: fact(was, 'length', 'small'),
        limit: fact(limit, 'length', 'small'),
        fits: was <= limit + 1e-9,
      },
      say: words.runOut,
    });
  }
}

function drumFinding(inside: BoxInside, { check, gears }: DrumState, d: Derivation): void {
  d.figure({
    id: boxFigures.steepest(),
    label: 'Steepest ramp of the drum',
    value: check.steepestDeg,
    quantity: 'angle',
    decimals: 1,
  });
  const reached = new Set(gears.flatMap(({ pair }) => (pair === null ? [] : [pair])));
  const through = gears.length === 0 || gearPairs(inside).every(({ id }) => reached.has(id));
  d.finding({
    id: 'box.drum',
    verdict: !check.ok ? 'stop' : through ? 'fits' : 'watch',
    place: at('drum-radius', 'drum'),
    station: STATION,
    figures: [boxFigures.steepest()],
    rule: 'at every angle one gear at most is touched, between two lies a neutral [exact, by crossings]; ramps up to 45°: ours',
    facts: { ok: check.ok, faults: check.faults.join(', '), steepest: fact(check.steepestDeg, 'angle'), through },
    say: words.drum,
  });
}

function dogsFinding({ chance, turnDeg, playDeg }: NonNullable<BoxState['dogs']>, d: Derivation): void {
  d.figure({
    id: boxFigures.faceToFace(),
    label: 'Dog on dog, standing still',
    value: 100 * chance,
    quantity: 'percent',
    decimals: 0,
  });
  d.finding({
    id: 'box.dogs',
    verdict: chance >= 1 ? 'stop' : 'fits',
    place: at('dogs-count', 'inside'),
    station: STATION,
    figures: [boxFigures.faceToFace()],
    rule: 'chance = n·(w₁ + w₂)/360, every angle alike [exact]',
    facts: {
      never: chance >= 1,
      chance: fact(chance, 'ratio'),
      turn: fact(turnDeg, 'angle'),
      play: fact(playDeg, 'angle'),
    },
    say: words.dogs,
  });
}

function hourFindings(inside: BoxInside, hours: ReadonlyMap<string, number>, d: Derivation): void {
  const all = [
    ...inside.pairs.map((pair) => ({ ...pair, gear: pairName(inside, pair) })),
    ...inside.wearing.map((one) => ({ ...one, gear: one.name })),
  ];
  for (const { id, lifeHours, gear } of all) {
    const run = hours.get(id) ?? 0;
    if (lifeHours === null || run < NEAR_HOURS * lifeHours) continue;
    d.finding({
      id: `box.hours.${id}`,
      verdict: run >= lifeHours ? 'stop' : 'watch',
      place: at('box-run', 'life'),
      station: STATION,
      figures: [],
      rule: 'hours since it went in against its maker’s; from nine tenths on watched: ours',
      facts: {
        gear,
        hours: fact(run, 'count'),
        limit: fact(lifeHours, 'count'),
        over: run >= lifeHours,
      },
      say: words.hours,
    });
  }
}

function countFinding(inside: BoxInside, { out, over, early, closed }: Counted, d: Derivation): void {
  const name = (id: string): string => inside.places.find((place) => place.id === id)?.name ?? id;
  d.finding({
    id: 'box.counted',
    verdict: over.length > 0 || early.length > 0 ? 'stop' : closed ? 'fits' : 'not-yet',
    place: at('box-places', 'counted'),
    station: STATION,
    figures: [],
    rule: 'what is counted out is counted in, what waits for something goes in behind it; nothing loose or trapped (common practice)',
    facts: {
      closed,
      out: out.map(({ id, missing }) => `${missing} of ${name(id)}`).join(', '),
      over: over.map(({ id, by }) => `${by} too many of ${name(id)}`).join(', '),
      early: early.map(({ id, waitsFor }) => `${name(id)} before ${waitsFor.map(name).join(' and ')}`).join('; '),
    },
    say: words.counted,
  });
}

function synchroFindings(inside: BoxInside, judged: BoxState['judged'], readings: Readings, d: Derivation): void {
  const common = { station: STATION, figures: [] } as const;
  for (const pair of inside.pairs) {
    const gear = pairName(inside, pair);
    for (const part of SYNCHRO_PARTS) {
      const value = readings.get(synchroPart.key({ pair: pair.id, part }))?.value;
      if (value?.of !== 'choice' || (value.choice !== 'worn' && value.choice !== 'borrowed')) continue;
      d.finding({
        ...common,
        id: `box.synchro.${pair.id}.${part}`,
        verdict: value.choice === 'worn' ? 'stop' : 'watch',
        place: at(`synchro-${pair.id}-${part}`, 'synchro'),
        rule: 'ring, blocks, bands and clip of each gear are looked at; what comes from another box is said (common practice)',
        facts: { gear, part, state: value.choice },
        say: words.synchro,
      });
    }
    const felt = readings.get(synchroDrag.key({ pair: pair.id }))?.value;
    if (felt?.of === 'choice' && felt.choice !== 'firm')
      d.finding({
        ...common,
        id: `box.synchro.${pair.id}.drag`,
        verdict: felt.choice === 'none' ? 'stop' : 'watch',
        place: at(`synchro-${pair.id}-drag`, 'synchro'),
        rule: 'the ring turns with firm drag (common practice)',
        facts: { gear, drag: felt.choice },
        say: words.drag,
      });
  }
  const limit = inside.hubPlay && entryBase(inside.hubPlay);
  for (const { id, kind } of BOX_SHAFTS.flatMap((shaft) => inside.shafts[shaft].pieces)) {
    const read = kind === 'hub' ? readings.get(hubPlay.key({ hub: id })) : undefined;
    if (!read || limit === null) continue;
    const was = readingBase(read);
    d.finding({
      ...common,
      id: `box.hub-play.${id}`,
      verdict: was <= limit + 1e-9 ? 'fits' : 'stop',
      place: at(`hub-play-${id}`, 'synchro'),
      rule: 'play of the hub at the radius of its ring decides hub or shaft; its limit is the maker’s (common practice)',
      facts: {
        hub: hubName(inside, judged, id),
        play: fact(was, 'length', 'small'),
        limit: fact(limit, 'length', 'small'),
        fits: was <= limit + 1e-9,
      },
      say: words.play,
    });
  }
}
