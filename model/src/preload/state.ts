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
import type { Setup, Trial } from '../mesh/schema';
import { trialOf } from '../mesh/state';
import type { MeshAxle } from '../mesh/axle';

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
  /** The seal was in for the last reading, and its drag is not known. */
  readonly sealUnknown: boolean;
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

/** What is known of the preload of one axle's bearings. */
export function preloadAxle(mesh: MeshAxle, readings: Readings): PreloadAxle {
  const { axle, setup } = mesh;
  const seal = readings.get(sealDrag.key({ axle }));
  const sealNm = seal ? readingBase(seal) : null;
  const all = [...readings.values()].flatMap((reading) => {
    const about = pinionTorque.read(reading.subject);
    return about?.axle === axle ? [{ reading, about, step: Number(about.step), of: Number(about.spacer) }] : [];
  });
  const spacer = all.reduce((most, { of }) => Math.max(most, of), 1);
  const reads = all
    .filter(({ of }) => of === spacer)
    .sort((a, b) => a.step - b.step)
    .map(({ reading, about }): PinionRead => {
      const state = trialOf(reading);
      const nm = readingBase(reading) - (state.seal === 'in' ? (sealNm ?? 0) : 0);
      return {
        reading,
        state,
        nm,
        angleDeg: about.angle && entryBase(about.angle),
        shimMm: about.shims.reduce((sum, piece) => sum + entryBase(piece), 0),
        // Less than nothing is left of it where the seal alone drags more: one of the two is misread.
        counts: state.oil === 'oiled' && nm >= 0,
      };
    });
  const counting = reads.filter(({ counts }) => counts);
  const last = counting.at(-1) ?? null;
  const band = bandOf(mesh, last?.state.pinionBearings ?? (setup.gears === 'used' ? 'used' : 'new'));
  const wrenchNm = setup.gauges.turning ? entryBase(setup.gauges.turning.plusMinus) : PRELOAD_GUARDS.wrenchNm;
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
    sealUnknown: last?.state.seal === 'in' && sealNm === null,
    next: setup.spacer === 'collapsible' && band ? nextTurn(counting, band, wrenchNm, setup.crush) : null,
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
  start: Setup['crush'],
): CollapsibleNext | null {
  const turned: NutReading[] = [];
  for (const { angleDeg, nm } of reads) {
    if (angleDeg === null) continue;
    while ((turned.at(-1)?.angleDeg ?? -Infinity) >= angleDeg) turned.pop();
    turned.push({ angleDeg, torqueNm: nm });
  }
  return turned.length === 0 ? null : collapsiblePreload(turned.slice(-60), band, wrenchNm, aimNm[0], start);
}
