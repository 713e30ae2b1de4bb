import {
  explain,
  rampFromRotationPlane,
  rampThrust,
  unitLock,
  type PlateUnit,
  type Ramp,
  type Working,
} from '@hot-spline/core';

/** Working of the locking torque of a plate unit on one flank of its ramps. */
export function explainUnitLock(title: string, unit: PlateUnit, preloadNm: number, inputNm: number): Working {
  return explain({
    title,
    formula: 'T lock = preload + k × input torque, k = μ × n × r_m ÷ (r_p × tan α), α from the plane of rotation',
    inputs: [
      { key: 'preload', label: 'preload, both packs', value: preloadNm, quantity: 'torque' },
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
    ],
    sources: [{ kind: 'exact', text: 'ramp thrust on the plates; friction on the ramps not counted' }],
    result: { label: 'locking torque', quantity: 'torque' },
    compute: ({ preload = 0, input = 0, mu = 0, n = 0, rm = 0, rp = 0, angle = 0 }) => {
      const ramp: Ramp = { angleDeg: angle, from: 'rotation-plane' };
      const lock = unitLock(
        { frictionCoefficient: mu, interfacesPerPack: n, meanRadiusMm: rm, pinRadiusMm: rp, ramp },
        preload,
        input,
      );
      return {
        value: lock.lockNm,
        steps: [
          { label: 'ramp thrust on one pack', value: rampThrust(input, rp, ramp), quantity: 'force' },
          { label: 'k, locking torque per input torque', value: lock.rampCoefficient, quantity: 'ratio' },
          { label: 'locking value S', value: input === 0 ? 0 : (100 * lock.lockNm) / input, quantity: 'percent' },
        ],
      };
    },
  });
}
