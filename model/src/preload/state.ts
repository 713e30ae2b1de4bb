import {
  NM_PER_LBF_IN,
  carrierPreload,
  collapsiblePreload,
  entryBase,
  type CollapsibleNext,
  type NutReading,
  type SolidReading,
} from '@hot-spline/core';
import type { Rests } from '../engine/figure';
import { readingBase, type InForce, type Readings } from '../engine/readings';
import { ORIGIN_RESTS } from '../identity/origin-rests';
import { isWeak } from '../library/sheet';
import { pinionTorque, sealDrag, totalTorque } from '../mesh/readings';
import type { Trial } from '../mesh/schema';
import { trialOf, type MeshAxle } from '../mesh/state';

/** Ours: a heavy preload on purpose (common practice: 25 to 30 lbf·in), and what a wrench is good to where nobody has said. */
export const PRELOAD_GUARDS = {
  heavyNm: [25 * NM_PER_LBF_IN, 30 * NM_PER_LBF_IN],
  wrenchNm: NM_PER_LBF_IN,
} as const;

export interface PreloadBand {
  readonly nm: readonly [number, number];
  /** What of it is aimed at. */
  readonly aimNm: readonly [number, number];
  readonly weak: boolean;
  readonly rests: Rests;
}

export interface PinionRead {
  readonly reading: InForce;
  readonly state: Trial;
  /** Of the bearings: seal drag taken off where the seal was in. */
  readonly nm: number;
  readonly angleDeg: number | null;
  readonly shimMm: number;
  /** A dry reading does not count. */
  readonly counts: boolean;
}

export interface PreloadAxle {
  /** For new bearings, or for those that go back. */
  readonly band: PreloadBand | null;
  readonly spacer: number;
  readonly reads: readonly PinionRead[];
  readonly last: PinionRead | null;
  readonly wrenchNm: number;
  readonly sealNm: number | null;
  /** What to do next with a collapsible spacer; null before the first reading that counts. */
  readonly next: CollapsibleNext | null;
  readonly solid: readonly SolidReading[];
  readonly totalNm: number | null;
  readonly carrierNm: number | null;
}

function bandOf({ sheet, setup }: MeshAxle, bearings: Trial['pinionBearings']): PreloadBand | null {
  if (setup.preloadAim === 'heavy' && bearings === 'new')
    return { nm: PRELOAD_GUARDS.heavyNm, aimNm: PRELOAD_GUARDS.heavyNm, weak: true, rests: 'trade' };
  const told = bearings === 'new' ? sheet.pinionTorqueNew : sheet.pinionTorqueUsed;
  if (!told) return null;
  const [low, high] = [entryBase(told.value.low), entryBase(told.value.high)];
  const from = setup.preloadAim === 'top' ? low + 0.6 * (high - low) : low;
  return { nm: [low, high], aimNm: [from, high], weak: isWeak(told.origin), rests: ORIGIN_RESTS[told.origin] };
}

const NUMBERS = Array.from({ length: 99 }, (_, i) => i + 1);
const STEPS = Array.from({ length: 200 }, (_, i) => i + 1);

/** What is known of the preload of one axle's bearings. */
export function preloadAxle(mesh: MeshAxle, readings: Readings): PreloadAxle {
  const { axle, setup } = mesh;
  const seal = readings.get(sealDrag.key({ axle }));
  const sealNm = seal ? readingBase(seal) : null;
  const keys = (spacer: number) =>
    STEPS.map((step) => pinionTorque.key({ axle, spacer: String(spacer), step: String(step) }));
  const spacer = NUMBERS.findLast((n) => keys(n).some((key) => readings.has(key))) ?? 1;
  const reads = keys(spacer).flatMap((key): PinionRead[] => {
    const reading = readings.get(key);
    const about = reading && pinionTorque.read(reading.subject);
    if (!reading || !about) return [];
    const state = trialOf(reading);
    return [
      {
        reading,
        state,
        nm: Math.max(0, readingBase(reading) - (state.seal === 'in' ? (sealNm ?? 0) : 0)),
        angleDeg: about.angle && entryBase(about.angle),
        shimMm: about.shims.reduce((sum, piece) => sum + entryBase(piece), 0),
        counts: state.oil === 'oiled',
      },
    ];
  });
  const counting = reads.filter(({ counts }) => counts);
  const last = counting.at(-1) ?? null;
  const band = bandOf(mesh, last?.state.pinionBearings ?? (setup.gears === 'used' ? 'used' : 'new'));
  const wrenchNm = setup.wrench ? entryBase(setup.wrench) : PRELOAD_GUARDS.wrenchNm;
  const total =
    readings.get(totalTorque.key({ axle, stage: 'final' })) ?? readings.get(totalTorque.key({ axle, stage: 'trial' }));
  const totalNm = total ? readingBase(total) : null;
  const ratio = mesh.ring / mesh.pinion;
  return {
    band,
    spacer,
    reads,
    last,
    wrenchNm,
    sealNm,
    next: setup.spacer === 'collapsible' && band ? nextTurn(counting, band, wrenchNm) : null,
    solid: counting.filter(({ shimMm }) => shimMm > 0).map(({ shimMm, nm }) => ({ shimMm, torqueNm: nm })),
    totalNm,
    carrierNm:
      total && last && totalNm !== null && totalNm >= readingBase(last.reading)
        ? carrierPreload({ totalNm, pinionNm: readingBase(last.reading), ratio })
        : null,
  };
}

/** The last reading at each angle, as long as the nut was only ever turned on. */
function nextTurn(
  reads: readonly PinionRead[],
  { nm: band, aimNm }: PreloadBand,
  wrenchNm: number,
): CollapsibleNext | null {
  const turned: NutReading[] = [];
  for (const { angleDeg, nm } of reads) {
    if (angleDeg === null) continue;
    while ((turned.at(-1)?.angleDeg ?? -Infinity) >= angleDeg) turned.pop();
    turned.push({ angleDeg, torqueNm: nm });
  }
  return turned.length === 0 ? null : collapsiblePreload(turned.slice(-60), band, wrenchNm, aimNm[0]);
}
