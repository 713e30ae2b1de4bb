import {
  LIMITS,
  SHAFT_LIMITS,
  SPLINE_ANGLES,
  criticalSpeed,
  explain,
  jointAngle,
  spline,
  torsion,
} from '@hot-spline/core';
import { number, out, plain } from '../frame/calc-keys';
import { defineCalculation } from '../frame/calculations';
import '../base/zod';
import * as z from 'zod';

const boreMm = number({ min: 0, max: SHAFT_LIMITS.diameterMm.max, unit: 'mm' });

/** Shafts and the splines at their ends. */
export const shaftCalculations = [
  defineCalculation({
    name: 'shaft.spline',
    summary: 'Diameters of an involute spline, and the torque at its shear limit.',
    input: z.strictObject({
      teeth: number(SHAFT_LIMITS.splineTeeth),
      diametralPitch: number(SHAFT_LIMITS.diametralPitch),
      shearLimitMPa: number(SHAFT_LIMITS.stressMPa),
      pressureAngleDeg: z.literal(SPLINE_ANGLES).default(30),
      boreMm: boreMm.default(0),
    }),
    output: z.object({ majorMm: out, minorMm: out, torqueNm: out }),
    example: { teeth: 31, diametralPitch: 24, shearLimitMPa: 690 },
    run: (of) => spline(of),
    explain: (of) =>
      explain({
        title: 'Torque of a spline at its minor diameter',
        formula: 'T = π·(d⁴ − b⁴)·τ/(16·d), d = (N − 1.35)/P at 30°, (N − 1.3)/P at 37.5°, (N − 1)/P at 45°',
        inputs: [
          { key: 'N', label: 'teeth', value: of.teeth, quantity: 'count' },
          { key: 'P', label: 'diametral pitch, 1/in', value: of.diametralPitch, quantity: 'coefficient' },
          { key: 'tau', label: 'shear limit, MPa', value: of.shearLimitMPa, quantity: 'coefficient' },
          { key: 'bore', label: 'bore', value: of.boreMm, quantity: 'length' },
        ],
        sources: [
          { kind: 'standard', text: 'ANSI B92.1; at 30° flat root', fromMemory: true },
          { kind: 'exact', text: 'torsion; stress concentration and tooth bearing are not counted' },
        ],
        result: { label: 'torque', quantity: 'torque' },
        compute: ({ N = 0, P = 0, tau = 0, bore = 0 }) => {
          const found = spline({ ...of, teeth: N, diametralPitch: P, shearLimitMPa: tau, boreMm: bore });
          return {
            value: found.torqueNm,
            steps: [
              { label: 'major diameter', value: found.majorMm, quantity: 'length' },
              { label: 'minor diameter', value: found.minorMm, quantity: 'length' },
            ],
          };
        },
      }),
  }),
  defineCalculation({
    name: 'shaft.torsion',
    summary: 'Shear stress of a round in torsion, solid or hollow, and its margin against yield.',
    input: z.strictObject({
      diameterMm: number(SHAFT_LIMITS.diameterMm),
      torqueNm: number(LIMITS.torqueNm),
      shearYieldMPa: number(SHAFT_LIMITS.stressMPa),
      boreMm: boreMm.default(0),
    }),
    output: z.object({ shearMPa: out, margin: out.nullable() }),
    example: { diameterMm: 33.9, torqueNm: 3000, shearYieldMPa: 690 },
    run: (of) => torsion(of),
    explain: (of) =>
      explain({
        title: 'Shear stress in torsion',
        formula: 'τ = 16·T·d/(π·(d⁴ − b⁴))',
        inputs: [
          { key: 'T', label: 'torque', value: of.torqueNm, quantity: 'torque' },
          { key: 'd', label: 'diameter', value: of.diameterMm, quantity: 'length' },
          { key: 'b', label: 'bore', value: of.boreMm, quantity: 'length' },
        ],
        sources: [{ kind: 'exact', text: 'torsion of a round' }],
        result: { label: 'shear stress, MPa', quantity: 'coefficient' },
        compute: ({ T = 0, d = 1, b = 0 }) => ({
          value: torsion({ ...of, torqueNm: T, diameterMm: d, boreMm: b }).shearMPa,
        }),
      }),
  }),
  defineCalculation({
    name: 'shaft.critical',
    summary: 'First critical speed of a tube between two joints, and three quarters of it.',
    input: z.strictObject({
      outerDiameterMm: number(SHAFT_LIMITS.diameterMm),
      innerDiameterMm: number(SHAFT_LIMITS.innerMm),
      lengthMm: number(SHAFT_LIMITS.lengthMm),
      youngGPa: number(LIMITS.youngGPa),
      densityKgM3: number(SHAFT_LIMITS.densityKgM3),
    }),
    output: z.object({ criticalRpm: out, usableRpm: out }),
    example: { outerDiameterMm: 76.2, innerDiameterMm: 72.9, lengthMm: 1400, youngGPa: 206, densityKgM3: 7850 },
    run: (of) => criticalSpeed(of),
    explain: (of) =>
      explain({
        title: 'First critical speed of a prop shaft',
        formula: 'n = 60 · (π/2) · √(E/ρ · (D² + d²)/16) ÷ L²',
        inputs: [
          { key: 'D', label: 'outside', value: of.outerDiameterMm, quantity: 'length' },
          { key: 'd', label: 'bore', value: of.innerDiameterMm, quantity: 'length' },
          { key: 'L', label: 'between the joints', value: of.lengthMm, quantity: 'length' },
          { key: 'E', label: 'Young’s modulus, GPa', value: of.youngGPa, quantity: 'coefficient' },
          { key: 'rho', label: 'density, kg/m³', value: of.densityKgM3, quantity: 'coefficient' },
        ],
        sources: [
          { kind: 'standard', text: 'beam theory, pinned ends, thin beam' },
          { kind: 'guard-band', text: 'three quarters of it at most', fromMemory: true },
        ],
        result: { label: 'critical', quantity: 'rotation' },
        compute: ({ D = 1, d = 0, L = 1, E = 0, rho = 1 }) => ({
          value: criticalSpeed({
            outerDiameterMm: D,
            innerDiameterMm: d,
            lengthMm: L,
            youngGPa: E,
            densityKgM3: rho,
          }).criticalRpm,
        }),
      }),
  }),
  defineCalculation({
    name: 'shaft.joint',
    summary: 'Whether a universal joint, or the two of a prop shaft together, may run at their angles at a speed.',
    input: z.strictObject({
      rpm: number(LIMITS.rpm),
      angleDeg: number(SHAFT_LIMITS.jointDeg),
      otherAngleDeg: number(SHAFT_LIMITS.jointDeg).optional(),
      inPhase: z.boolean().default(true),
    }),
    output: z.object({ swingRadS2: out, rpmDegrees: out, verdict: z.enum(['fits', 'watch', 'stop']) }),
    example: { rpm: 4000, angleDeg: 3 },
    run: (of) => jointAngle(plain<Parameters<typeof jointAngle>[0]>(of)),
    explain: (of) =>
      explain({
        title: 'Swing that universal joints leave',
        formula: 'ω²·|θ₁² − θ₂²| in phase, ω²·(θ₁² + θ₂²) out of it; about 400 rad/s² comfortable, 1000 the end',
        inputs: [
          { key: 'n', label: 'speed', value: of.rpm, quantity: 'rotation' },
          { key: 'theta', label: 'angle', value: of.angleDeg, quantity: 'angle' },
          { key: 'other', label: 'angle of the other joint', value: of.otherAngleDeg ?? 0, quantity: 'angle' },
        ],
        sources: [
          { kind: 'standard', text: 'kinematics of the universal joint, small angles' },
          { kind: 'trade', text: 'trade table', fromMemory: true },
        ],
        result: { label: 'swing, rad/s²', quantity: 'coefficient' },
        compute: ({ n = 0, theta = 0, other = 0 }) => ({
          value: jointAngle({ rpm: n, angleDeg: theta, otherAngleDeg: other, inPhase: of.inPhase }).swingRadS2,
        }),
      }),
  }),
];
