import type { heatToFit } from '@hot-spline/core';
import {
  EXPANSION,
  PRELOAD_SHARE,
  boltClamp,
  boltLoad,
  boltTorque,
  bottoming,
  explain,
  jointCapacity,
  threadOf,
  type Working,
} from '@hot-spline/core';

export function explainBolt(of: Parameters<typeof boltLoad>[0]): Working {
  const { diameterMm, stressAreaMm2, name } = threadOf(of.thread);
  return explain({
    title: `Tightening torque of ${name}, ${of.grade}`,
    formula: 'T = K·d·F, F = 0.75 · proof stress · stress area',
    inputs: [
      { key: 'K', label: 'nut factor', value: of.nutFactor, quantity: 'coefficient' },
      { key: 'd', label: 'diameter', value: diameterMm, quantity: 'length' },
      { key: 'proof', label: 'proof stress, MPa', value: boltLoad(of).proofMPa, quantity: 'coefficient' },
      { key: 'area', label: 'stress area, mm²', value: stressAreaMm2, quantity: 'coefficient' },
    ],
    sources: [
      { kind: 'standard', text: 'Shigley; ISO 898-1, SAE J429, ASME B1.1', fromMemory: true },
      { kind: 'guard-band', text: 'K scatters by a quarter and more; a maker’s torque wins' },
    ],
    result: { label: 'torque', quantity: 'torque' },
    compute: ({ K = 0, d = 0, proof = 0, area = 0 }) => {
      const preload = PRELOAD_SHARE * proof * area;
      return { value: (K * d * preload) / 1000, steps: [{ label: 'preload', value: preload, quantity: 'force' }] };
    },
  });
}

/** @param share whether the result stands as a share of 1; percent unless told */
export function explainClamp(of: Parameters<typeof boltClamp>[0], share = false): Working {
  const { by } = boltClamp(of);
  const { name, diameterMm, pitchMm, pitchDiameterMm, stressAreaMm2 } = threadOf(of.thread);
  const long = by === 'thread-and-head';
  return explain({
    title: `Clamp of ${name}, ${of.grade}, of its proof load`,
    formula: long
      ? 'F = T/(p/2π + μ thread · d₂/(2·cos 30°) + μ head · D_m/2); share = F/(proof stress · stress area)'
      : 'F = T/(K·d); share = F/(proof stress · stress area)',
    inputs: [
      { key: 'T', label: 'torque', value: of.torqueNm, quantity: 'torque' },
      { key: 'd', label: 'diameter', value: diameterMm, quantity: 'length' },
      ...(long
        ? ([
            { key: 'p', label: 'pitch', value: pitchMm, quantity: 'length' },
            { key: 'd2', label: 'pitch diameter', value: pitchDiameterMm, quantity: 'length' },
            { key: 'mt', label: 'friction in the thread', value: of.threadFriction ?? 0, quantity: 'coefficient' },
            { key: 'mh', label: 'friction under the head', value: of.headFriction ?? 0, quantity: 'coefficient' },
            { key: 'dm', label: 'mean diameter under the head', value: of.headMeanDiameterMm ?? 0, quantity: 'length' },
          ] as const)
        : ([{ key: 'K', label: 'nut factor', value: of.nutFactor ?? 0, quantity: 'coefficient' }] as const)),
      {
        key: 'proof',
        label: 'proof load',
        value: boltLoad({ ...of, nutFactor: of.nutFactor ?? 0.2 }).proofMPa * stressAreaMm2,
        quantity: 'force',
      },
    ],
    sources: [
      {
        kind: 'standard',
        text: long ? 'VDI 2230; ISO 898-1, SAE J429' : 'Shigley; ISO 898-1, SAE J429',
        fromMemory: true,
      },
      {
        kind: 'guard-band',
        text: 'friction scatters by a quarter either way: ours. Torsion while tightening is not counted.',
      },
    ],
    result: { label: 'of proof', quantity: share ? 'coefficient' : 'percent' },
    compute: ({ T = 0, mt, mh, dm, K }) => {
      const found = boltClamp({
        ...of,
        torqueNm: T,
        ...(mt === undefined ? {} : { threadFriction: mt }),
        ...(mh === undefined ? {} : { headFriction: mh }),
        ...(dm === undefined ? {} : { headMeanDiameterMm: dm }),
        ...(K === undefined ? {} : { nutFactor: K }),
      });
      return {
        value: (share ? 1 : 100) * found.ofProof,
        steps: [
          { label: 'clamp', value: found.clampN, quantity: 'force' },
          { label: 'where friction is high', value: 100 * found.low.ofProof, quantity: 'percent' },
          { label: 'where friction is low', value: 100 * found.high.ofProof, quantity: 'percent' },
          { label: 'torque for three quarters', value: found.wantedNm, quantity: 'torque' },
        ],
      };
    },
  });
}

export function explainTorque(of: Parameters<typeof boltTorque>[0]): Working {
  return explain({
    title: 'Tightening torque, thread and head apart',
    formula: 'T = F·(p/2π + μ thread · d₂/(2·cos β) + μ head · D_m/2)',
    inputs: [
      { key: 'F', label: 'preload', value: of.preloadN, quantity: 'force' },
      { key: 'p', label: 'pitch', value: of.pitchMm, quantity: 'length' },
      { key: 'd2', label: 'pitch diameter', value: of.pitchDiameterMm, quantity: 'length' },
      { key: 'dm', label: 'mean diameter under the head', value: of.headMeanDiameterMm, quantity: 'length' },
      { key: 'mt', label: 'friction in the thread', value: of.threadFriction, quantity: 'coefficient' },
      { key: 'mh', label: 'friction under the head', value: of.headFriction, quantity: 'coefficient' },
      { key: 'beta', label: 'half of the thread angle', value: of.halfAngleDeg, quantity: 'angle' },
    ],
    sources: [{ kind: 'standard', text: 'VDI 2230', fromMemory: true }],
    result: { label: 'torque', quantity: 'torque' },
    compute: ({ F = 0, p = 0, d2 = 0, dm = 0, mt = 0, mh = 0, beta = 0 }) => {
      const { torqueNm, shares, loosenNm } = boltTorque({
        preloadN: F,
        pitchMm: p,
        pitchDiameterMm: d2,
        headMeanDiameterMm: dm,
        threadFriction: mt,
        headFriction: mh,
        halfAngleDeg: beta,
      });
      return {
        value: torqueNm,
        steps: [
          { label: 'stretches the bolt', value: shares.preload, quantity: 'torque' },
          { label: 'friction in the thread', value: shares.thread, quantity: 'torque' },
          { label: 'friction under the head', value: shares.head, quantity: 'torque' },
          { label: 'to undo it, without threadlocker', value: loosenNm, quantity: 'torque' },
        ],
      };
    },
  });
}

export function explainBottoming(of: Parameters<typeof bottoming>[0]): Working {
  return explain({
    title: 'Room under a bolt',
    formula: 'clearance = least of hole and full thread + flange + washer − length under the head',
    inputs: [
      { key: 'bolt', label: 'length under the head', value: of.boltUnderHeadMm, quantity: 'length' },
      { key: 'flange', label: 'flange', value: of.flangeMm, quantity: 'length' },
      { key: 'washer', label: 'washer', value: of.washerMm, quantity: 'length' },
      { key: 'hole', label: 'depth of the hole', value: of.holeDepthMm, quantity: 'length' },
      { key: 'thread', label: 'full thread', value: of.threadDepthMm, quantity: 'length' },
    ],
    sources: [
      { kind: 'exact', text: 'lengths in one line' },
      { kind: 'trade', text: 'at least one diameter of thread in steel; below three quarters no joint, ours' },
    ],
    result: { label: 'clearance', quantity: 'length' },
    compute: ({ bolt = 0, flange = 0, washer = 0, hole = 0, thread = 0 }) => {
      const found = bottoming({
        ...of,
        boltUnderHeadMm: bolt,
        flangeMm: flange,
        washerMm: washer,
        holeDepthMm: hole,
        threadDepthMm: thread,
      });
      return {
        value: found.clearanceMm,
        steps: [{ label: 'thread that holds', value: found.engagementMm, quantity: 'length' }],
      };
    },
  });
}

export function explainCapacity(of: Parameters<typeof jointCapacity>[0]): Working {
  return explain({
    title: 'Torque that the ring joint holds by friction',
    formula: 'T = bolts · F · μ · bolt circle/2',
    inputs: [
      { key: 'n', label: 'bolts', value: of.bolts, quantity: 'count' },
      { key: 'F', label: 'preload of one', value: of.preloadN, quantity: 'force' },
      { key: 'mu', label: 'friction between the faces', value: of.friction, quantity: 'coefficient' },
      { key: 'circle', label: 'bolt circle', value: of.boltCircleMm, quantity: 'length' },
    ],
    sources: [
      { kind: 'exact', text: 'Coulomb friction' },
      { kind: 'trade', text: 'stop below 1, watch below 1.5 of what arrives', fromMemory: true },
    ],
    result: { label: 'before it slips', quantity: 'torque' },
    compute: ({ n = 0, F = 0, mu = 0, circle = 0 }) => ({
      value: jointCapacity({ ...of, bolts: n, preloadN: F, friction: mu, boltCircleMm: circle }).slipTorqueNm,
    }),
  });
}

export function explainHeat(of: Parameters<typeof heatToFit>[0]): Working {
  return explain({
    title: 'Heat to slide it on',
    formula: 'T = T now + (interference + slide clearance) ÷ (α·D)',
    inputs: [
      { key: 'now', label: 'now', value: of.startC, quantity: 'temperature' },
      { key: 'D', label: 'diameter', value: of.diameterMm, quantity: 'length' },
      { key: 'i', label: 'interference, on the diameter', value: of.interferenceMm, quantity: 'length' },
      { key: 's', label: 'clearance to slide', value: of.slideClearanceMm, quantity: 'length' },
      {
        key: 'alpha',
        label: 'expansion, millionths a kelvin',
        value: EXPANSION[of.material] * 1e6,
        quantity: 'coefficient',
      },
    ],
    sources: [
      { kind: 'exact', text: 'expansion' },
      { kind: 'guard-band', text: 'watch from 150 °C; stop at the sheet’s limit, 190 °C where it says nothing: ours' },
    ],
    result: { label: 'warm it to', quantity: 'temperature' },
    compute: ({ now = 0, D = 0, i = 0, s = 0, alpha = 0 }) => ({ value: now + (i + s) / (alpha * 1e-6 * D) }),
  });
}
