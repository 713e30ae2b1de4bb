import { depthChain, depthFromBore, depthShim, depthSign, entryBase, InputError, type Entry } from '@hot-spline/core';
import type { MeshAxle } from './axle';

/** One school's pinion shim; null what it lacks, or why it can't be worked out. */
export interface DepthSchool {
  readonly school: 'came-out' | 'marks' | 'chain' | 'measured' | 'chart' | 'experience';
  readonly label: string;
  readonly shimMm: number | null;
  /** Why there is none, or what it is worth. */
  readonly says: string;
}

const base = (entry: Entry | null): number | null => entry && entryBase(entry);

/** Runs one school; a refusal is its answer. */
function school(
  of: Pick<DepthSchool, 'school' | 'label'>,
  run: () => { mm: number | null; says: string },
): DepthSchool {
  try {
    const { mm, says } = run();
    return { ...of, shimMm: mm, says };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return { ...of, shimMm: null, says: error.message };
  }
}

/** Pinion shim that came out: the pack of the axle as it came, the baffle not counted. */
export const shimOut = ({ assemblies }: Pick<MeshAxle, 'assemblies'>): number | null =>
  assemblies.find(({ number, value }) => number === 0 && value.pinion.length > 0)?.pinionMm ?? null;

/** Every school's shim for the pinion, side by side. */
export function depthSchools(mesh: MeshAxle): readonly DepthSchool[] {
  const { setup, sheet, shimMoves, bearingMoves } = mesh;
  const { depth } = setup;
  const old = shimOut(mesh);
  if (!shimMoves) return [];
  return [
    school({ school: 'came-out', label: 'The shim that came out' }, () => ({
      mm: old,
      says: old === null ? 'Not measured: baseline.' : 'Good for the same make of gears and bearings.',
    })),
    school({ school: 'marks', label: 'Marks and bearing heights' }, () => {
      const [oldMark, newMark] = [base(depth.oldMark), base(depth.newMark)];
      if (old === null) return { mm: null, says: 'Needs the shim that came out.' };
      if (oldMark === null || newMark === null) return { mm: null, says: 'Needs the marks on both pinion heads.' };
      const [oldHeight, newHeight] = [base(depth.oldHeight), base(depth.newHeight)];
      const heights = oldHeight !== null && newHeight !== null;
      if (heights && bearingMoves === null)
        return { mm: null, says: 'Say which way a taller bearing moves this pinion.' };
      const mm = depthShim({
        oldShimMm: old,
        oldMarkMm: oldMark,
        newMarkMm: newMark,
        addingShimMovesPinion: shimMoves,
        ...(heights ? { oldBearingHeightMm: oldHeight, newBearingHeightMm: newHeight } : {}),
        ...(bearingMoves === null ? {} : { tallerBearingMovesPinion: bearingMoves }),
      });
      return { mm, says: heights ? 'Marks and both heights.' : 'Marks alone: measure both head bearings.' };
    }),
    school({ school: 'chain', label: 'A chain of lengths' }, () =>
      depth.chain.length === 0
        ? { mm: null, says: 'No lengths yet.' }
        : {
            mm: depthChain(
              depth.chain.map(({ name, length, sign }) => ({
                name,
                mm: entryBase(length),
                sign: sign === 'plus' ? (1 as const) : (-1 as const),
              })),
            ),
            says: depth.chain.map(({ name, sign }) => `${sign === 'plus' ? '+' : '−'} ${name}`).join(' '),
          },
    ),
    school({ school: 'measured', label: 'Measured: gauge, or bore and cap' }, () => {
      const [reading, cap, with0] = [base(depth.headReading), base(depth.capDepth), base(depth.headShim)];
      const [bore, nominal] = [sheet.bearingBore, sheet.mountingDistance];
      if (reading === null || with0 === null) return { mm: null, says: 'Needs the reading, and the shim that was in.' };
      if (!nominal) return { mm: null, says: 'Needs the nominal mounting distance of the sheet.' };
      const distance =
        cap === null || !bore
          ? reading
          : depthFromBore({ boreDiameterMm: entryBase(bore.value), capDepthMm: cap, readingMm: reading });
      const wanted = entryBase(nominal.value) + (base(depth.newMark) ?? 0);
      // Farther from the axis than wanted: the pinion goes deeper by that much.
      const mm = with0 + depthSign(shimMoves) * (distance - wanted);
      const how = cap === null || !bore ? 'Reading taken from the axis.' : 'From the parting face, by bore and cap.';
      if (mm < 0) return { mm: null, says: 'The shim would be thinner than nothing: another face was measured.' };
      return { mm, says: how };
    }),
    school({ school: 'chart', label: 'The maker’s chart' }, () => ({
      mm: base(depth.chart),
      says: 'A guess until a pattern agrees.',
    })),
    school({ school: 'experience', label: 'Experience' }, () => ({
      mm: base(depth.experience),
      says: 'What such an axle took before.',
    })),
  ];
}

/** What the pinion-shaft stack does to depth as it goes in, against how it came out, mm deeper; the shim not counted. */
export function stackError({ setup, bearingMoves }: MeshAxle): { deeperMm: number; parts: string } | null {
  const changed = setup.stack.flatMap(({ part, was, is, setsDepth }) => {
    if (!setsDepth || part === 'head-shim') return [];
    const off = (base(is) ?? 0) - (base(was) ?? 0);
    if (Math.abs(off) < 0.005) return [];
    // What lies at the head acts like the height of its bearing, in a drop-out too: less of it is shallower.
    const moves = bearingMoves ?? 'deeper';
    const what = part.replaceAll('-', ' ');
    const words = is === null ? `${what} left out` : was === null ? `${what} added` : `${what} of another height`;
    return [{ deeper: depthSign(moves) * off, words }];
  });
  if (changed.length === 0) return null;
  return {
    deeperMm: changed.reduce((total, { deeper }) => total + deeper, 0),
    parts: changed.map(({ words }) => words).join(', '),
  };
}
