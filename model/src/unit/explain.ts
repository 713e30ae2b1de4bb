import {
  explain,
  lockAtInput,
  lockLaw,
  rampFromRotationPlane,
  rampThrust,
  sideGearThrust,
  unitLock,
  type BevelGear,
  type CompareUnit,
  type PlateUnit,
  type Preload,
  type Ramp,
  type Working,
  type WorkingInput,
} from '@hot-spline/core';

const preloadInputs = ({ seriesNm, parallelNm }: Preload): WorkingInput[] => [
  ...(seriesNm > 0 || parallelNm === 0
    ? [{ key: 'series', label: 'springs in series, both packs', value: seriesNm, quantity: 'torque' as const }]
    : []),
  ...(parallelNm > 0
    ? [{ key: 'parallel', label: 'springs in parallel, both packs', value: parallelNm, quantity: 'torque' as const }]
    : []),
];

/** Working of the locking torque of a plate unit on one flank of its ramps. */
export function explainUnitLock(title: string, unit: PlateUnit, preload: Preload, inputNm: number): Working {
  const { rampFriction = 0 } = unit;
  return explain({
    title,
    formula:
      'T lock = the larger of springs in series, and springs in parallel + k × input torque; k = μ × n × r_m ÷ (r_p × tan(α + ρ)), α from the plane of rotation, tan ρ the friction on the ramp',
    inputs: [
      ...preloadInputs(preload),
      { key: 'input', label: 'input torque', value: inputNm, quantity: 'torque' },
      { key: 'mu', label: 'friction coefficient', value: unit.frictionCoefficient, quantity: 'coefficient' },
      { key: 'n', label: 'interfaces a pack', value: unit.interfacesPerPack, quantity: 'count' },
      { key: 'rm', label: 'mean friction radius', value: unit.meanRadiusMm, quantity: 'length' },
      { key: 'rp', label: 'cross pin radius', value: unit.pinRadiusMm, quantity: 'length' },
      {
        key: 'angle',
        label: 'ramp from the plane of rotation',
        value: rampFromRotationPlane(unit.ramp),
        quantity: 'angle',
      },
      { key: 'rho', label: 'friction on the ramp', value: rampFriction, quantity: 'coefficient' },
    ],
    sources: [
      { kind: 'exact', text: 'statics of the pressure ring: ramps first take over what the pin carried' },
      { kind: 'guard-band', text: 'the friction on the ramp is ours, to be edited; that of plate ears is not counted' },
    ],
    result: { label: 'locking torque', quantity: 'torque' },
    compute: ({ series = 0, parallel = 0, input = 0, mu = 0, n = 0, rm = 0, rp = 0, angle = 0, rho = 0 }) => {
      const ramp: Ramp = { angleDeg: angle, from: 'rotation-plane' };
      const plate = { frictionCoefficient: mu, interfacesPerPack: n, meanRadiusMm: rm, pinRadiusMm: rp, ramp };
      const springs = { seriesNm: series, parallelNm: parallel };
      const lock = unitLock({ ...plate, rampFriction: rho }, springs, input);
      const free = unitLock(plate, springs, input);
      return {
        value: lock.lockNm,
        steps: [
          { label: 'ramp thrust on one pack', value: rampThrust(input, rp, ramp, rho), quantity: 'force' },
          { label: 'k, locking torque per input torque', value: lock.rampCoefficient, quantity: 'ratio' },
          { label: 'k without friction on the ramp', value: free.rampCoefficient, quantity: 'ratio' },
          { label: 'locking torque without it', value: free.lockNm, quantity: 'torque' },
          { label: 'locking value S', value: input === 0 ? 0 : (100 * lock.lockNm) / input, quantity: 'percent' },
        ],
      };
    },
  });
}

const BEVEL_SOURCE = { kind: 'standard', text: 'Shigley, bevel gear forces, from memory' } as const;

const bevelInputs = (gear: BevelGear): WorkingInput[] => [
  { key: 'rg', label: 'side gear, mean radius', value: gear.meanRadiusMm, quantity: 'length' },
  { key: 'phi', label: 'pressure angle φ', value: gear.pressureAngleDeg, quantity: 'angle' },
  { key: 'cone', label: 'pitch cone angle Γ', value: gear.coneAngleDeg, quantity: 'angle' },
];
const bevelOf = ({ rg = 0, phi = 0, cone = 0 }: Readonly<Record<string, number>>): BevelGear => ({
  meanRadiusMm: rg,
  pressureAngleDeg: phi,
  coneAngleDeg: cone,
});

/** Working of the locking torque of plates that the side gears' thrust clamps. */
export function explainThrustLock(
  title: string,
  perNewton: number,
  gear: BevelGear,
  preload: Preload,
  inputNm: number,
): Working {
  return explain({
    title,
    formula:
      'T lock = the larger of springs in series, and springs in parallel + 2 × pack torque per newton × thrust, thrust = (T ÷ 2) ÷ r_g × tan φ × sin Γ on each pack',
    inputs: [
      ...preloadInputs(preload),
      { key: 'input', label: 'input torque', value: inputNm, quantity: 'torque' },
      { key: 'per', label: 'pack torque per kN of clamp', value: 1000 * perNewton, quantity: 'torque' },
      ...bevelInputs(gear),
    ],
    sources: [BEVEL_SOURCE],
    result: { label: 'locking torque', quantity: 'torque' },
    compute: (v) => {
      const { series = 0, parallel = 0, input = 0, per = 0 } = v;
      const thrust = sideGearThrust(bevelOf(v)) * input;
      return {
        value: Math.max(series, parallel + (2 * per * thrust) / 1000),
        steps: [{ label: 'thrust of one side gear', value: thrust, quantity: 'force' }],
      };
    },
  });
}

/** What a type is worked out from: its inputs, and the unit again from changed ones. */
function parts(unit: CompareUnit): {
  formula: string;
  inputs: WorkingInput[];
  again: (v: Readonly<Record<string, number>>) => CompareUnit;
} {
  switch (unit.type) {
    case 'cone':
      return {
        formula: 'T lock = 2 × μ × r_m ÷ sin(half angle) × (spring force + side-gear thrust)',
        inputs: [
          { key: 'mu', label: 'friction coefficient', value: unit.frictionCoefficient, quantity: 'coefficient' },
          { key: 'rm', label: 'mean radius of the cone', value: unit.meanRadiusMm, quantity: 'length' },
          { key: 'half', label: 'half cone angle', value: unit.halfAngleDeg, quantity: 'angle' },
          { key: 'spring', label: 'spring force on each cone', value: unit.preloadN, quantity: 'force' },
          ...bevelInputs(unit.gear),
        ],
        again: (v) => ({
          ...unit,
          frictionCoefficient: v['mu'] ?? 0,
          meanRadiusMm: v['rm'] ?? 0,
          halfAngleDeg: v['half'] ?? 0,
          preloadN: v['spring'] ?? 0,
          gear: bevelOf(v),
        }),
      };
    case 'helical':
    case 'hybrid': {
      const gears: WorkingInput[] = [
        { key: 'bias', label: 'bias ratio of the gears', value: unit.biasRatio, quantity: 'ratio' },
        { key: 'preload', label: 'preload', value: unit.preloadNm, quantity: 'torque' },
      ];
      const changed = (v: Readonly<Record<string, number>>) => ({
        biasRatio: v['bias'] ?? 1,
        preloadNm: v['preload'] ?? 0,
      });
      if (unit.type === 'helical')
        return {
          formula: 'T lock = preload + S × input torque, S = (bias − 1) ÷ (bias + 1)',
          inputs: gears,
          again: (v) => ({ type: 'helical', ...changed(v) }),
        };
      return {
        formula:
          'T lock = preload + S × input torque, S = (bias − 1) ÷ (bias + 1); above the torque at which the plates come in, their share of what is above it on top',
        inputs: [
          ...gears,
          { key: 'from', label: 'plates come in at', value: unit.platesFromNm, quantity: 'torque' },
          { key: 'late', label: 'plates hold of what is above', value: 100 * unit.platesSlope, quantity: 'percent' },
        ],
        again: (v) => ({
          type: 'hybrid',
          ...changed(v),
          platesFromNm: v['from'] ?? 0,
          platesSlope: (v['late'] ?? 0) / 100,
        }),
      };
    }
    case 'friction-insert':
      return {
        formula: 'what its springs hold, whatever the input torque',
        inputs: [{ key: 'preload', label: 'locking torque, both sides', value: unit.preloadNm, quantity: 'torque' }],
        again: (v) => ({ type: 'friction-insert', preloadNm: v['preload'] ?? 0 }),
      };
    default:
      return {
        formula:
          lockLaw(unit, 'drive').baseNm === Number.POSITIVE_INFINITY
            ? 'locked: it holds whatever comes in'
            : 'an open differential holds nothing but its own friction, counted as none',
        inputs: [],
        again: () => unit,
      };
  }
}

/** Working of the locking torque of any type without plates. */
export function explainHolds(title: string, unit: CompareUnit, inputNm: number): Working {
  const { formula, inputs, again } = parts(unit);
  return explain({
    title,
    formula,
    inputs: [{ key: 'input', label: 'input torque', value: inputNm, quantity: 'torque' }, ...inputs],
    sources: [
      unit.type === 'cone'
        ? { kind: 'standard', text: 'Shigley, cone clutch and bevel gear forces, from memory' }
        : { kind: 'exact', text: 'definition' },
    ],
    result: { label: 'locking torque', quantity: 'torque' },
    compute: (v) => {
      const input = v['input'] ?? 0;
      const law = lockLaw(again(v), 'drive');
      return { value: law.baseNm === Number.POSITIVE_INFINITY ? input : lockAtInput(law, input) };
    },
  });
}
