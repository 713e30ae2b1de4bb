import { LIMITS, MESH_LIMITS, entryBase, type NumberRange, type Quantity, type Scale } from '@hot-spline/core/page';
import { entrySchema } from '../base/entry-schema';
import '../base/zod';
import * as z from 'zod';
import { ORIGINS, type Origin } from './origins';

interface Field {
  readonly label: string;
  /** What of: a band has two ends, a text is as written. */
  readonly of: 'band' | 'one' | 'count' | 'text';
  readonly quantity: Quantity;
  readonly scale?: Scale;
  readonly range: NumberRange;
}

const torqueRange = { min: 0, max: LIMITS.torqueNm.max, unit: 'N·m' };
const small = { quantity: 'length', scale: 'small', range: { min: 0, max: 10, unit: 'mm' } } as const;
const turning = { of: 'band', quantity: 'torque', scale: 'turning', range: torqueRange } as const;
const bolt = { of: 'one', quantity: 'torque', scale: 'bolt', range: torqueRange } as const;
const open = {
  of: 'one',
  quantity: 'time',
  scale: 'work',
  range: { above: 0, max: 86_400, unit: 's' },
} as const;
const text = { of: 'text', quantity: 'count', range: { min: 0, max: 0 } } as const;

/** What the maker's sheet of an axle says, by name, in the order of the work. */
export const SHEET_FIELDS = {
  backlash: { label: 'Backlash', of: 'band', ...small },
  endFloat: { label: 'End float', of: 'band', ...small },
  runout: { label: 'Run-out of the ring', of: 'one', ...small },
  variation: { label: 'Variation of backlash', of: 'one', ...small },
  pinionTorqueNew: { label: 'Pinion turning torque, new bearings', ...turning },
  pinionTorqueUsed: { label: 'Pinion turning torque, used bearings', ...turning },
  totalTorque: { label: 'Total turning torque', ...turning },
  carrierPreload: { label: 'Carrier preload over zero play', of: 'one', ...small },
  carrierTorque: { label: 'Turning torque of the carrier alone', ...turning },
  caseGrowth: { label: 'Growth of the case across the caps', of: 'band', ...small },
  spreadLimit: { label: 'Most case spread', of: 'one', ...small },
  mountingDistance: {
    label: 'Nominal mounting distance',
    of: 'one',
    quantity: 'length',
    range: { above: 0, max: 1000, unit: 'mm' },
  },
  bearingBore: { label: 'Carrier bearing bore', of: 'one', quantity: 'length', range: LIMITS.diameterMm },
  adjusterPitch: {
    label: 'Thread pitch of the adjusters',
    of: 'one',
    quantity: 'length',
    range: MESH_LIMITS.threadPitchMm,
  },
  adjusterNotches: { label: 'Notches of an adjuster', of: 'count', quantity: 'count', range: MESH_LIMITS.notches },
  adjusterWrench: { label: 'Wrench for the adjusters', ...text },
  pinionNutPitch: {
    label: 'Thread pitch of the pinion nut',
    of: 'one',
    quantity: 'length',
    range: MESH_LIMITS.threadPitchMm,
  },
  ringBoltTorque: { label: 'Ring bolts', ...bolt },
  capTorque: { label: 'Cap bolts', ...bolt },
  adjusterTorque: { label: 'Adjusters', ...bolt },
  pinionNutTorque: { label: 'Pinion nut', ...bolt },
  coverTorque: { label: 'Cover bolts', ...bolt },
  retentionTorque: { label: 'Shaft retention', ...bolt },
  wheelEndTorque: { label: 'Wheel end', ...bolt },
  compoundOpen: { label: 'Compound, open time', ...open },
  sealantOpen: { label: 'Sealant, open time', ...open },
  fluid: { label: 'Oil', ...text },
  volume: {
    label: 'Oil volume',
    of: 'text',
    quantity: 'count',
    range: { min: 0, max: 0 },
  },
  additive: { label: 'Additive', ...text },
} as const satisfies Record<string, Field>;

export type SheetKey = keyof typeof SHEET_FIELDS;
export const SHEET_KEYS = Object.keys(SHEET_FIELDS) as SheetKey[];
export const sheetField = (key: SheetKey): Field => SHEET_FIELDS[key];

const bandOf = ({ quantity, range }: Field) =>
  z
    .strictObject({ low: entrySchema(quantity, range), high: entrySchema(quantity, range) })
    .superRefine(({ low, high }, context) => {
      if (entryBase(high) < entryBase(low))
        context.addIssue({
          code: 'custom',
          path: ['high'],
          message: 'is below the lower limit: the band is upside down',
        });
    });

const told = <S extends z.ZodType>(value: S) =>
  z
    .strictObject({
      value,
      origin: z.enum(ORIGINS),
      /** Page, picture, axle or person that it was read from. */
      where: z.string().trim().max(120),
    })
    .nullable();

const band = <K extends SheetKey>(key: K) => told(bandOf(sheetField(key)));
const one = <K extends SheetKey>(key: K) => told(entrySchema(sheetField(key).quantity, sheetField(key).range));
const words = () => told(z.string().trim().min(1).max(120));

/** The spec sheet as data: each value with where it was read; null what nobody has said. */
export const sheetSchema = z.strictObject({
  backlash: band('backlash'),
  endFloat: band('endFloat'),
  runout: one('runout'),
  variation: one('variation'),
  pinionTorqueNew: band('pinionTorqueNew'),
  pinionTorqueUsed: band('pinionTorqueUsed'),
  totalTorque: band('totalTorque'),
  carrierPreload: one('carrierPreload'),
  carrierTorque: band('carrierTorque'),
  caseGrowth: band('caseGrowth'),
  spreadLimit: one('spreadLimit'),
  mountingDistance: one('mountingDistance'),
  bearingBore: one('bearingBore'),
  adjusterPitch: one('adjusterPitch'),
  adjusterNotches: told(z.int().min(MESH_LIMITS.notches.min).max(MESH_LIMITS.notches.max)),
  adjusterWrench: words(),
  pinionNutPitch: one('pinionNutPitch'),
  ringBoltTorque: one('ringBoltTorque'),
  capTorque: one('capTorque'),
  adjusterTorque: one('adjusterTorque'),
  pinionNutTorque: one('pinionNutTorque'),
  coverTorque: one('coverTorque'),
  retentionTorque: one('retentionTorque'),
  wheelEndTorque: one('wheelEndTorque'),
  compoundOpen: one('compoundOpen'),
  sealantOpen: one('sealantOpen'),
  fluid: words(),
  volume: words(),
  additive: words(),
});

export type SpecSheet = z.infer<typeof sheetSchema>;

/** A sheet on which nobody has said anything. */
export const emptySheet = (): SpecSheet =>
  Object.fromEntries(SHEET_KEYS.map((key) => [key, null])) as unknown as SpecSheet;

const WEAK: readonly Origin[] = ['not-said', 'said', 'memory', 'borrowed', 'guess'];

/** What is only said, remembered, borrowed or guessed: good for planning, never for a step that can't be taken back. */
export const isWeak = (origin: Origin): boolean => WEAK.includes(origin);
