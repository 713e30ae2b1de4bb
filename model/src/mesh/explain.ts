import {
  adjusterNotches,
  backlashRound,
  carrierPreload,
  carrierSides,
  depthChain,
  depthFromBore,
  depthShim,
  depthSign,
  explain,
  meshSensitivity,
  shimPack,
  solidPreload,
  type BandMm,
  type CarrierMove,
  type ChainLink,
  type CollapsibleNext,
  type DepthByMarks,
  type MeshAdvice,
  type MeshJob,
  type NutReading,
  type ShimPackRules,
  type ShimStock,
  type SolidReading,
  type Source,
  type Working,
  type Round,
} from '@hot-spline/core';

const EXACT: Source = { kind: 'exact', text: 'lengths that add up' };

export function explainDepthShim(by: DepthByMarks): Working {
  const shallower = by.addingShimMovesPinion === 'shallower';
  const taller = by.tallerBearingMovesPinion ?? 'deeper';
  const heights =
    by.oldBearingHeightMm === undefined || by.newBearingHeightMm === undefined
      ? []
      : [
          { key: 'ho', label: 'old bearing height', value: by.oldBearingHeightMm, quantity: 'length' as const },
          { key: 'hn', label: 'new bearing height', value: by.newBearingHeightMm, quantity: 'length' as const },
        ];
  return explain({
    title: 'Pinion shim of the new set',
    formula: `shim = old ${shallower ? '−' : '+'} [(old mark − new mark) ${taller === 'deeper' ? '+' : '−'} (old height − new height)]`,
    inputs: [
      { key: 'old', label: 'old shim', value: by.oldShimMm, quantity: 'length' },
      { key: 'mo', label: 'old mark', value: by.oldMarkMm, quantity: 'length' },
      { key: 'mn', label: 'new mark', value: by.newMarkMm, quantity: 'length' },
      ...heights,
    ],
    sources: [{ kind: 'exact', text: `adding a shim moves the pinion ${by.addingShimMovesPinion}` }],
    result: { label: 'shim', quantity: 'length' },
    note: 'Marks: positive wants to sit farther from the axis; ask the maker for its sign.',
    compute: ({ old = 0, mo = 0, mn = 0, ho, hn }) => ({
      value: depthShim({
        oldShimMm: old,
        oldMarkMm: mo,
        newMarkMm: mn,
        addingShimMovesPinion: by.addingShimMovesPinion,
        tallerBearingMovesPinion: taller,
        ...(ho === undefined || hn === undefined ? {} : { oldBearingHeightMm: ho, newBearingHeightMm: hn }),
      }),
      steps: [
        {
          label: 'deeper by',
          value: mo - mn + (ho === undefined || hn === undefined ? 0 : depthSign(taller) * (ho - hn)),
          quantity: 'length',
        },
      ],
    }),
  });
}

export function explainDepthFromBore(of: Parameters<typeof depthFromBore>[0]): Working {
  return explain({
    title: 'Axis to pinion head, without the gauge',
    formula: 'distance = reading − (Ø ÷ 2 − depth of the cap)',
    inputs: [
      { key: 'bore', label: 'bearing bore', value: of.boreDiameterMm, quantity: 'length' },
      { key: 'cap', label: 'depth of the cap', value: of.capDepthMm, quantity: 'length' },
      { key: 'reading', label: 'reading from the parting face', value: of.readingMm, quantity: 'length' },
    ],
    sources: [EXACT],
    result: { label: 'axis to head', quantity: 'length' },
    compute: ({ bore = 0, cap = 0, reading = 0 }) => ({
      value: depthFromBore({ boreDiameterMm: bore, capDepthMm: cap, readingMm: reading }),
      steps: [{ label: 'parting face to axis', value: bore / 2 - cap, quantity: 'length' }],
    }),
  });
}

export function explainChain(links: readonly ChainLink[]): Working {
  return explain({
    title: 'Chain of lengths',
    formula: 'total = Σ sign × length',
    inputs: links.map(({ name, mm, sign }, i) => ({
      key: `l${i}`,
      label: `${sign > 0 ? '+' : '−'} ${name}`,
      value: mm,
      quantity: 'length',
    })),
    sources: [EXACT],
    result: { label: 'total', quantity: 'length' },
    compute: (values) => ({ value: depthChain(links.map((link, i) => ({ ...link, mm: values[`l${i}`] ?? link.mm }))) }),
  });
}

export function explainSides(move: CarrierMove): Working {
  return explain({
    title: `${move.ringSide === 'left' ? 'Left' : 'Right'} shim, behind the ring’s back`,
    formula:
      move.shimActs === 'under-flange'
        ? 'ring side = old − move − change of preload ÷ 2; the other side = old + move − change of preload ÷ 2'
        : 'ring side = old + move + change of preload ÷ 2; the other side = old − move + change of preload ÷ 2',
    inputs: [
      { key: 'left', label: 'left', value: move.leftMm, quantity: 'length' },
      { key: 'right', label: 'right', value: move.rightMm, quantity: 'length' },
      { key: 'move', label: 'ring towards the pinion', value: move.ringTowardsPinionMm, quantity: 'length' },
      { key: 'preload', label: 'change of preload', value: move.preloadChangeMm ?? 0, quantity: 'length' },
    ],
    sources: [{ kind: 'exact', text: 'left + right stays, and with it the preload, unless it was to change' }],
    result: { label: 'ring side', quantity: 'length' },
    compute: ({ left = 0, right = 0, move: towards = 0, preload = 0 }) => {
      const { leftMm, rightMm } = carrierSides({
        ...move,
        leftMm: left,
        rightMm: right,
        ringTowardsPinionMm: towards,
        preloadChangeMm: preload,
      });
      const [ring, other] = move.ringSide === 'left' ? [leftMm, rightMm] : [rightMm, leftMm];
      return { value: ring, steps: [{ label: 'other side', value: other, quantity: 'length' }] };
    },
  });
}

export function explainNotches(of: Parameters<typeof adjusterNotches>[0]): Working {
  return explain({
    title: 'Notches of the adjuster',
    formula: 'notches = move ÷ (thread pitch ÷ notches a turn), to the nearest whole one',
    inputs: [
      { key: 'pitch', label: 'thread pitch', value: of.threadPitchMm, quantity: 'length' },
      { key: 'turn', label: 'notches a turn', value: of.notchesPerTurn, quantity: 'count' },
      { key: 'move', label: 'move', value: of.moveMm, quantity: 'length' },
    ],
    sources: [{ kind: 'exact', text: 'a thread travels its pitch a turn' }],
    result: { label: 'notches', quantity: 'count' },
    compute: ({ pitch = 0, turn = 1, move = 0 }) => {
      const { notches, errorMm } = adjusterNotches({ threadPitchMm: pitch, notchesPerTurn: turn, moveMm: move });
      return {
        value: notches,
        steps: [
          { label: 'travel a notch', value: pitch / turn, quantity: 'length' },
          { label: 'left over', value: errorMm, quantity: 'length' },
        ],
      };
    },
  });
}

export function explainSensitivity(set: Parameters<typeof meshSensitivity>[0]): Working {
  return explain({
    title: 'Backlash per move of the ring',
    formula: 'ΔB = 2 × Δg × tan φ × sin Γ, tan Γ = ratio; for the pinion with sin γ, γ = 90° − Γ',
    inputs: [
      { key: 'ring', label: 'ring teeth', value: set.ringTeeth, quantity: 'count' },
      { key: 'pinion', label: 'pinion teeth', value: set.pinionTeeth, quantity: 'count' },
      { key: 'phi', label: 'pressure angle', value: set.pressureAngleDeg, quantity: 'angle' },
    ],
    sources: [{ kind: 'standard', text: 'Dudley, gear handbook; bevel approximation of a hypoid', fromMemory: true }],
    result: { label: 'a mm of ring', quantity: 'coefficient' },
    note: 'A first guess: a hypoid’s offset raises the pinion’s share, and what an indicator reads depends on where it stands.',
    compute: ({ ring = 0, pinion = 0, phi = 0 }) => {
      const found = meshSensitivity({ ringTeeth: ring, pinionTeeth: pinion, pressureAngleDeg: phi });
      return {
        value: found.backlashPerRingMm,
        steps: [{ label: 'a mm of pinion depth', value: found.backlashPerPinionMm, quantity: 'coefficient' }],
      };
    },
  });
}

/** What is shown of a round; run-out from peak to peak. */
const SHOWN = {
  mean: ({ meanMm }: Round) => meanMm,
  'least place': ({ minMm }: Round) => minMm,
  most: ({ maxMm }: Round) => maxMm,
  'run-out, peak to peak': ({ runoutAmplitudeMm }: Round) => 2 * (runoutAmplitudeMm ?? 0),
} as const;

export function explainBacklash(
  readings: readonly number[],
  spec: BandMm,
  shown: keyof typeof SHOWN = 'mean',
): Working {
  return explain({
    title: 'Backlash round the ring',
    formula: 'B(θ) = mean + a × cos θ + b × sin θ by least squares; run-out √(a² + b²)',
    inputs: readings.map((value, i) => ({
      key: `p${i}`,
      label: `place ${i + 1}`,
      value,
      quantity: 'length',
    })),
    sources: [
      { kind: 'exact', text: 'least squares of evenly spaced places' },
      { kind: 'guard-band', text: 'watched: fewer than 4 places, or 3 thou of variation' },
    ],
    result: { label: shown, quantity: 'length' },
    compute: (values) => {
      const round = backlashRound(
        readings.map((value, i) => values[`p${i}`] ?? value),
        spec,
      );
      return {
        value: SHOWN[shown](round),
        steps: [
          { label: 'mean', value: round.meanMm, quantity: 'length' },
          { label: 'least', value: round.minMm, quantity: 'length' },
          { label: 'most', value: round.maxMm, quantity: 'length' },
          {
            label: 'run-out, half of peak to peak',
            value: round.runoutAmplitudeMm ?? 'too few places',
            quantity: 'length',
          },
          { label: 'most of it at', value: round.runoutAngleDeg ?? 'too few places', quantity: 'angle' },
          { label: 'not explained', value: round.residualMm ?? 'too few places', quantity: 'length' },
        ],
      };
    },
  });
}

/** @param advice what was found: it is told, not found again */
export function explainAdvice(job: MeshJob, advice: MeshAdvice): Working {
  const { next, expected } = advice;
  return explain({
    title: 'Next move of the set-up',
    formula: 'reading = own + change × (position − right position); the move with the best chance that all is in band',
    inputs: [{ key: 'tries', label: 'tries', value: job.tries.length, quantity: 'count' }],
    sources: [
      { kind: 'exact', text: 'Bayes on normal distributions round the best fit' },
      {
        kind: 'guard-band',
        text: 'ours: first guesses of an axle, how far patterns and backlash scatter, how far off a shim is looked for (docs/mesh.md)',
        fromMemory: true,
      },
    ],
    result: { label: 'chance that all is in band', quantity: 'coefficient' },
    note: advice.done ? 'Every reading is in band.' : advice.needs ? `Read the ${advice.needs} first.` : '',
    compute: () => ({
      value: advice.chanceInSpec ?? 0,
      steps: [
        ...(next
          ? [
              { label: 'pinion shim', value: next.pinionShimMm, quantity: 'length' as const },
              {
                label: 'ring towards the pinion, from the first try',
                value: next.ringShiftMm,
                quantity: 'length' as const,
              },
            ]
          : []),
        ...(expected
          ? [
              { label: 'backlash then', value: expected.backlashMm, quantity: 'length' as const },
              { label: 'drive side, lengthwise', value: expected.drive.u, quantity: 'coefficient' as const },
              { label: 'drive side, in height', value: expected.drive.v, quantity: 'coefficient' as const },
              { label: 'coast side, lengthwise', value: expected.coast.u, quantity: 'coefficient' as const },
              { label: 'coast side, in height', value: expected.coast.v, quantity: 'coefficient' as const },
            ]
          : []),
        ...advice.suspects.map(({ what, chance }) => ({
          label: `${what.replaceAll('-', ' ')}: chance that it is the other way round`,
          value: chance,
          quantity: 'coefficient' as const,
        })),
      ],
    }),
  });
}

export function explainShimPack(targetMm: number, stock: readonly ShimStock[], rules: ShimPackRules): Working {
  return explain({
    title: 'Pack of shims',
    formula: 'nearest to the target, then fewest pieces; thin ones between thick ones',
    inputs: [{ key: 'target', label: 'target', value: targetMm, quantity: 'length' }],
    sources: [{ kind: 'exact', text: 'every pack of the stock that could be nearer is looked at' }],
    result: { label: 'sum less target', quantity: 'length' },
    compute: ({ target = 0 }) => {
      const { piecesMm, errorMm } = shimPack(target, stock, rules);
      return {
        value: errorMm,
        steps: piecesMm.map((mm, i) => ({ label: `piece ${i + 1}`, value: mm, quantity: 'length' as const })),
      };
    },
  });
}

export function explainTotal(of: Parameters<typeof carrierPreload>[0]): Working {
  return explain({
    title: 'Preload of the carrier bearings',
    formula: 'T carrier = (T total − T pinion) × ratio',
    inputs: [
      { key: 'total', label: 'total turning torque, at the pinion', value: of.totalNm, quantity: 'torque' },
      { key: 'pinion', label: 'pinion alone', value: of.pinionNm, quantity: 'torque' },
      { key: 'ratio', label: 'ratio', value: of.ratio, quantity: 'ratio' },
    ],
    sources: [{ kind: 'exact', text: 'torque through the ratio; both read in one state' }],
    result: { label: 'carrier bearings', quantity: 'torque' },
    compute: ({ total = 0, pinion = 0, ratio = 1 }) => ({
      value: carrierPreload({ totalNm: total, pinionNm: pinion, ratio }),
    }),
  });
}

export function explainSolid(
  readings: readonly SolidReading[],
  band: readonly [number, number],
  stock: readonly ShimStock[],
  tells: Parameters<typeof solidPreload>[3] = {},
): Working {
  return explain({
    title: 'Shims beside the solid spacer',
    formula: 'a straight line through the readings, to the middle of the band',
    inputs: readings.flatMap(({ shimMm, torqueNm }, i) => [
      { key: `s${i}`, label: `pack ${i + 1}`, value: shimMm, quantity: 'length' as const },
      { key: `t${i}`, label: `reading ${i + 1}`, value: torqueNm, quantity: 'torque' as const },
    ]),
    sources: [{ kind: 'exact', text: 'least squares; more shim, less torque' }],
    result: { label: 'pack', quantity: 'length' },
    compute: (values) => {
      const found = solidPreload(
        readings.map((one, i) => ({
          shimMm: values[`s${i}`] ?? one.shimMm,
          torqueNm: values[`t${i}`] ?? one.torqueNm,
        })),
        band,
        stock,
        tells,
      );
      return {
        value: found.shimMm,
        steps: [{ label: 'expected with what there is', value: found.expectedNm, quantity: 'torque' }],
      };
    },
  });
}

/** @param next what was found: it is told, not found again for each reading */
export function explainCollapsible(readings: readonly NutReading[], next: CollapsibleNext): Working {
  return explain({
    title: 'Nut on a collapsible spacer',
    formula:
      'torque nearly still, then rising from a knee on; the n-th turn goes as far as it may risk 0.02/(n·(n + 1)) to go over',
    inputs: readings.flatMap(({ angleDeg, torqueNm }, i) => [
      { key: `a${i}`, label: `angle ${i + 1}`, value: angleDeg, quantity: 'angle' as const },
      { key: `t${i}`, label: `reading ${i + 1}`, value: torqueNm, quantity: 'torque' as const },
    ]),
    sources: [
      { kind: 'trade', text: 'never back off: common practice' },
      {
        kind: 'guard-band',
        text: 'ours: 0.03 to 0.15 N·m a degree at 1.5 mm of pitch, one spacer in fifty, no step under 2°',
        fromMemory: true,
      },
    ],
    result: { label: 'turn to', quantity: 'angle' },
    compute: () => {
      return {
        value: next.nextAngleDeg ?? readings.at(-1)?.angleDeg ?? 0,
        steps: [
          { label: 'expected there', value: next.expectedNm ?? 'nothing more to turn', quantity: 'torque' },
          { label: 'readings to go, about', value: next.readingsExpected ?? 0, quantity: 'count' },
          { label: 'chance to go over, %', value: 100 * (next.chanceOver ?? 0), quantity: 'percent' },
        ],
      };
    },
  });
}
