import '../base/zod';
import * as z from 'zod';

interface Option {
  readonly value: string;
  readonly label: string;
  /** Why somebody does it so. */
  readonly why: string;
}

interface School {
  readonly label: string;
  /** The first is what is done where the shop has not said otherwise. */
  readonly options: readonly [Option, Option, ...Option[]];
}

/** Where practitioners differ, and why: common practice, no published source. */
export const SCHOOLS = {
  wearModel: {
    label: 'Plates press by',
    options: [
      {
        value: 'uniform-wear',
        label: 'Uniform wear',
        why: 'Right for plates that have bedded in: what presses more wears more.',
      },
      {
        value: 'uniform-pressure',
        label: 'Uniform pressure',
        why: 'Right for new, flat plates; reads a little higher.',
      },
    ],
  },
  rampFrom: {
    label: 'Ramp angles are quoted',
    options: [
      { value: 'rotation-plane', label: 'From the plane of rotation', why: 'A smaller angle locks harder.' },
      {
        value: 'axis',
        label: 'From the axle’s axis',
        why: 'A larger angle locks harder; the same steel, the complement.',
      },
    ],
  },
  spacer: {
    label: 'Pinion spacer',
    options: [
      {
        value: 'collapsible',
        label: 'Collapsible',
        why: 'Quick; one way only: an overshoot is a new spacer, so have two.',
      },
      {
        value: 'solid',
        label: 'Solid, with shims',
        why: 'The nut is torqued fully and stays; takes a few readings to shim.',
      },
    ],
  },
  pinionPreload: {
    label: 'Pinion preload aims at',
    options: [
      { value: 'middle', label: 'The middle of the book', why: 'As the maker means it.' },
      { value: 'top', label: 'The top of the book', why: 'It falls as the bearings bed in.' },
      {
        value: 'heavy',
        label: 'Heavy, on purpose',
        why: 'Holds the pinion under shock; others say that it only adds wear.',
      },
    ],
  },
  carrierPreload: {
    label: 'Carrier preload by',
    options: [
      { value: 'shims', label: 'Shims over zero play', why: 'Zero-play total and the preload on top, by the spec.' },
      {
        value: 'adjusters',
        label: 'Adjusters in sequence',
        why: 'Ring side to zero backlash, then the other side opens it while it preloads.',
      },
      { value: 'spread', label: 'Case spread', why: 'Deflection across the caps, measured with an indicator.' },
      { value: 'turning', label: 'Turning torque', why: 'Total turning torque less that of the pinion.' },
    ],
  },
  backlashAim: {
    label: 'Backlash aims at',
    options: [
      { value: 'middle', label: 'The middle of the spec', why: 'Room on either side.' },
      { value: 'one-high', label: 'One thou high', why: 'Closing up takes about one thou.' },
      {
        value: 'as-worn',
        label: 'As the used set ran',
        why: 'A worn set that repeats its old pattern may keep its unusual backlash.',
      },
    ],
  },
  pinionDepth: {
    label: 'Pinion depth',
    options: [
      { value: 'gauge-first', label: 'Gauge first', why: 'Starts near; the pattern only confirms.' },
      {
        value: 'pattern-first',
        label: 'Pattern first',
        why: 'Starts from the shim that came out; the pattern decides anyway.',
      },
    ],
  },
  bearings: {
    label: 'Trial bearings',
    options: [
      {
        value: 'set-up',
        label: 'Set-up bearings',
        why: 'Slide on and off; same make and number, since heights differ between makes.',
      },
      {
        value: 'press-on',
        label: 'Pressed on each time',
        why: 'The final height is read, at the risk of the bearing.',
      },
    ],
  },
  ringGear: {
    label: 'Ring gear is',
    options: [
      { value: 'heated', label: 'Heated', why: 'Drops on square; the bolts are spared.' },
      {
        value: 'pulled-on',
        label: 'Pulled on',
        why: 'Refused: it strains the bolts and cocks the gear. A note overrides that.',
      },
    ],
  },
  threadlocker: {
    label: 'Threadlocker on ring bolts',
    options: [
      {
        value: 'high',
        label: 'High strength',
        why: 'Comes off with heat; counts as lubricated when torque is worked out.',
      },
      {
        value: 'medium',
        label: 'Medium strength',
        why: 'Comes off with tools; counts as lubricated when torque is worked out.',
      },
    ],
  },
  preloadOil: {
    label: 'Preload is read with',
    options: [
      { value: 'gear-oil', label: 'Gear oil', why: 'As it will run. A dry reading does not count.' },
      { value: 'engine-oil', label: 'Engine oil', why: 'At hand and thinner. A dry reading does not count.' },
    ],
  },
  pattern: {
    label: 'Patterns are taken with',
    options: [
      { value: 'paste', label: 'Marking paste', why: 'What a sign-off wants.' },
      { value: 'grease', label: 'Grease', why: 'For a look in between; the sign-off wants paste.' },
    ],
  },
} as const satisfies Record<string, School>;

export type SchoolKey = keyof typeof SCHOOLS;
type Values<K extends SchoolKey> = (typeof SCHOOLS)[K]['options'][number]['value'];

export const SCHOOL_KEYS = Object.keys(SCHOOLS) as SchoolKey[];

const choices = Object.fromEntries(
  SCHOOL_KEYS.map((key) => [key, z.enum(SCHOOLS[key].options.map(({ value }) => value))]),
) as unknown as { [K in SchoolKey]: z.ZodType<Values<K>> };

/** What a pattern is painted with for a look in between, as its reading names it. */
export const IN_BETWEEN: string = SCHOOLS.pattern.options[1].label;

/** What the shop does where nobody has said otherwise. */
export const USUAL_SCHOOLS = Object.fromEntries(SCHOOL_KEYS.map((key) => [key, SCHOOLS[key].options[0].value])) as {
  [K in SchoolKey]: Values<K>;
};

/**
 * Where practitioners differ: what this shop does. The first two are used where a plate unit is new to a build; a build
 * that has one keeps what it says.
 */
export const schoolsSchema = z
  .strictObject({
    kind: z.literal('schools'),
    name: z.string().trim().min(1).max(80),
    ...choices,
    /** Why a ring gear is pulled on after all. */
    ringGearNote: z.string().trim().max(300),
  })
  .refine(({ ringGear, ringGearNote }) => ringGear !== 'pulled-on' || ringGearNote !== '', {
    path: ['ringGearNote'],
    message: 'is needed where the ring gear is pulled on: that strains the bolts and cocks the gear',
  });

export type Schools = z.infer<typeof schoolsSchema>;
