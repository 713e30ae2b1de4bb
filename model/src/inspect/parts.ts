import type { Axle } from '../frame/document';
import type { Verdict } from '../frame/finding';

/** Something that is found on a part, and what it means. */
export interface PartFinding {
  readonly found: string;
  readonly means: string;
  readonly verdict: Exclude<Verdict, 'not-yet'>;
}

interface InspectedPart {
  readonly id: string;
  readonly name: string;
  readonly when: (axle: Axle) => boolean;
  readonly findings: readonly PartFinding[];
}

const fits = (found = 'good'): PartFinding => ({ found, means: 'Runs on.', verdict: 'fits' });
const watch = (found: string, means: string): PartFinding => ({ found, means, verdict: 'watch' });
const stop = (found: string, means: string): PartFinding => ({ found, means, verdict: 'stop' });

const always = (): boolean => true;
const meshes = ({ identity }: Axle): boolean => identity?.construction.value !== 'electric-reduction';
const clipped = ({ identity }: Axle): boolean => (identity?.retention?.value ?? 'c-clips') === 'c-clips';

/** What is looked at when an axle is apart, and what it means: common practice, no published source. */
export const INSPECTED: readonly InspectedPart[] = [
  {
    id: 'races',
    name: 'Bearing races',
    when: always,
    findings: [
      fits(),
      watch('frosted', 'Watch: looked at again soon.'),
      stop('pitted', 'All bearings, not this one alone.'),
      stop('spun', 'It eats shim and flange, and takes the preload with it.'),
    ],
  },
  {
    id: 'rollers',
    name: 'Rollers and cages',
    when: always,
    findings: [
      fits(),
      stop('pitted', 'All bearings.'),
      stop('blue', 'Ran dry or too tight: look for why.'),
      stop('cage bent', 'Replace.'),
    ],
  },
  {
    id: 'ring-and-pinion',
    name: 'Ring and pinion',
    when: meshes,
    findings: [
      fits(),
      watch('pattern off the middle', 'A worn pair goes back as it ran, or not at all.'),
      stop('chipped', 'A pair is lapped as one: both.'),
      stop('scored', 'Oil, load or depth: find which.'),
      stop('numbers do not agree', 'Not a pair.'),
    ],
  },
  {
    id: 'cross-pin',
    name: 'Cross pin',
    when: always,
    findings: [
      fits(),
      watch('scored', 'Replace with the spiders it ran in.'),
      stop('blue', 'Seized in its gears: replace.'),
    ],
  },
  {
    id: 'clips',
    name: 'C-clips',
    when: clipped,
    findings: [fits(), watch('worn', 'New ones cost little.'), stop('bent', 'Replace.')],
  },
  {
    id: 'caps',
    name: 'Bearing caps',
    when: meshes,
    findings: [
      fits(),
      watch('marks of somebody else', 'Photo, then marks of your own.'),
      stop('groove cut by a clip', 'A plate clip was adrift: the unit comes apart.'),
    ],
  },
  {
    id: 'case',
    name: 'Case and seats',
    when: always,
    findings: [
      fits(),
      watch('a burr', 'Stone it flat.'),
      watch('bores may be out of line', 'Measure them: an odd pattern points there.'),
      stop('cracked', 'Another case.'),
    ],
  },
  {
    id: 'holes',
    name: 'Ring bolt holes',
    when: meshes,
    findings: [
      fits(),
      watch('a lip at a hole', 'File it flat: a false seat.'),
      watch('old threadlocker', 'Clean and dry before the bottle opens.'),
      stop('thread damaged', 'Insert, or another carrier.'),
    ],
  },
  {
    id: 'seals',
    name: 'Seals and their lips',
    when: always,
    findings: [fits(), watch('hard', 'While it is open.'), stop('leaks', 'Replace now.'), stop('cut', 'Replace now.')],
  },
  {
    id: 'flange',
    name: 'Flange',
    when: meshes,
    findings: [
      fits(),
      watch('groove of the seal', 'Another depth of the seal, or a sleeve.'),
      stop('splines loose', 'It is softer than the pinion: replace.'),
    ],
  },
  {
    id: 'joints',
    name: 'Joints of shafts',
    when: always,
    findings: [fits(), watch('stiff', 'Replace while it is apart.'), stop('loose', 'Replace.')],
  },
  {
    id: 'splines',
    name: 'Splines',
    when: always,
    findings: [fits(), watch('stepped', 'Wear: look at the engagement.'), stop('twisted', 'It has yielded: replace.')],
  },
];

export const inspectedParts = (axle: Axle): readonly InspectedPart[] => INSPECTED.filter(({ when }) => when(axle));
