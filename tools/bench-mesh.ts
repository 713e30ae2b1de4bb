// The advisor on made-up axles beside the rule of thumb on the same ones.
import {
  FAMILIES,
  PATTERN_BAND,
  assemble,
  CONSTRUCTION_SIGNS,
  depthSign,
  meshAdvise,
  trueReadings,
  virtualAxle,
  type MeshMove,
  type WholeTry,
  type VirtualAxle,
} from '@hot-spline/core';

const AXLES = 1000;
const MOST = 4;
const HALF = [PATTERN_BAND.drive.u, PATTERN_BAND.drive.v, PATTERN_BAND.coast.u, PATTERN_BAND.coast.v];
const meanOf = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;
const round = (value: number, digits = 3): number => Number(value.toPrecision(digits));

function inSpec(axle: VirtualAxle, { pinionShimMm, ringShiftMm }: MeshMove): boolean {
  const [backlash = 0, ...patches] = trueReadings(axle, pinionShimMm, ringShiftMm);
  const [low, high] = axle.specBacklashMm;
  const { runoutMm } = axle.truth;
  return (
    backlash - runoutMm >= low &&
    backlash + runoutMm <= high &&
    patches.every((value, i) => Math.abs(value) <= (HALF[i] ?? 0))
  );
}

type Builder = (axle: VirtualAxle, tries: readonly WholeTry[]) => MeshMove | null;

const STEP = 0.025;
const stepped = (mm: number): number => Math.round(mm / STEP) * STEP;

/** Common practice: depth by the height of the pattern, bold first, then split; the ring by 0.7 for backlash, given back. */
const byHand: Builder = (axle, tries) => {
  const last = tries.at(-1) as WholeTry;
  const sign = depthSign(CONSTRUCTION_SIGNS[axle.construction].addingShimMovesPinion ?? 'deeper');
  const [low, high] = axle.specBacklashMm;
  const height = (one: WholeTry): number => (2 * one.drive.v + one.coast.v) / 3;
  const before = tries.at(-2);
  let deeper = 0;
  if (Math.abs(height(last)) > 0.15) {
    const crossed = before && Math.sign(height(before)) !== Math.sign(height(last));
    const lastMove = before ? Math.abs(last.pinionShimMm - before.pinionShimMm) : 0;
    deeper = Math.sign(height(last)) * (before ? Math.max(crossed ? lastMove / 2 : 0.125, STEP) : 0.25);
  }
  const wanted = (low + high) / 2;
  // What the depth takes away is given back.
  const off = meanOf(last.backlashMm) - 0.2 * deeper - wanted;
  return {
    pinionShimMm: Math.max(0, stepped(last.pinionShimMm + sign * deeper)),
    ringShiftMm: stepped(last.ringShiftMm + off / 0.7),
  };
};

const said: number[] = [];
const had: number[] = [];
const times: number[] = [];
const advised: Builder = (axle, tries) => {
  const start = performance.now();
  const { next, chanceInSpec } = meshAdvise({ ...axle, tries });
  times.push(performance.now() - start);
  if (next) {
    said.push(chanceInSpec ?? 0);
    had.push(inSpec(axle, next) ? 1 : 0);
  }
  return next;
};

/** Share of the axles in spec within 2, 3, 4 assemblies, percent. */
function within(family: keyof typeof FAMILIES, build: Builder): readonly number[] {
  const counts = Array.from({ length: MOST }, () => 0);
  for (let seed = 0; seed < AXLES; seed++) {
    const axle = virtualAxle(7_000_000 + seed, FAMILIES[family]);
    const tries: WholeTry[] = [];
    let at: MeshMove | null = { pinionShimMm: axle.startShimMm, ringShiftMm: 0 };
    for (let assembly = 0; at && assembly < MOST; assembly++) {
      tries.push(assemble(axle, at.pinionShimMm, at.ringShiftMm, assembly));
      if (inSpec(axle, at)) {
        for (let k = assembly; k < MOST; k++) counts[k] = (counts[k] ?? 0) + 1;
        break;
      }
      at = build(axle, tries);
    }
  }
  return counts.slice(1).map((count) => round((100 * count) / AXLES));
}

export function advisorOnAxles() {
  const families = Object.fromEntries(
    (Object.keys(FAMILIES) as (keyof typeof FAMILIES)[]).map((family) => {
      said.length = had.length = 0;
      const withAdvice = within(family, advised);
      const hand = within(family, byHand);
      return [
        family,
        {
          inSpecWithin2_3_4: withAdvice,
          yardstick: 'rule of thumb on the same axles',
          yardstickWithin2_3_4: hand,
          ratio: withAdvice.map((share, i) => round(share / Math.max(hand[i] ?? 0, 0.1))),
          chanceSaid: round(100 * meanOf(said)),
          chanceHad: round(100 * meanOf(had)),
        },
      ];
    }),
  );
  times.sort((a, b) => a - b);
  const at = (share: number): number => round(times[Math.floor(share * (times.length - 1))] ?? Number.NaN);
  return { axles: AXLES, ...families, adviceMs: { median: at(0.5), p95: at(0.95) } };
}
