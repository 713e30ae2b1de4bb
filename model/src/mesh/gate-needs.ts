import type { GateContext, GateNeed } from '../frame/work';
import type { InForce } from '../frame/readings';
import { originOf } from '../library/origins';
import { isWeak } from '../library/sheet';
import type { BacklashRead, MeshAxle, PatternRead } from './axle';
import { IN_BETWEEN } from '../library/schools';
import { allRound, patternFits } from './derive';
import type { Stage } from './readings';
import { shiftTo } from './shifts';
import { backlashOf, isFinal, patternOf } from './state';

const inBand = ({ mm }: BacklashRead, [low, high]: readonly [number, number]): boolean =>
  mm.every((one) => one >= low - 1e-9 && one <= high + 1e-9);

/** How far backlash and the middle of a contact (of half a tooth) may lie from what the same gears read before: guards of ours. */
export const REPEATS_MM = 0.05;
const REPEATS_CONTACT = 0.25;

/** A look in between: it moves shims, and signs nothing. */
const IN_GREASE = 'a look in grease: the sign-off wants paste';
const inBetween = ({ reading }: PatternRead): boolean => reading.instrument === IN_BETWEEN;

/** Backlash and pattern of reused gears against those of before; where nothing was read before, the sheet's band and the pattern. */
function repeats(mesh: MeshAxle, read: BacklashRead | null, seen: PatternRead | null): Omit<GateNeed, 'of'> {
  // A reading that stands for both says nothing of how far it repeats itself.
  const before = mesh.came.backlash?.reading.id === read?.reading.id ? null : mesh.came.backlash;
  const need = 'Backlash and pattern as before';
  if (!read || !seen) return { need, met: false, says: !read ? 'backlash not read in the final state' : 'not painted' };
  if (inBetween(seen)) return { need, met: false, says: IN_GREASE };
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

const WEAK = 'out of memory, borrowed or guessed';
/** A band that has to come from a sheet. */
export const fromSheet = (need: string, said: boolean, weak: boolean): GateNeed => ({
  of: 'sheet',
  need,
  met: said && !weak,
  says: !said ? 'nobody has said one' : weak ? WEAK : 'confirmed',
});

/** The axle is together as a trial has to be. */
function together({ now }: MeshAxle, read: BacklashRead | null): GateNeed {
  const need = 'Put together, caps torqued, read under side preload';
  if (!now) return { of: 'together', need, met: false, says: 'not put together yet' };
  if (!read) return { of: 'together', need, met: false, says: 'backlash not read' };
  const { sidePreload, caps } = read.state;
  // How it came is no trial, whatever gears go back.
  return {
    of: 'together',
    need,
    met: now.number > 0 && sidePreload !== 'none' && caps === 'torqued',
    says: `caps ${caps}, side preload ${sidePreload}`,
  };
}

/** What Gate A needs: trial readings, less what closing up will take. */
export function meshNeedsOfA(mesh: MeshAxle, { asks }: GateContext): readonly GateNeed[] {
  const { now, band, bandWeak, setup, loadedFlank } = mesh;
  const read = now && backlashOf(now);
  const seen = now && patternOf(now);
  // A reading is judged in the state that it was taken in, whatever the axle is in since.
  const up = read ? shiftTo(read.state, mesh).mm : 0;
  const asked = (need: GateNeed): GateNeed[] => ((asks.A as readonly string[]).includes(need.of) ? [need] : []);
  const { headReading } = setup.depth;
  return [
    fromSheet('Backlash band from a sheet', band !== null, bandWeak),
    together(mesh, read),
    {
      of: 'backlash',
      need: 'Backlash in band all round, closing up counted',
      met: read !== null && band !== null && allRound(read) && inBand(read, [band[0] + up, band[1] + up]),
      says: read ? `${read.mm.length} places` : 'not read',
    },
    ...asked({
      of: 'pattern',
      need: 'Pattern right on both flanks, under the brake',
      met: seen !== null && patternFits(seen, loadedFlank),
      says: !seen ? 'not painted' : seen.counts ? 'read' : 'faint, unclear or under light drag',
    }),
    ...asked({
      of: 'depth',
      need: 'Depth measured',
      met: headReading !== null,
      says: headReading === null ? 'not measured' : 'by gauge; the pattern is asked at Gate B',
    }),
  ];
}

/** What is called final signs only if its state says so too. */
const closed = <R extends BacklashRead | PatternRead>(mesh: MeshAxle, one: R | null | undefined): R | null =>
  one && isFinal(one.state, mesh.setup.gears, mesh.construction) ? one : null;
/** Backlash read in the final state; null where it was not. */
export const finalBacklash = (mesh: MeshAxle): BacklashRead | null => closed(mesh, mesh.now?.backlash.final);

/** What Gate B needs: the final state, of what the job disturbed. */
export function meshNeedsOfB(mesh: MeshAxle, { asks }: GateContext): readonly GateNeed[] {
  const { band } = mesh;
  const [read, seen] = [finalBacklash(mesh), closed(mesh, mesh.now?.pattern.final)];
  const asked = new Set<string>(asks.B);
  // How far it repeats what it read before takes the band's place.
  if (asked.has('repeats-before')) asked.delete('backlash');
  const needs: readonly GateNeed[] = [
    { of: 'repeats-before', ...repeats(mesh, read, seen) },
    {
      of: 'backlash',
      need: 'Final backlash in band all round',
      met: read !== null && band !== null && allRound(read) && inBand(read, band),
      says: read ? `${read.mm.length} places` : 'not read in the final state',
    },
    {
      of: 'pattern',
      need: 'Final pattern right on both flanks',
      met: seen !== null && !inBetween(seen) && patternFits(seen, mesh.loadedFlank),
      says: !seen ? 'not painted in the final state' : inBetween(seen) ? IN_GREASE : 'read',
    },
  ];
  return needs.filter(({ of }) => asked.has(of));
}

/** What the gates of a unit need whose one shim sets end float. */
export function floatNeeds({ now, floatBand: band, sheet }: MeshAxle): {
  readonly A: readonly GateNeed[];
  readonly B: readonly GateNeed[];
} {
  const weak = sheet.endFloat !== null && isWeak(originOf(sheet.endFloat));
  const { trial = null, final = null } = now?.endFloatMm ?? {};
  const float = (need: string, mm: number | null): GateNeed => ({
    of: 'float',
    need,
    met: mm !== null && band !== null && mm >= band[0] - 1e-9 && mm <= band[1] + 1e-9,
    says: mm === null ? 'not read' : 'read',
  });
  return {
    A: [
      fromSheet('End-float band from a sheet', band !== null, weak),
      {
        of: 'together',
        need: 'Put together with a measured shim',
        met: now !== null && now.number > 0 && now.leftMm > 0,
        says: !now || now.number === 0 ? 'not put together yet' : `assembly ${now.number}`,
      },
      float('End float in band while tried', trial),
    ],
    B: [float('End float in band with the case bolted up', final)],
  };
}
