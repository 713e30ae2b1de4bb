import { entryBase, type Asked } from '@hot-spline/core';
import type { InForce } from '../frame/readings';
import type { BacklashRead, MeshAxle, PatternRead } from '../mesh/axle';
import { allRound, patternFits } from '../mesh/derive';
import type { Stage } from '../mesh/readings';
import { shiftTo } from '../mesh/shifts';
import { backlashOf, isFinal, patternOf } from '../mesh/state';
import { preloadVerdict } from '../preload/derive';
import type { PreloadAxle } from '../preload/state';

/** One thing that a gate needs. */
export interface GateNeed {
  readonly need: string;
  readonly met: boolean;
  /** What was read, or what is missing. */
  readonly says: string;
}

/** What other sheets know of what a gate asks. */
export interface GateEvidence {
  /** Every round of the ring bolts is whole. */
  readonly ringBolts: boolean;
  /** The drag of the pinion that stays, carrier out; null: not read. */
  readonly dragNm: number | null;
  /** How the locker held its pressure; null: not tested. */
  readonly leak: 'holds' | 'loses' | null;
  /** The float of the box’s input was read again with its shim in. */
  readonly floatRead: boolean;
}
export const NOTHING: GateEvidence = { ringBolts: false, dragNm: null, leak: null, floatRead: false };

const inBand = ({ mm }: BacklashRead, [low, high]: readonly [number, number]): boolean =>
  mm.every((one) => one >= low - 1e-9 && one <= high + 1e-9);

/** How far backlash and the middle of a contact (of half a tooth) may lie from what the same gears read before: guards of ours. */
export const REPEATS_MM = 0.05;
const REPEATS_CONTACT = 0.25;

/** Backlash and pattern of reused gears against those of before; where nothing was read before, the sheet's band and the pattern. */
function repeats(mesh: MeshAxle, read: BacklashRead | null, seen: PatternRead | null): GateNeed {
  // A reading that stands for both says nothing of how far it repeats itself.
  const before = mesh.came.backlash?.reading.id === read?.reading.id ? null : mesh.came.backlash;
  const need = 'Backlash and pattern as before';
  if (!read || !seen) return { need, met: false, says: !read ? 'backlash not read in the final state' : 'not painted' };
  if (!before)
    return {
      need,
      met: mesh.band !== null && inBand(read, mesh.band) && patternFits(seen, mesh.loadedFlank),
      says: 'nothing was read before: the sheet’s band and the pattern decide',
    };
  const apart = Math.abs(read.round.meanMm - before.round.meanMm);
  const painted = mesh.came.pattern?.reading.id === seen.reading.id ? null : mesh.came.pattern;
  // A contact that nobody painted before is judged as it is.
  const stayed = painted
    ? (['drive', 'coast'] as const).every((flank) =>
        (['u', 'v'] as const).every(
          (way) => Math.abs(seen.value[flank][way] - painted.value[flank][way]) <= REPEATS_CONTACT + 1e-9,
        ),
      )
    : patternFits(seen, mesh.loadedFlank);
  const contact = painted ? (stayed ? 'contact as before' : 'the contact has moved') : 'contact not painted before';
  return {
    need,
    met: apart <= REPEATS_MM + 1e-9 && stayed,
    says: `backlash ${apart.toFixed(2)} mm from before, ${REPEATS_MM} at most (ours); ${contact}`,
  };
}

/** The later of a stage's two readings where both are right together; null where one is not. */
export function settled(mesh: MeshAxle, stage: Stage, asBefore: boolean): InForce | null {
  const read = mesh.now?.backlash[stage] ?? null;
  const seen = mesh.now?.pattern[stage] ?? null;
  if (!read || !seen || !mesh.band) return null;
  // Closed for good there is nothing left to close up.
  const up = stage === 'final' ? 0 : shiftTo(read.state, mesh).mm;
  const good = asBefore
    ? repeats(mesh, read, seen).met
    : allRound(read) && inBand(read, [mesh.band[0] + up, mesh.band[1] + up]) && patternFits(seen, mesh.loadedFlank);
  return good ? (seen.reading.seq > read.reading.seq ? seen.reading : read.reading) : null;
}

/** The drag of a pinion that stays against the band of bearings that have run, where its sheet has one. */
function dragNeed(nm: number | null, { sheet }: MeshAxle): Pick<GateNeed, 'met' | 'says'> {
  if (nm === null) return { met: false, says: 'not read' };
  const band = sheet.pinionTorqueUsed?.value;
  if (!band) return { met: true, says: 'read; nobody has said a band for bearings that have run' };
  const met = nm >= entryBase(band.low) - 1e-9 && nm <= entryBase(band.high) + 1e-9;
  return { met, says: met ? 'in band' : 'out of its band' };
}

function totalNeed(nm: number, { value: { low, high } }: NonNullable<MeshAxle['sheet']['totalTorque']>): GateNeed {
  const over = nm > entryBase(high) + 1e-9;
  const met = !over && nm >= entryBase(low) - 1e-9;
  return {
    need: 'Total turning torque in band',
    met,
    says: met ? 'in band' : over ? 'over its band' : 'below its band',
  };
}

/** What is known of an axle when a gate is looked at. */
interface Known {
  readonly mesh: MeshAxle;
  readonly preload: PreloadAxle;
  readonly evidence: GateEvidence;
}
interface Asks {
  readonly A: readonly Asked[];
  readonly B: readonly Asked[];
}

const WEAK = 'out of memory, borrowed or guessed';
const fromSheet = (need: string, said: boolean, weak: boolean): GateNeed => ({
  need,
  met: said && !weak,
  says: !said ? 'nobody has said one' : weak ? WEAK : 'confirmed',
});

/** The axle is together as a trial has to be. */
function together({ now }: MeshAxle, read: BacklashRead | null): GateNeed {
  const need = 'Put together, caps torqued, read under side preload';
  if (!now) return { need, met: false, says: 'not put together yet' };
  if (!read) return { need, met: false, says: 'backlash not read' };
  const { sidePreload, caps } = read.state;
  // How it came is no trial, whatever gears go back.
  return {
    need,
    met: now.number > 0 && sidePreload !== 'none' && caps === 'torqued',
    says: `caps ${caps}, side preload ${sidePreload}`,
  };
}

/** What Gate A needs: trial readings, less what closing up will take. */
export function needsOfA({ mesh, preload }: Known, asks: Asks): readonly GateNeed[] {
  const { now, band, bandWeak, setup, loadedFlank } = mesh;
  const read = now && backlashOf(now);
  const seen = now && patternOf(now);
  // A reading is judged in the state that it was taken in, whatever the axle is in since.
  const up = read ? shiftTo(read.state, mesh).mm : 0;
  const asked = (what: Asked, need: GateNeed): GateNeed[] => (asks.A.includes(what) ? [need] : []);
  const { headReading } = setup.depth;
  return [
    fromSheet('Backlash band from a sheet', band !== null, bandWeak),
    ...(asks.B.includes('pinion-preload')
      ? [fromSheet('Turning-torque band from a sheet', preload.band !== null, preload.band?.weak ?? false)]
      : []),
    together(mesh, read),
    {
      need: 'Backlash in band all round, closing up counted',
      met: read !== null && band !== null && allRound(read) && inBand(read, [band[0] + up, band[1] + up]),
      says: read ? `${read.mm.length} places` : 'not read',
    },
    ...asked('pattern', {
      need: 'Pattern right on both flanks, under the brake',
      met: seen !== null && patternFits(seen, loadedFlank),
      says: !seen ? 'not painted' : seen.counts ? 'read' : 'faint, unclear or under light drag',
    }),
    ...asked('depth', {
      need: 'Depth measured',
      met: headReading !== null,
      says: headReading === null ? 'not measured' : 'by gauge; the pattern is asked at Gate B',
    }),
  ];
}

/** Why the preload of the pinion does not sign; null where it does. */
function preloadLacks(mesh: MeshAxle, preload: PreloadAxle): string | null {
  const { last, sealUnknown } = preload;
  const verdict = preloadVerdict(mesh, preload);
  if (!last) return 'not read';
  if (last.state.pinionBearings !== 'new' && mesh.setup.gears !== 'used') return 'read on set-up bearings';
  if (sealUnknown) return 'seal drag is in it';
  if (mesh.setup.gauges.turning === null) return 'nobody has said what the wrench is good to';
  if (verdict === null) return 'no band';
  return verdict === 'in-band' ? null : verdict.replace('-', ' ');
}

type NeedOf = (known: Known, read: BacklashRead | null, seen: PatternRead | null) => GateNeed;

/** What each thing that Gate B can ask needs; of what Gate A asks alone there is none here. */
const NEEDS: Readonly<Record<Exclude<Asked, 'depth'>, NeedOf>> = {
  'pinion-preload': ({ mesh, preload }) => {
    const lacks = preloadLacks(mesh, preload);
    return { need: 'Pinion preload in band on the bearings that run', met: lacks === null, says: lacks ?? 'in band' };
  },
  'drag-compared': ({ mesh, evidence }) => ({
    need: 'Drag of the pinion that stays, carrier out',
    ...dragNeed(evidence.dragNm, mesh),
  }),
  'repeats-before': ({ mesh }, read, seen) => repeats(mesh, read, seen),
  backlash: ({ mesh: { band } }, read) => ({
    need: 'Final backlash in band all round',
    met: read !== null && band !== null && allRound(read) && inBand(read, band),
    says: read ? `${read.mm.length} places` : 'not read in the final state',
  }),
  pattern: ({ mesh }, _, seen) => ({
    need: 'Final pattern right on both flanks',
    met: seen !== null && patternFits(seen, mesh.loadedFlank),
    says: seen ? 'read' : 'not painted in the final state',
  }),
  'side-preload': ({ preload }, read) => {
    const out = preload.side.some(({ verdict }) => verdict === 'stop');
    return {
      need: 'Side preload for good',
      met: read?.state.sidePreload === 'full' && !out,
      says: !read
        ? 'not read in the final state'
        : out
          ? 'out of the band of its method'
          : `side preload ${read.state.sidePreload}`,
    };
  },
  'ring-bolts': ({ evidence: { ringBolts } }) => ({
    need: 'Ring bolts: every round ticked',
    met: ringBolts,
    says: ringBolts ? 'every round' : 'not all on Ring joint',
  }),
  float: ({ evidence: { floatRead } }) => ({
    need: 'Float of the box’s input, read again',
    met: floatRead,
    says: floatRead ? 'read' : 'not read',
  }),
  leak: ({ evidence: { leak } }) => ({
    need: 'Locker held under pressure',
    met: leak === 'holds',
    says: leak ?? 'not tested',
  }),
};
/** In this order they are read at the axle. */
const ORDER = [
  ...['pinion-preload', 'drag-compared', 'repeats-before', 'backlash', 'pattern', 'side-preload'],
  ...['ring-bolts', 'float', 'leak'],
] as readonly Exclude<Asked, 'depth'>[];

/** What Gate B needs: the final state, of what the job disturbed. */
export function needsOfB(known: Known, asks: Asks): readonly GateNeed[] {
  const { mesh, preload } = known;
  // What is called final signs only if its state says so too.
  const closed = <R extends BacklashRead | PatternRead>(one: R | null | undefined): R | null =>
    one && isFinal(one.state, mesh.setup.gears, mesh.construction) ? one : null;
  const [read, seen] = [closed(mesh.now?.backlash.final), closed(mesh.now?.pattern.final)];
  const asked = new Set(asks.B);
  // How far it repeats what it read before takes the band's place.
  if (asked.has('repeats-before')) asked.delete('backlash');
  const needs = ORDER.flatMap((what) => (asked.has(what) ? [NEEDS[what](known, read, seen)] : []));
  // Not every job reads it; where it was read it has to be what the sheet says.
  const total =
    preload.totalNm !== null && mesh.sheet.totalTorque !== null
      ? [totalNeed(preload.totalNm, mesh.sheet.totalTorque)]
      : [];
  return [...needs, ...total];
}
