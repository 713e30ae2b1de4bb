import { originOf } from '../library/origins';
import {
  carrierPreload,
  collapsiblePreload,
  entryBase,
  type CollapsibleNext,
  type NutReading,
  type SolidReading,
} from '@hot-spline/core';
import type { Rests } from '../frame/figure';
import { readingBase, type InForce, type Readings } from '../frame/readings';
import { ORIGIN_RESTS } from '../identity/origin-rests';
import { isWeak } from '../library/sheet';
import { pinionTorque, sealDrag, totalTorque } from '../mesh/readings';
import type { Setup, Trial } from '../mesh/schema';
import { trialOf } from '../mesh/state';
import type { MeshAxle } from '../mesh/axle';
import { sideReads, type CarrierRead, type SideRead } from './side';

/** Ours: heavy on purpose goes from the upper end of the sheet's band to so much of it; what a wrench is good to where nobody has said. */
export const PRELOAD_GUARDS = { heavy: 1.25, wrenchNm: 0.1 } as const;

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
  /** Carrier bearings from the total less the pinion, seal alike in both; null before both were read. */
  readonly carrier: CarrierRead | null;
  /** Side preload by every method, side by side. */
  readonly side: readonly SideRead[];
}

/**
 * Carrier bearings from a total: both with the seal in, or both without, or its drag taken off [exact]. What is left of a seal in one
 * of them would come back times the ratio.
 */
function carrierOf(
  total: InForce,
  last: PinionRead,
  sealNm: number | null,
  ratio: number,
  wrenchNm: number,
): CarrierRead {
  const plusMinusNm = ratio * Math.SQRT2 * wrenchNm;
  const [totalIn, pinionIn] = [trialOf(total).seal === 'in', last.state.seal === 'in'];
  const off = totalIn === pinionIn ? 0 : sealNm;
  const raw = { totalNm: readingBase(total), pinionNm: readingBase(last.reading) };
  if (off === null) return { nm: null, plusMinusNm, ...raw, why: 'seal' };
  const totalNm = raw.totalNm - (totalIn ? off : 0);
  const pinionNm = raw.pinionNm - (pinionIn ? off : 0);
  if (totalNm < pinionNm || pinionNm < 0) return { nm: null, plusMinusNm, totalNm, pinionNm, why: 'less' };
  return { nm: carrierPreload({ totalNm, pinionNm, ratio }), plusMinusNm, totalNm, pinionNm, why: '' };
}

function bandOf({ sheet, setup }: MeshAxle, bearings: Trial['pinionBearings']): PreloadBand | null {
  const told = bearings === 'new' ? sheet.pinionTorqueNew : sheet.pinionTorqueUsed;
  if (!told) return null;
  const [low, high] = [entryBase(told.value.low), entryBase(told.value.high)];
  if (setup.preloadAim === 'heavy' && bearings === 'new') {
    const nm = [high, PRELOAD_GUARDS.heavy * high] as const;
    return { nm, aimNm: nm, weak: true, rests: 'trade' };
  }
  const from = setup.preloadAim === 'top' ? low + 0.6 * (high - low) : low;
  return { nm: [low, high], aimNm: [from, high], weak: isWeak(originOf(told)), rests: ORIGIN_RESTS[originOf(told)] };
}

/** Read without the spacer that is crushed, and before the nut was turned on by an angle: nothing has been crushed yet. */
export const isTrial = ({ state, angleDeg }: PinionRead, { spacer }: Pick<Setup, 'spacer'>): boolean =>
  spacer === 'collapsible' && state.spacer === 'none' && (angleDeg ?? 0) === 0;

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
  const carrier = total && last ? carrierOf(total, last, sealNm, ratio, wrenchNm) : null;
  const state: Omit<PreloadAxle, 'side'> = {
    band,
    spacer,
    reads,
    last,
    wrenchNm,
    sealNm,
    sealUnknown: last?.state.seal === 'in' && sealNm === null,
    next:
      setup.spacer === 'collapsible' && band
        ? nextTurn(counting, band, wrenchNm, setup.crush, mesh.sheet.pinionNutPitch)
        : null,
    solid: counting.filter(({ shimMm }) => shimMm > 0).map(({ shimMm, nm }) => ({ shimMm, torqueNm: nm })),
    totalNm,
    carrier,
  };
  return { ...state, side: sideReads(mesh, state, readings) };
}

/** The last reading at each angle, as long as the nut was only ever turned on. */
function nextTurn(
  reads: readonly PinionRead[],
  { nm: band, aimNm }: PreloadBand,
  wrenchNm: number,
  start: Setup['crush'],
  pitch: MeshAxle['sheet']['pinionNutPitch'],
): CollapsibleNext | null {
  const turned: NutReading[] = [];
  for (const { angleDeg, nm } of reads) {
    if (angleDeg === null) continue;
    while ((turned.at(-1)?.angleDeg ?? -Infinity) >= angleDeg) turned.pop();
    turned.push({ angleDeg, torqueNm: nm });
  }
  return turned.length === 0
    ? null
    : collapsiblePreload(
        turned.slice(-60),
        band,
        wrenchNm,
        aimNm[0],
        start,
        pitch ? entryBase(pitch.value) : undefined,
      );
}
