import { originOf } from '../library/origins';
import {
  CONSTRUCTION_SIGNS,
  backlashRound,
  depthSign,
  entryBase,
  type Entry,
  type MeshConstruction,
  type MeshJob,
  type MeshTry,
} from '@hot-spline/core';
import type { AxleName, Side } from '../base/names';
import { readingBase, type InForce, type Reading, type Readings } from '../frame/readings';
import type { Construction } from '../library/schema';
import { isWeak, type SpecSheet } from '../library/sheet';
import type {
  Assembled,
  AssemblyState,
  BacklashRead,
  MeshAxle,
  PastSetup,
  Pattern,
  PatternRead,
  PatternRound,
} from './axle';
import { PATTERN_PLACES, middleOf, patternRound } from './pattern-round';
import { assembled, backlash, endFloat, pattern, patternAt, type Stage } from './readings';
import type { Setup, Trial } from './schema';
import { shiftTo } from './shifts';
import { stayedOf } from './stayed';

/** Backlash that counts of an assembly: the final one where there is one. */
export const backlashOf = ({ backlash }: AssemblyState): BacklashRead | null => backlash.final ?? backlash.trial;
export const patternOf = ({ pattern }: AssemblyState): PatternRead | null => pattern.final ?? pattern.trial;

const sum = (pieces: readonly Entry[]): number => pieces.reduce((total, piece) => total + entryBase(piece), 0);

/** Which flank carries forward power: convex where a left-hand pinion turns clockwise seen at its flange, or a right-hand one anticlockwise [exact]. */
export const loadedFlankOf = ({ pinionSpiral, pinionTurns }: Pick<Setup, 'pinionSpiral' | 'pinionTurns'>) =>
  (pinionSpiral === 'left') === (pinionTurns === 'clockwise') ? ('convex' as const) : ('concave' as const);

/** Whether a state is the one that runs: new or kept bearings and nut, everything closed, oiled. */
export function isFinal(state: Trial, gears: Setup['gears'], construction?: Construction): boolean {
  const bearing = (one: Trial['sideBearings']): boolean => one === 'new' || (gears === 'used' && one === 'used');
  return (
    bearing(state.pinionBearings) &&
    bearing(state.sideBearings) &&
    // A box shaft has no spacer between its bearings: its nut and plate make the preload.
    (construction === 'transaxle' || (state.spacer !== 'none' && (state.spacer === 'new' || gears === 'used'))) &&
    state.seal === 'in' &&
    (state.nut === 'new' || gears === 'used') &&
    state.caps === 'torqued' &&
    state.sidePreload === 'full' &&
    state.oil === 'oiled'
  );
}

/** Why a state can't be; null where it can. */
export const impossible = ({ caps, sidePreload }: Trial): string | null =>
  caps === 'off' && sidePreload !== 'none' ? 'Caps that are off hold no side preload.' : null;

/** A reading's state, for subjects that ask for one. */
export const trialOf = (reading: InForce): Trial => reading.state as unknown as Trial;

/** Where the ring stands: what is behind its back less what is on the tooth side, half of it each; or notches. */
function ringPlace(value: Assembled, setup: Setup, notchMm: number | null, byNotches: boolean): number {
  const back: Side = setup.ringSide;
  const tooth: Side = back === 'left' ? 'right' : 'left';
  if (byNotches) {
    const notches = (side: Side): number => (side === 'left' ? value.leftNotches : value.rightNotches);
    return ((notches(back) - notches(tooth)) / 2) * (notchMm ?? 0);
  }
  const acts = setup.sideShims === 'under-flange' ? -1 : 1;
  return (acts * (sum(value[back]) - sum(value[tooth]))) / 2;
}

/**
 * What the final bearing at the head adds to the pinion shim, of a pack that was tried with the set-up one, so that the pinion
 * stands where it stood [exact]; nothing where the difference or its sign is not known.
 */
export function headShimOf(
  state: Trial,
  { setup, shimMoves, bearingMoves }: Pick<MeshAxle, 'setup' | 'shimMoves' | 'bearingMoves'>,
): number {
  const taller = setup.depth.setUpTaller;
  if (state.pinionBearings !== 'set-up' || !taller || !shimMoves || !bearingMoves) return 0;
  return depthSign(shimMoves) * depthSign(bearingMoves) * entryBase(taller);
}

/** Readings of the same thing before, in the same state. */
const sameState = ({ state, earlier }: InForce): readonly Reading[] =>
  earlier.filter((one) => Object.entries(state).every(([key, value]) => one.state[key] === value));

const isClear = ({ drive, coast }: Pattern): boolean => [drive, coast].every(({ shape }) => shape === 'one');

function readBacklash(readings: Readings, key: string, band: MeshAxle['band']): BacklashRead | null {
  const reading = readings.get(key);
  if (reading?.value.of !== 'places') return null;
  const mm = reading.value.entries.map(entryBase);
  // Without a band there is nothing to judge: any band gives the same figures.
  const round = backlashRound(mm, band ?? [0, 1]);
  const repeats = sameState(reading).flatMap(({ value }) =>
    value.of === 'places' ? [value.entries.map(entryBase)] : [],
  );
  return { reading, state: trialOf(reading), mm, round, repeats };
}

function readPattern(readings: Readings, key: string): PatternRead | null {
  const reading = readings.get(key);
  if (reading?.value.of !== 'pattern') return null;
  const { value } = reading;
  const state = trialOf(reading);
  const repeats = sameState(reading).flatMap((one) => (one.value.of === 'pattern' ? [one.value] : []));
  return { reading, state, value, repeats, counts: isClear(value) && state.drag === 'braked' };
}

/** All four places of an assembly and stage; null where one is not read, or it was seen alike all round since. */
function readRound(
  readings: Readings,
  keys: { readonly axle: AxleName; readonly assembly: string; readonly stage: Stage },
): PatternRound | null {
  const round = patternRound(PATTERN_PLACES.map((place) => readPattern(readings, patternAt.key({ ...keys, place }))));
  const whole = readings.get(pattern.key(keys));
  return round && (!whole || middleOf(round).reading.seq > whole.seq) ? round : null;
}

/** The pattern that counts: of all round where that was read last, else the one that was seen. */
function countedPattern(
  readings: Readings,
  keys: { readonly axle: AxleName; readonly assembly: string; readonly stage: Stage },
): PatternRead | null {
  const round = readRound(readings, keys);
  return round ? middleOf(round) : readPattern(readings, pattern.key(keys));
}

const NUMBERS = Array.from({ length: 100 }, (_, i) => i);

/** Everything that is known of the set-up of one axle. */
export function meshAxle(
  axle: AxleName,
  {
    setup,
    sheet,
    construction,
    finalDrive,
  }: {
    readonly setup: Setup;
    readonly sheet: SpecSheet;
    readonly construction: MeshConstruction;
    readonly finalDrive: { readonly ring: number; readonly pinion: number };
  },
  readings: Readings,
  past: readonly PastSetup[] = [],
): MeshAxle {
  const signs = CONSTRUCTION_SIGNS[construction];
  const { backlash: bandTold, endFloat: floatTold, adjusterPitch, adjusterNotches } = sheet;
  const band = bandTold && ([entryBase(bandTold.value.low), entryBase(bandTold.value.high)] as const);
  const byNotches = signs.ringBy === 'adjusters';
  const notchMm =
    byNotches && adjusterPitch && adjusterNotches ? entryBase(adjusterPitch.value) / adjusterNotches.value : null;
  const read = NUMBERS.flatMap((number) => {
    const reading = readings.get(assembled.key({ axle, assembly: String(number) }));
    return reading?.value.of === 'assembly' ? [{ number, reading, value: reading.value }] : [];
  });
  const place = (value: Assembled): number => ringPlace(value, setup, notchMm, byNotches);
  const first = read.find(({ number }) => number > 0) ?? read[0];
  const from = first ? place(first.value) : 0;
  const assemblies = read.map(({ number, reading, value }): AssemblyState => {
    const of = { axle, assembly: String(number) };
    const both = <T>(one: (stage: Stage) => T) => ({ trial: one('trial'), final: one('final') });
    return {
      number,
      reading,
      value,
      pinionMm: sum(value.pinion),
      leftMm: sum(value.left),
      rightMm: sum(value.right),
      ringMm: place(value) - from,
      backlash: both((stage) => readBacklash(readings, backlash.key({ ...of, stage }), band)),
      pattern: both((stage) => countedPattern(readings, { ...of, stage })),
      patternRound: both((stage) => readRound(readings, { ...of, stage })),
      endFloatMm: both((stage) => {
        const read = readings.get(endFloat.key({ ...of, stage }));
        return read ? readingBase(read) : null;
      }),
    };
  });
  const before = { axle, assembly: '0' } as const;
  const asCame = <T>(one: (stage: Stage) => T | null): T | null => one('trial') ?? one('final');
  const known: Known = {
    came: {
      backlash: asCame((stage) => readBacklash(readings, backlash.key({ ...before, stage }), band)),
      pattern: asCame((stage) => countedPattern(readings, { ...before, stage })),
    },
    axle,
    setup,
    sheet,
    construction,
    ring: finalDrive.ring,
    pinion: finalDrive.pinion,
    shimMoves: setup.shimMoves ?? signs.addingShimMovesPinion,
    bearingMoves: setup.bearingMoves ?? signs.tallerBearingMovesPinion,
    ringBy: signs.ringBy,
    loadedFlank: loadedFlankOf(setup),
    band,
    floatBand: floatTold && [entryBase(floatTold.value.low), entryBase(floatTold.value.high)],
    bandWeak: bandTold !== null && isWeak(originOf(bandTold)),
    notchMm,
    assemblies,
    now: assemblies.at(-1) ?? null,
    final: isFinal(setup.state, setup.gears, construction),
    stayed: stayedOf(axle, readings),
    past,
  };
  const closing = shiftTo(setup.state, known);
  return { ...known, closing, ...jobOf(known) };
}

/** So many tries at most are weighed, the newest. */
const MOST_TRIES = 40;

type Known = Omit<MeshAxle, 'job' | 'tries' | 'closing' | 'headShimMm'>;

/** The tries that the advisor learns from: every assembly with a backlash read under side preload. */
function jobOf(mesh: Known): Pick<MeshAxle, 'job' | 'tries' | 'headShimMm'> {
  const { construction, band, setup, shimMoves } = mesh;
  const nothing = { job: null, tries: [], headShimMm: 0 };
  if (construction === 'electric-reduction' || !band || band[1] <= band[0] || !shimMoves) return nothing;
  const read = mesh.assemblies.flatMap((one) => {
    // As it came counts where the same gears go back.
    if (one.number === 0 && setup.gears === 'new') return [];
    const best = one.backlash.final ?? one.backlash.trial;
    return best && best.state.sidePreload !== 'none' ? [{ one, best }] : [];
  });
  const last = read.at(-1);
  if (!last) return nothing;
  const here = shiftTo(last.best.state, mesh);
  const head = headShimOf(last.best.state, mesh);
  const tried = read.flatMap(({ one, best }): { number: number; made: MeshTry }[] => {
    // All are told as they would read in the state of the last one.
    const off = here.mm - shiftTo(best.state, mesh).mm;
    const seen = one.pattern.final ?? one.pattern.trial;
    const pinionShimMm = one.pinionMm + headShimOf(best.state, mesh) - head;
    // With the bearing of now that depth can't be had: it says nothing of shims.
    if (pinionShimMm < 0) return [];
    const at = { pinionShimMm, ringShiftMm: one.ringMm };
    const told = (mm: readonly number[]): readonly number[] => mm.map((place) => Math.max(0, place + off));
    const flank = ({ u, v }: Pattern['drive']) => ({ u, v });
    const patches = (value: Pattern | undefined) => ({
      drive: value ? flank(value.drive) : null,
      coast: value ? flank(value.coast) : null,
    });
    const before = seen?.counts ? seen.repeats.filter(isClear) : [];
    // What was read more than once counts each time, oldest first.
    const again = Array.from({ length: Math.max(best.repeats.length, before.length) }, (_, i) => ({
      ...at,
      backlashMm: told(best.repeats[i] ?? []),
      ...patches(before[i]),
    })).reverse();
    const last = { ...at, backlashMm: told(best.mm), ...patches(seen?.counts ? seen.value : undefined) };
    return [...again, last].map((made) => ({ number: one.number, made }));
  });
  const counted = tried.slice(-MOST_TRIES);
  const tries = counted.map(({ made }) => made);
  const aim = setup.backlashAim === 'one-high' ? 0.0254 : 0;
  // Shims come by the thou or by a fortieth of a mm, as this axle's pieces are measured.
  const pieces = mesh.assemblies.flatMap(({ value }) => [...value.pinion, ...value.left, ...value.right]);
  const step = pieces.some(({ unit }) => unit === 'thou' || unit === 'in') ? 0.0254 : 0.025;
  const job: MeshJob = {
    construction,
    ringTeeth: mesh.ring,
    pinionTeeth: mesh.pinion,
    specBacklashMm: band,
    tries,
    addingShimMovesPinion: shimMoves,
    loadedFlank: mesh.loadedFlank,
    closingUpMm: here.learned ? here.mm : Math.max(here.mm, here.mm > 0 ? aim : 0),
    closingUpSigmaMm: here.sigmaMm,
    steps: { pinionMm: step, ringMm: mesh.notchMm ?? step },
  };
  return { job, tries: counted.map(({ number }) => number), headShimMm: head - headShimOf(setup.state, mesh) };
}
