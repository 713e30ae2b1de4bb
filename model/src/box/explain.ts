import {
  checkDrum,
  dogsMeet,
  explain,
  faceOverlap,
  gearLadder,
  heatedFloat,
  pairOnCentres,
  reduction,
  wearAgainst,
  type Drum,
  type Face,
  type HeatedFloat,
  type Load,
  type PairOnCentres,
  type Reduction,
  type Source,
  type Working,
} from '@hot-spline/core';
import { EXACT } from '../frame/figure';

const INVOLUTE: Source = { kind: 'standard', text: 'ISO 21771', fromMemory: true };
const OURS: Source = { kind: 'guard-band', text: 'a guard of ours; the maker’s sheet wins' };
const MINER: Source = { kind: 'standard', text: 'Palmgren and Miner; exponents after ISO 6336', fromMemory: true };

/** Whether a pair fits the centre distance. */
export function explainPair(pair: PairOnCentres): Working {
  const { teeth, shiftSumGiven, ...sizes } = pair;
  return explain({
    title: 'Profile shifts that a pair needs on these centres',
    formula:
      'tan α_t = tan α_n ÷ cos β; a₀ = m_n·(z₁ + z₂) ÷ (2·cos β); cos α_wt = a₀·cos α_t ÷ a; Σx = (z₁ + z₂)·(inv α_wt − inv α_t) ÷ (2·tan α_n), inv α = tan α − α',
    inputs: [
      { key: 'driver', label: 'teeth z₁', value: teeth[0], quantity: 'count' },
      { key: 'driven', label: 'teeth z₂', value: teeth[1], quantity: 'count' },
      { key: 'normalModuleMm', label: 'normal module m_n', value: sizes.normalModuleMm, quantity: 'length' },
      { key: 'helixDeg', label: 'helix β', value: sizes.helixDeg, quantity: 'angle' },
      { key: 'pressureAngleDeg', label: 'normal pressure angle α_n', value: sizes.pressureAngleDeg, quantity: 'angle' },
      { key: 'centreMm', label: 'centre distance a', value: sizes.centreMm, quantity: 'length' },
    ],
    sources: [INVOLUTE, OURS],
    result: { label: 'shifts together Σx', quantity: 'coefficient' },
    note: 'Contact ratio, undercut, tip width and root clearance are not in it.',
    compute: ({ driver, driven, ...changed }) => {
      const fit = pairOnCentres({ ...pair, ...changed, teeth: [driver ?? teeth[0], driven ?? teeth[1]] });
      return {
        value: fit.shiftSum,
        steps: [
          { label: 'centre distance without shift a₀', value: fit.plainCentreMm, quantity: 'length' },
          { label: 'working angle α_wt', value: fit.workingAngleDeg, quantity: 'angle' },
          ...(fit.playMm === null ? [] : [{ label: 'play', value: fit.playMm, quantity: 'length' as const }]),
          { label: 'verdict', value: fit.verdict, quantity: 'text' },
        ],
      };
    },
  });
}

/** Speed in first at the limiter, and the steps above it. */
export function explainLadder(of: Parameters<typeof gearLadder>[0]): Working {
  return explain({
    title: 'Gears of a box by their teeth',
    formula:
      'ratio = driven ÷ driver (× input pair); speed = limiter × rollout ÷ (ratio × final); rpm after = limiter × next ÷ this',
    inputs: [
      { key: 'finalRatio', label: 'final drive', value: of.finalRatio, quantity: 'ratio' },
      { key: 'limitRpm', label: 'limiter', value: of.limitRpm, quantity: 'rotation' },
      { key: 'rollingCircumferenceMm', label: 'rollout', value: of.rollingCircumferenceMm, quantity: 'length' },
    ],
    sources: [EXACT],
    result: { label: 'speed in first at the limiter, km/h', quantity: 'count' },
    compute: (changed) => {
      const rungs = gearLadder({ ...of, ...changed });
      return {
        value: rungs[0]?.speedAtLimitKmh ?? 0,
        steps: rungs.map((rung, i) => ({ label: `ratio of gear ${i + 1}`, value: rung.ratio, quantity: 'ratio' })),
      };
    },
  });
}

export function explainReduction(of: Reduction): Working {
  return explain({
    title: 'A reduction of parallel stages',
    formula:
      'ratio = product of driven ÷ driver; axial force = 2·T ÷ d × tan β, d = m_n·z ÷ cos β; a right-hand driver that turns clockwise is pushed away',
    inputs: [
      { key: 'motorLimitRpm', label: 'limit of the motor', value: of.motorLimitRpm, quantity: 'rotation' },
      { key: 'rollingCircumferenceMm', label: 'rollout', value: of.rollingCircumferenceMm, quantity: 'length' },
    ],
    sources: [EXACT],
    result: { label: 'speed at the limit, km/h', quantity: 'count' },
    compute: (changed) => {
      const { ratio, speedAtLimitKmh, thrustsN } = reduction({ ...of, ...changed });
      return {
        value: speedAtLimitKmh,
        steps: [
          { label: 'ratio', value: ratio, quantity: 'ratio' },
          ...(thrustsN ?? []).map((value, i) => ({
            label: `axial force on shaft ${i + 1}`,
            value,
            quantity: 'force' as const,
          })),
        ],
      };
    },
  });
}

export function explainOverlap(of: { readonly first: Face; readonly second: Face }): Working {
  return explain({
    title: 'Faces that lie on each other',
    formula: 'overlap at the worse end of both floats, each moved by half of its own, ÷ the narrower face',
    inputs: [
      { key: 'firstFloat', label: 'float of the one', value: of.first.floatMm, quantity: 'length' },
      { key: 'secondFloat', label: 'float of the other', value: of.second.floatMm, quantity: 'length' },
    ],
    sources: [EXACT, OURS],
    result: { label: 'share at the worst', quantity: 'coefficient' },
    compute: ({ firstFloat, secondFloat }) => {
      const { worstShare, overlapMm } = faceOverlap({
        first: { ...of.first, floatMm: firstFloat ?? of.first.floatMm },
        second: { ...of.second, floatMm: secondFloat ?? of.second.floatMm },
      });
      return { value: worstShare, steps: [{ label: 'overlap, floats centred', value: overlapMm, quantity: 'length' }] };
    },
  });
}

export function explainHeated(of: HeatedFloat): Working {
  const { arrangement: _, ...numbers } = of;
  return explain({
    title: 'What heat makes of an end float',
    formula:
      'shim = old + (measured − wanted); hot = wanted ± L·(α_case·ΔT_case − α_shaft·ΔT_shaft): + held from outside, − back to back, nought at one end',
    inputs: Object.entries(numbers).map(([key, value]) => ({
      key,
      label: LABELS[key as keyof typeof numbers],
      value,
      quantity: key.endsWith('Mm') ? ('length' as const) : ('coefficient' as const),
    })),
    sources: [EXACT],
    result: { label: 'hot', quantity: 'length' },
    note: 'Set cold; hot below nought is squeeze.',
    compute: (changed) => {
      const { hotMm, shimMm, coldMm } = heatedFloat({ ...of, ...changed });
      return {
        value: hotMm,
        steps: [
          { label: 'shim', value: shimMm, quantity: 'length' },
          { label: 'cold', value: coldMm, quantity: 'length' },
        ],
      };
    },
  });
}
const LABELS: Readonly<Record<keyof Omit<HeatedFloat, 'arrangement'>, string>> = {
  shimMm: 'shim that is in',
  measuredMm: 'float measured',
  wantedMm: 'float wanted, cold',
  lengthMm: 'length between the bearings L',
  caseRiseK: 'case warmer by, K',
  shaftRiseK: 'shaft warmer by, K',
  caseExpansion: 'case grows, per K',
  shaftExpansion: 'shaft grows, per K',
};

export function explainDrum(drum: Drum): Working {
  return explain({
    title: 'Steepest ramp of a drum',
    formula: 'atan(travel ÷ (radius × angle)); touched where |travel| reaches the threshold, by its crossings',
    inputs: [
      { key: 'touchMm', label: 'touches from', value: drum.touchMm, quantity: 'length' },
      { key: 'radiusMm', label: 'radius of the tracks', value: drum.radiusMm, quantity: 'length' },
    ],
    sources: [EXACT, OURS],
    result: { label: 'steepest', quantity: 'angle' },
    compute: (changed) => {
      const { steepestDeg, both, neutral } = checkDrum({ ...drum, ...changed });
      return {
        value: steepestDeg,
        steps: [
          { label: 'stretches with two gears', value: both.length, quantity: 'count' },
          { label: 'neutrals', value: neutral.length, quantity: 'count' },
        ],
      };
    },
  });
}

export const explainDogs = (of: Parameters<typeof dogsMeet>[0]): Working =>
  explain({
    title: 'Dogs face to face',
    formula: 'chance = dogs × (width + width) ÷ 360°, at most 1; play = 360° ÷ dogs − both widths',
    inputs: [
      { key: 'count', label: 'dogs', value: of.count, quantity: 'count' },
      { key: 'first', label: 'width', value: of.widthsDeg[0], quantity: 'angle' },
      { key: 'second', label: 'width of the other side', value: of.widthsDeg[1], quantity: 'angle' },
    ],
    sources: [EXACT],
    result: { label: 'chance', quantity: 'coefficient' },
    note: 'No fault: turning one of them clears it.',
    compute: ({ count, first, second }) => {
      const { chanceFaceToFace, playDeg } = dogsMeet({
        count: Math.round(count ?? of.count),
        widthsDeg: [first ?? of.widthsDeg[0], second ?? of.widthsDeg[1]],
      });
      return { value: chanceFaceToFace, steps: [{ label: 'play when in', value: playDeg, quantity: 'angle' }] };
    },
  });

export const explainLife = (of: {
  readonly spectrum: readonly Load[];
  readonly against: readonly Load[];
  readonly exponent: number;
}): Working =>
  explain({
    title: 'Wear of one set of loads against another',
    formula: 'D = Σ n·T^p; ratio = D of the other ÷ D of this',
    inputs: [{ key: 'exponent', label: 'exponent by torque p', value: of.exponent, quantity: 'coefficient' }],
    sources: [MINER],
    result: { label: 'wears as fast, times', quantity: 'coefficient' },
    note: 'Never a life: only how fast the one wears against the other.',
    compute: (changed) => {
      const { damageRatio, equivalentTorqueNm } = wearAgainst({ ...of, ...changed });
      return {
        value: damageRatio,
        steps: [{ label: 'one torque that does the same', value: equivalentTorqueNm, quantity: 'torque' }],
      };
    },
  });
