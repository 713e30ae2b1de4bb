import {
  BOX_SHAFTS,
  InputError,
  checkDrum,
  countedBack,
  dogsMeet,
  entryBase,
  floatChangeMm,
  floatShim,
  forwardPairs,
  type BoxJudged,
  type BoxShaft,
  type Counted,
  type DrumCheck,
  type GearThrust,
  type StackedBox,
} from '@hot-spline/core';
import { CASE_ALLOYS, SHAFT_EXPANSION, type BoxInside, type BoxPairSpec, type BoxShaftSpec } from '../library/box';
import { readingBase, type InForce, type Readings } from '../frame/readings';
import { boxApproved, boxFloat, boxHours, boxNew, boxShim, placeCount } from './readings';

/** Repeats of a float that lie farther apart do not count: ours; one reading alone does not either. */
export const REPEATS_MM = 0.02;

/** A box as the law of stacking takes it. Where a float was neither read nor said, none is counted. */
export function stackedBox(inside: BoxInside, floats: Readonly<Record<BoxShaft, number>>): StackedBox {
  const stack = (shaft: BoxShaft) => {
    const { from, length, closed, pieces, before } = inside.shafts[shaft];
    return {
      fromMm: entryBase(from),
      lengthMm: entryBase(length),
      closed,
      before: before && { lengthMm: entryBase(before.length), closed: before.closed },
      floatMm: floats[shaft],
      pieces: pieces.map(({ id, kind, width, pair, loose, sleeve, dogs, ring }) => ({
        id,
        kind,
        widthMm: entryBase(width),
        pair,
        loose,
        sleeveMm: sleeve && entryBase(sleeve),
        dogMm: dogs ? entryBase(dogs) : 0,
        ringMm: ring && entryBase(ring),
      })),
    };
  };
  return {
    centreMm: entryBase(inside.centre),
    normalModuleMm: entryBase(inside.module),
    helixDeg: entryBase(inside.helix),
    pressureAngleDeg: entryBase(inside.pressureAngle),
    overlapShare: entryBase(inside.overlap) / 100,
    dogGapMm: inside.dogGap && entryBase(inside.dogGap),
    shafts: { driving: stack('driving'), driven: stack('driven') },
    pairs: inside.pairs,
  };
}

/** Pieces that are one with their shaft; its collar is. */
export const cutPieces = ({ shafts }: BoxInside): readonly string[] =>
  BOX_SHAFTS.flatMap((shaft) =>
    shafts[shaft].pieces.filter(({ cut, kind }) => cut || kind === 'collar').map(({ id }) => id),
  );

/** Gears of a box that drive forwards, in their order. */
export const gearPairs = ({ pairs }: BoxInside): readonly BoxPairSpec[] => forwardPairs(pairs);

/** One shim that was tried, and the float that was read with it. */
export interface FloatTry {
  readonly attempt: number;
  readonly shimMm: number | null;
  readonly reading: InForce | null;
  readonly floatMm: number | null;
  /** From the least to the most of its repeats. */
  readonly spreadMm: number;
  /** At least two repeats, and they agree: only then it counts. */
  readonly counts: boolean;
}

export interface FloatJob {
  readonly tries: readonly FloatTry[];
  /** The last try that counts; null where none does. */
  readonly now: FloatTry | null;
  readonly wantedMm: number | null;
  readonly inBand: boolean | null;
  /** For the middle of the band; null where something is missing, or no shim can. */
  readonly nextShimMm: number | null;
  /** What heat adds to it; null where something of it is not said. */
  readonly heatMm: number | null;
  readonly approved: InForce | null;
  readonly number: number;
}

export function floatJob(
  shaft: BoxShaft,
  spec: BoxShaftSpec,
  inside: Pick<BoxInside, 'alloy' | 'caseRise' | 'shaftRise'>,
  readings: Readings,
): FloatJob {
  const tries = new Map<number, FloatTry>();
  for (const reading of readings.values()) {
    const shim = boxShim.read(reading.subject);
    const float = boxFloat.read(reading.subject);
    const of = shim ?? float;
    if (of?.shaft !== shaft) continue;
    const attempt = Number(of.attempt);
    const before = tries.get(attempt) ?? {
      attempt,
      shimMm: null,
      reading: null,
      floatMm: null,
      spreadMm: 0,
      counts: false,
    };
    if (shim) tries.set(attempt, { ...before, shimMm: readingBase(reading) });
    else if (reading.value.of === 'number') {
      const all = reading.value.entries.map((entry) => entryBase(entry));
      const spreadMm = Math.max(...all) - Math.min(...all);
      tries.set(attempt, {
        ...before,
        reading,
        floatMm: readingBase(reading),
        spreadMm,
        counts: all.length > 1 && spreadMm <= REPEATS_MM + 1e-9,
      });
    }
  }
  const ordered = [...tries.values()].sort((a, b) => a.attempt - b.attempt);
  const last = ordered.at(-1);
  const now = last?.counts ? last : null;
  const band = spec.float && ([entryBase(spec.float.low), entryBase(spec.float.high)] as const);
  const wantedMm = band && (band[0] + band[1]) / 2;
  const said = last && readings.get(boxApproved.key({ shaft, attempt: String(last.attempt) }));
  return {
    tries: ordered,
    now,
    wantedMm,
    inBand: now && band ? (now.floatMm ?? 0) >= band[0] - 1e-9 && (now.floatMm ?? 0) <= band[1] + 1e-9 : null,
    nextShimMm: nextShim(now, wantedMm),
    heatMm: heatOf(spec, inside),
    // What was approved was what was read then: a later reading, or another shim, is not.
    approved: said && said.seq > (last.reading?.seq ?? Infinity) && now ? said : null,
    number: last?.attempt ?? 0,
  };
}

function nextShim(now: FloatTry | null, wantedMm: number | null): number | null {
  if (!now || now.shimMm === null || now.floatMm === null || wantedMm === null) return null;
  try {
    return floatShim({ shimMm: now.shimMm, measuredMm: now.floatMm, wantedMm });
  } catch (error) {
    // No shim is that thin: what is said of the band stays.
    if (!(error instanceof InputError)) throw error;
    return null;
  }
}

function heatOf(
  { between, arrangement }: BoxShaftSpec,
  { alloy, caseRise, shaftRise }: Pick<BoxInside, 'alloy' | 'caseRise' | 'shaftRise'>,
): number | null {
  if (arrangement === null || between === null || alloy === null || caseRise === null || shaftRise === null)
    return null;
  return floatChangeMm({
    lengthMm: entryBase(between),
    caseRiseK: caseRise,
    shaftRiseK: shaftRise,
    caseExpansion: CASE_ALLOYS[alloy].expansion,
    shaftExpansion: SHAFT_EXPANSION,
    arrangement,
  });
}

/** How a drum stands, with what its thresholds follow from. */
export interface DrumState {
  readonly check: DrumCheck;
  readonly touchMm: number;
  readonly inMm: number;
  /** The gear of each hub on either side of its travel. */
  readonly sides: readonly { readonly hub: string; readonly plus: string | null; readonly minus: string | null }[];
  /** At each detent the gear that is in; null: none, or more than one. */
  readonly gears: readonly { readonly atDeg: number; readonly pair: string | null }[];
}

/**
 * The drum against the dogs as they are stacked: they touch from the least gap of all less the slop, a gear is in from the largest gap
 * and the depth of its dogs on.
 * @throws InputError naming the field; on `drum.touchMm` where no gap is left
 */
export function drumState(inside: BoxInside, { gaps }: BoxJudged): DrumState | null {
  const { drum } = inside;
  if (!drum) return null;
  const hubs = new Set(drum.tracks.map(({ hub }) => hub));
  const own = gaps.filter(({ hub }) => hubs.has(hub));
  if (own.length === 0)
    throw new InputError(
      'drum.tracks',
      'The dogs are not measured: a drum is judged by the gap that they leave.',
      'ring and dogs of each hub',
    );
  const least = Math.min(...own.map(({ gapMm }) => gapMm));
  const touchMm = least - entryBase(drum.slop);
  if (touchMm <= 0)
    throw new InputError(
      'drum.slop',
      'The slop takes all of the gap: dogs touch in neutral.',
      'less than the least gap',
    );
  const inMm = Math.max(...own.map(({ gapMm }) => gapMm)) + entryBase(drum.depth);
  const check = checkDrum({
    tracks: drum.tracks.map(({ hub, points }) => ({ name: hub, points })),
    touchMm,
    radiusMm: entryBase(drum.radius),
    inMm,
    detentsDeg: drum.detents,
    ...(drum.period === null ? {} : { period: drum.period }),
  });
  const gear = (hub: string, side: '+' | '-'): string | null =>
    own.find((one) => one.hub === hub && one.side === side)?.pair ?? null;
  return {
    check,
    touchMm,
    inMm,
    sides: drum.tracks.map(({ hub }) => ({ hub, plus: gear(hub, '+'), minus: gear(hub, '-') })),
    gears: (check.gears ?? []).map(({ atDeg, track, side }) => ({
      atDeg,
      pair: track !== null && side !== null ? gear(track, side) : null,
    })),
  };
}

/** Hours that each pair, and each piece beside them that wears, has run since it went in new, or in all; by the order of the ledger. */
export function hoursOf(inside: BoxInside, readings: Readings): ReadonlyMap<string, number> {
  const runs = runsOf(readings);
  return new Map(
    [...inside.pairs, ...inside.wearing].map(({ id, fromRun }) => {
      const since = readings.get(boxNew.key({ pair: id }))?.seq ?? -1;
      const seconds = runs
        .filter(({ seq, run }) => seq > since && run > fromRun)
        .reduce((sum, one) => sum + one.seconds, 0);
      return [id, seconds / 3600];
    }),
  );
}

/** Every time out that was logged, the first one first. */
export const runsOf = (readings: Readings) =>
  [...readings.values()]
    .flatMap((reading) => {
      const of = boxHours.read(reading.subject);
      return of ? [{ id: reading.id, run: Number(of.run), seq: reading.seq, seconds: readingBase(reading) }] : [];
    })
    .sort((a, b) => a.run - b.run);
/** Number of the last run that was logged; 0 where none was. */
export const lastRunOf = (readings: Readings): number => runsOf(readings).at(-1)?.run ?? 0;

/** What was counted in the round in hand, place by place; null where no place is described. */
export function countOf(inside: BoxInside, round: number, readings: Readings): Counted | null {
  if (inside.places.length === 0) return null;
  const of = (way: 'out' | 'in') =>
    new Map(
      inside.places.flatMap(({ id }) => {
        const read = readings.get(placeCount.key({ round: String(round), place: id, way }));
        return read ? [[id, readingBase(read)] as const] : [];
      }),
    );
  return countedBack(inside.places, of('out'), of('in'));
}

export interface BoxState {
  readonly stacked: StackedBox;
  readonly judged: BoxJudged;
  readonly drum: DrumState | null;
  readonly dogs: { readonly chance: number; readonly playDeg: number; readonly turnDeg: number } | null;
  readonly floats: Readonly<Record<BoxShaft, FloatJob>>;
  readonly thrusts: readonly GearThrust[];
  readonly hours: ReadonlyMap<string, number>;
  readonly counted: Counted | null;
}

export function dogsOf({ dogs }: BoxInside): BoxState['dogs'] {
  if (!dogs?.ring || !dogs.gear) return null;
  const { chanceFaceToFace, playDeg, turnAtMostDeg } = dogsMeet({
    count: dogs.count,
    widthsDeg: [entryBase(dogs.ring), entryBase(dogs.gear)],
  });
  return { chance: chanceFaceToFace, playDeg, turnDeg: turnAtMostDeg };
}
