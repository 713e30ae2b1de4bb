import { InputError } from '@hot-spline/core';
import '../base/zod';
import * as z from 'zod';
import { calculations } from '../assembly/calculations';
import { openApi } from '../wire/openapi';

/** Names and keys of the public interface, with the values that it promises. */
const promised: [string, unknown, Record<string, unknown>][] = [
  ['tyre.size', { designation: '245/40R18' }, { overallDiameterMm: 653.2, form: 'metric' }], // [standard: ISO 4000-1]
  [
    'gearing.speed',
    { rollingCircumferenceMm: 2000, gearRatio: 1, finalRatio: 4, rpm: 6000 },
    { speedKmh: 180, speedMph: 111.8468 },
  ], // [exact]
  ['gearing.rpm', { rollingCircumferenceMm: 2000, gearRatio: 1, finalRatio: 4, speedKmh: 180 }, { rpm: 6000 }], // [exact]
  ['gearing.teeth', { ring: 41, pinion: 11 }, { ratio: 3.72727, hunting: 'hunting' }], // [exact]
  [
    'pack.interfaces',
    {
      members: [
        { keyedTo: 'gear', lined: false },
        { keyedTo: 'case', lined: false },
        { keyedTo: 'gear', lined: true },
      ],
    },
    { interfaces: 1 }, // [exact, definition]
  ],
  [
    'pack.breakaway',
    {
      frictionCoefficient: 0.1,
      interfaces: 4,
      clampN: 2000,
      outerRadiusMm: 50,
      innerRadiusMm: 35,
      wearModel: 'uniform-wear',
    },
    { perPackNm: 34, wheelOtherHeldNm: 34, wheelCarrierHeldNm: 68 }, // [standard: Shigley; equilibrium exact]
  ],
  [
    'spring.disc',
    {
      outerDiameterMm: 50,
      innerDiameterMm: 25.4,
      thicknessMm: 3,
      coneHeightMm: 1.1,
      travelMm: 0.825,
      youngGPa: 206,
      poisson: 0.3,
    },
    { forceN: 11976 }, // [standard: EN 16983 tables, from memory]
  ],
  [
    'unit.lock',
    {
      frictionCoefficient: 0.1,
      interfacesPerPack: 6,
      meanRadiusMm: 45,
      pinRadiusMm: 30,
      ramp: { angleDeg: 60, from: 'rotation-plane' },
      preloadNm: 60,
      inputNm: 400,
    },
    { lockNm: 207.85, lockingValue: 0.5196, biasRatio: 3.163, solid: false }, // springs in series [exact]
  ],
  [
    'unit.lock',
    {
      frictionCoefficient: 0.1,
      interfacesPerPack: 6,
      meanRadiusMm: 45,
      pinRadiusMm: 30,
      ramp: { angleDeg: 60, from: 'rotation-plane' },
      preloadNm: 60,
      preloadActs: 'parallel',
      inputNm: 400,
    },
    { lockNm: 267.85, lockingValue: 0.6696, biasRatio: 5.054, solid: false }, // in parallel they add [exact]
  ],
  [
    'pack.shims',
    {
      sides: [
        { fixedMm: 15.7, targetMm: 16.6 },
        { fixedMm: 15.72, targetMm: 16.6 },
      ],
      stock: [{ thicknessMm: 0.9, count: 2 }],
      maxPiecesPerSide: 3,
    },
    { worstErrorMm: 0.02, provenBest: true }, // 15.72 + 0.9 − 16.6 [exact]
  ],
  [
    'road.run',
    {
      massKg: 1300,
      engine: { constantPowerW: 300_000 },
      finalRatio: 4,
      driveline: { efficiency: 1, inertiaFactor: 1 },
      tyre: { rollingRadiusMm: 300, grip: 100_000 },
      aero: { dragAreaM2: 0 },
      rollingCoefficient: 0,
      driven: { staticShare: 0.5, cgHeightMm: 0, wheelbaseMm: 2500 },
      distanceM: 402.336,
    },
    { timeS: 9.241, speedMps: 65.307 }, // [standard: Fox, Am. J. Phys. 41 (1973), from memory]
  ],
  [
    'joint.capacity',
    { bolts: 10, preloadN: 50_000, friction: 0.15, boltCircleMm: 150, ringTorqueNm: 4000 },
    { slipTorqueNm: 5625, margin: 1.40625, verdict: 'watch' }, // [exact; guard common practice]
  ],
  [
    'joint.bolt',
    { thread: '1/2-20', grade: '8', nutFactor: 0.2 },
    // 0.75 · 120 ksi · 0.1599 in², K·d·F about 120 lbf·ft [standards: ASME B1.1, SAE J429, Shigley]
    { stressAreaMm2: 103.19, preloadN: 64_031, torqueNm: 162.64 },
  ],
  [
    'joint.torque',
    {
      preloadN: 50_000,
      pitchMm: 1.25,
      pitchDiameterMm: 9.188,
      headMeanDiameterMm: 13,
      threadFriction: 0.12,
      headFriction: 0.1,
      halfAngleDeg: 30,
    },
    { torqueNm: 74.275 }, // [standard: VDI 2230, from memory; by hand]
  ],
  [
    'joint.bottoming',
    {
      boltUnderHeadMm: 25.4,
      flangeMm: 10.16,
      washerMm: 0,
      holeDepthMm: 17.78,
      threadDepthMm: 16.51,
      threadDiameterMm: 12.7,
      boltShankMm: 8,
    },
    { clearanceMm: 1.27, engagementMm: 15.24, verdict: 'fits' }, // [exact]
  ],
  [
    'fit.heat',
    { diameterMm: 177.8, interferenceMm: 0.05, slideClearanceMm: 0.05, startC: 21, material: 'steel' },
    { targetC: 69.071 }, // 21 + 0.1/(11.7e-6 · 177.8) [exact]
  ],
  [
    'shaft.spline',
    { teeth: 31, diametralPitch: 24, shearLimitMPa: 690 },
    { majorMm: 33.8667, minorMm: 31.3796, torqueNm: 4186.2 }, // [standard: ANSI B92.1, from memory; torsion exact]
  ],
  ['shaft.torsion', { diameterMm: 33.9, torqueNm: 3000, shearYieldMPa: 690 }, { shearMPa: 392.2 }], // [exact]
  [
    'shaft.critical',
    { outerDiameterMm: 76.2, innerDiameterMm: 72.9, lengthMm: 1400, youngGPa: 206, densityKgM3: 7850 },
    { criticalRpm: 6491 }, // 4.752e6·√(3.000² + 2.870²)/55.118² in inches [standard: beam theory]
  ],
];

describe('calculations', () => {
  for (const [name, input, output] of promised) {
    it(`${name} keeps its keys and values`, () => {
      const result = calculations.run(name, input);
      for (const [key, value] of Object.entries(output)) {
        if (typeof value === 'number')
          expect((result[key] as number) / value)
            .withContext(key)
            .toBeCloseTo(1, 3);
        else expect(result[key]).withContext(key).toEqual(value);
      }
    });

    it(`${name} explains itself with the same value`, () => {
      const result = calculations.run(name, input, true);
      const working = result['working'] as { result: { value: number }; sources: unknown[]; formula: string };
      expect(working.formula.length).toBeGreaterThan(5);
      expect(working.sources.length).toBeGreaterThan(0);
      const numbers = Object.values(result).filter((v): v is number => typeof v === 'number');
      expect(numbers.some((v) => Math.abs(v - working.result.value) < 1e-9)).toBeTrue();
    });
  }

  it('every example in the registry runs and meets its own output schema', () => {
    for (const calculation of calculations.all()) {
      const output = calculations.run(calculation.name, calculation.example);
      expect(calculation.output.safeParse(output).success).withContext(calculation.name).toBeTrue();
    }
  });

  /** Puts a bad value into every numeric key, one at a time. */
  const bads: unknown[] = ['', 'abc', -1, Number.NaN, 1e308, null, [], {}, true];
  for (const calculation of calculations.all()) {
    it(`${calculation.name} refuses bad input by field`, () => {
      const example = calculation.example as Record<string, unknown>;
      const keys = (
        calculations.describe(calculation.name).input as { properties: Record<string, { minimum?: number }> }
      ).properties;
      for (const key of Object.keys(example).filter((k) => typeof example[k] === 'number')) {
        const signed = (keys[key]?.minimum ?? 0) <= -1;
        for (const bad of signed ? [...bads.filter((one) => one !== -1), -1e6] : bads) {
          try {
            calculations.run(calculation.name, { ...example, [key]: bad });
            fail(`${calculation.name} took ${key} = ${String(bad)}`);
          } catch (error) {
            expect(error).toBeInstanceOf(InputError);
            expect((error as InputError).field).toBe(key);
            expect((error as InputError).message).toContain(key);
            expect((error as InputError).allowed).not.toBe('');
          }
        }
      }
      expect(() => calculations.run(calculation.name, { ...example, extra: 1 })).toThrowError(
        /extra is not a known key/,
      );
      expect(() => calculations.run(calculation.name, {})).toThrowError(/is missing/);
      expect(() => calculations.run(calculation.name, null)).toThrowError(InputError);
    });
  }

  it('refuses an unknown name and lists the known ones', () => {
    expect(() => calculations.run('pack.magic', {})).toThrowMatching(
      (e) => e instanceof InputError && e.field === 'name' && e.allowed.includes('pack.breakaway'),
    );
  });

  it('describes every calculation as JSON Schema and OpenAPI', () => {
    const api = openApi('1') as {
      paths: Record<string, { post: { requestBody: { content: Record<string, { schema: object }> } } }>;
    };
    const described = Object.keys(api.paths).filter((path) => /^\/api\/calc\/[^{]/.test(path));
    expect(described.map((path) => path.slice('/api/calc/'.length)).sort()).toEqual(calculations.names());
    const schema = api.paths['/api/calc/gearing.teeth']?.post.requestBody.content['application/json']?.schema;
    expect(schema).toEqual(jasmine.objectContaining({ required: ['ring', 'pinion'], additionalProperties: false }));
    // the published schema accepts what the registry accepts
    expect(
      z.fromJSONSchema(schema as Parameters<typeof z.fromJSONSchema>[0]).safeParse({ ring: 41, pinion: 11 }).success,
    ).toBeTrue();
  });

  it('solid units have no bias ratio', () => {
    const solid = calculations.run('unit.lock', {
      ...(promised[7]?.[1] as object),
      ramp: { angleDeg: 30, from: 'rotation-plane' },
    });
    expect(solid['solid']).toBeTrue();
    expect(solid['biasRatio']).toBeNull();
  });
});
