import { LIMITS, SHAFT_LIMITS, SPLINE_ANGLES } from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import '../base/zod';
import * as z from 'zod';

/** Shear yield by material, MPa: tensile yield/√3; general figures, from memory, no maker’s. */
export const MATERIALS = {
  'carbon-hardened': { label: 'Carbon steel, induction hardened', shearMPa: 550 },
  'alloy-hardened': { label: 'Alloy steel, hardened and tempered', shearMPa: 690 },
  'high-nickel': { label: 'High-nickel alloy, hardened', shearMPa: 850 },
  maraging: { label: 'Maraging steel', shearMPa: 1090 },
  unknown: { label: 'Not known', shearMPa: 550 },
} as const;
export type Material = keyof typeof MATERIALS;
export const MATERIAL_KEYS = Object.keys(MATERIALS) as [Material, ...Material[]];

const length = entrySchema('length', { min: 0, max: SHAFT_LIMITS.lengthMm.max, unit: 'mm' });
const angle = entrySchema('angle', SHAFT_LIMITS.jointDeg);

const shear = z.number().gt(0).max(SHAFT_LIMITS.stressMPa.max).nullable();

/** What the torsion of one end of a shaft is reckoned from. */
const twistedKeys = {
  splines: z.int().min(SHAFT_LIMITS.splineTeeth.min).max(SHAFT_LIMITS.splineTeeth.max),
  /** Diametral pitch of the spline. */
  pitch: z.int().min(SHAFT_LIMITS.diametralPitch.min).max(SHAFT_LIMITS.diametralPitch.max),
  /** Pressure angle of the spline, degrees. */
  angle: z.literal(SPLINE_ANGLES),
  material: z.enum(MATERIAL_KEYS),
  /** In place of the table’s, by the maker’s sheet. */
  shear,
  /** Thinnest place outside the spline; null where that is the spline. */
  neck: entrySchema('length', SHAFT_LIMITS.diameterMm).nullable(),
  /** Bore of a hollow one; null: solid. */
  bore: entrySchema('length', SHAFT_LIMITS.diameterMm).nullable(),
};

const shaft = z.strictObject({
  ...twistedKeys,
  /** Spline in its gear at full travel. */
  engagement: length.nullable(),
  /** From the end of the shaft to cross pin or block. */
  pinGap: length.nullable(),
  /** End float of clip or bearing. */
  float: length.nullable(),
});

/** Shafts of an axle, and the shaft that drives it; null what nobody has measured. */
export const shaftsSchema = z.strictObject({
  left: shaft,
  right: shaft,
  prop: z
    .strictObject({
      outer: entrySchema('length', SHAFT_LIMITS.diameterMm),
      wall: entrySchema('length', SHAFT_LIMITS.diameterMm),
      between: entrySchema('length', SHAFT_LIMITS.lengthMm),
      frontAngle: angle,
      rearAngle: angle,
      /** Whether the yokes of both ends stand alike. */
      inPhase: z.boolean(),
      /** Of the tube. */
      material: z.enum(MATERIAL_KEYS),
      shear,
      /** Most torque of a joint by its maker; null where nobody has read it. */
      jointTorque: entrySchema('torque', { above: 0, max: LIMITS.torqueNm.max, unit: 'N·m' }).nullable(),
    })
    .nullable(),
  /** The end of the pinion that the flange sits on; null where nobody has measured it. */
  pinion: z.strictObject(twistedKeys).nullable(),
});

export type Shafts = z.infer<typeof shaftsSchema>;
export type Shaft = z.infer<typeof shaft>;
/** One end in torsion: of a side shaft, or of the pinion. */
export type Twisted = Pick<Shaft, 'splines' | 'pitch' | 'angle' | 'material' | 'shear' | 'neck' | 'bore'>;

/** Its part of the document. */
export const shaftSlice = {
  /** Its shafts and the prop shaft; null while nobody has said. */
  axle: { shafts: shaftsSchema.nullable() },
} as const;

declare module '../frame/document' {
  interface AxleSlices {
    shafts: Shafts | null;
  }
}
