// The advisor on made-up axles beside the rule of thumb on the same ones.
import { meshAdvise, meshSensitivity, type AxlePrior, type MeshMove } from '@hot-spline/core';
import {
  FAMILIES,
  assemble,
  inTruth,
  ruleOfThumb,
  virtualAxle,
  type Player,
  type VirtualAxle,
  type WholeTry,
} from '@hot-spline/core/practice';

const AXLES = 1000;
const MOST = 4;
const meanOf = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;
const round = (value: number, digits = 3): number => Number(value.toPrecision(digits));

const said: number[] = [];
const had: number[] = [];
const times: number[] = [];
const advised: Player = (axle, tries) => {
  const start = performance.now();
  const { next, chanceInSpec } = meshAdvise({ ...axle, tries });
  times.push(performance.now() - start);
  if (next) {
    said.push(chanceInSpec ?? 0);
    had.push(inTruth(axle, next) ? 1 : 0);
  }
  return next;
};

/** Told the pinion's sign the wrong way round. */
const misled: Player = (axle, tries) =>
  meshAdvise({
    ...axle,
    tries,
    addingShimMovesPinion: axle.addingShimMovesPinion === 'deeper' ? 'shallower' : 'deeper',
  }).next;

/** Share of the axles in spec within 2, 3, 4 assemblies, percent. */
function within(family: keyof typeof FAMILIES, build: Player): readonly number[] {
  const counts = Array.from({ length: MOST }, () => 0);
  for (let seed = 0; seed < AXLES; seed++) {
    const axle = virtualAxle(7_000_000 + seed, FAMILIES[family]);
    const tries: WholeTry[] = [];
    let at: MeshMove | null = { pinionShimMm: axle.startShimMm, ringShiftMm: 0 };
    for (let assembly = 0; at && assembly < MOST; assembly++) {
      tries.push(assemble(axle, at.pinionShimMm, at.ringShiftMm, assembly));
      if (inTruth(axle, at)) {
        for (let k = assembly; k < MOST; k++) counts[k] = (counts[k] ?? 0) + 1;
        break;
      }
      at = build(axle, tries);
    }
  }
  return counts.slice(1).map((count) => round((100 * count) / AXLES));
}

/** The spreads that the axles are really made with: what cannot be known at the bench, and the most that could be had from it. */
const trueSpreads = (axle: VirtualAxle): AxlePrior => {
  const { family, specBacklashMm } = axle;
  const { spread, eye, ownPatch } = family;
  const of = (mean: number, deviation: number) => ({ mean, deviation });
  const between = (from: number, to: number, sign: number) =>
    of((sign * (from + to)) / 2, (spread * (to - from)) / Math.sqrt(12));
  const { backlashPerRingMm: ring, backlashPerPinionMm: pinion } = meshSensitivity({ ...axle, pressureAngleDeg: 20 });
  const height = [between(1.6, 3.2, -1), between(0.2, 0.8, -1)] as const;
  return {
    perMm: [
      [of(-(pinion + family.pinionExtra), 0.05 * spread), of(-ring, 0.08 * spread)],
      [between(0.4, 1.6, -1), between(0.8, 2, -1)],
      height,
      [between(0.4, 1.6, 1), between(0.8, 2, -1)],
      height,
    ],
    right: [of((specBacklashMm[0] + specBacklashMm[1]) / 2, 0.01), ...Array(4).fill(of(0, ownPatch))],
    firstMm: family.firstMm,
    noise: [family.backlashNoiseMm / Math.sqrt(8), eye, eye, eye, eye],
    wrong: { share: Math.max(family.wrong, 1e-6), scatter: [0.1, 0.577, 0.577, 0.577, 0.577] },
  };
};
const knowing: Player = (axle, tries) => meshAdvise({ ...axle, tries, prior: trueSpreads(axle) }).next;

export function advisorOnAxles() {
  const families = Object.fromEntries(
    (Object.keys(FAMILIES) as (keyof typeof FAMILIES)[]).map((family) => {
      said.length = had.length = 0;
      const withAdvice = within(family, advised);
      const [chance, came] = [meanOf(said), meanOf(had)];
      const hand = within(family, ruleOfThumb);
      const knows = within(family, knowing);
      const wrongly = within(family, misled);
      return [
        family,
        {
          inSpecWithin2_3_4: withAdvice,
          yardstick: 'rule of thumb on the same axles',
          yardstickWithin2_3_4: hand,
          ratio: withAdvice.map((share, i) => round(share / Math.max(hand[i] ?? 0, 0.1))),
          knowingTheTrueSpreads: knows,
          ofThat: withAdvice.map((share, i) => round(share / Math.max(knows[i] ?? 0, 0.1))),
          signToldWrong: wrongly,
          ofTheSameToldRight: wrongly.map((share, i) => round(share / Math.max(withAdvice[i] ?? 0, 0.1))),
          chanceSaid: round(100 * chance),
          chanceHad: round(100 * came),
        },
      ];
    }),
  );
  times.sort((a, b) => a - b);
  const at = (share: number): number => round(times[Math.floor(share * (times.length - 1))] ?? Number.NaN);
  return { axles: AXLES, ...families, adviceMs: { median: at(0.5), p95: at(0.95) } };
}
