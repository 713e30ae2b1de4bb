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
  {
    id: 'spider-gears',
    name: 'Spider and side gears',
    when: ({ unit }) => !['spool', 'helical', 'selectable-locker', 'automatic-locker'].includes(unit.type),
    findings: [
      fits(),
      watch('play more than before', 'Washers: measured against new ones.'),
      stop('pitted', 'Replace: what comes off goes through the bearings.'),
      stop('tight at one place', 'A bent tooth or a chip: not closed before it is found.'),
    ],
  },
  {
    id: 'shafts',
    name: 'Shafts, the new beside the old',
    when: always,
    findings: [
      fits('the same length, splines and flange'),
      watch('another length', 'Engagement at full travel, and the gap to pin or block, before it goes in.'),
      stop('other splines', 'They do not go together: nobody presses them in.'),
      stop('flange does not sit', 'Register, studs or hole circle: another shaft or hub.'),
    ],
  },
  {
    id: 'bores',
    name: 'Bores in line',
    when: meshes,
    findings: [
      fits('in line'),
      watch('not measured', 'A pattern that no shim mends points here.'),
      stop('out of line', 'Another case, or line-bored: no shim mends it.'),
    ],
  },
  {
    id: 'thrust-pad',
    name: 'Thrust pad and its gap',
    when: ({ identity }) => identity?.construction.value === 'drop-out' || identity?.construction.value === 'transaxle',
    findings: [
      fits('free, with its gap'),
      watch('none in this case', 'A ring that bends away under load has nothing to lean on.'),
      watch('touches', 'It rides on the ring all the time: set once the ring is, then locked.'),
      stop('worn through', 'Replace, and look at the back of the ring.'),
    ],
  },
  {
    id: 'wheel-bearings',
    name: 'Wheel bearings',
    when: ({ identity }) => (identity?.wheelBearing ?? null) !== null,
    findings: [
      fits('turn smooth, no play'),
      watch('play', 'Set or replaced while it is apart.'),
      stop('rough', 'Replace; look at what it runs on.'),
      stop('spun', 'Seat or tube end with it.'),
    ],
  },
  {
    id: 'drums',
    name: 'Brake drums',
    when: ({ identity }) => identity?.brake?.value === 'drum',
    findings: [
      fits(),
      watch('a lip', 'It holds the shoes when the drum comes off: turned off, within its limit.'),
      stop('over its diameter', 'Replace in pairs.'),
      stop('cracked', 'Replace in pairs.'),
    ],
  },
  {
    id: 'discs',
    name: 'Brake discs',
    when: ({ identity }) => identity?.brake?.value === 'disc',
    findings: [
      fits(),
      watch('a lip', 'Thickness measured, inside the lip.'),
      stop('below its thickness', 'Replace in pairs.'),
      stop('cracked', 'Replace in pairs.'),
    ],
  },
  {
    id: 'studs',
    name: 'Wheel studs',
    when: ({ identity }) => (identity?.wheelBearing ?? identity?.brake ?? null) !== null,
    findings: [
      fits(),
      watch('thread pulled', 'Another, pressed in.'),
      stop('turns in its hole', 'The flange is gone.'),
    ],
  },
];

export const inspectedParts = (axle: Axle): readonly InspectedPart[] => INSPECTED.filter(({ when }) => when(axle));
