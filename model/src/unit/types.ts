import type { Unit } from './schema';

export interface UnitTypeWords {
  readonly name: string;
  readonly holds: string;
  readonly suits: string;
  readonly against: string;
  /** What can hurt somebody. */
  readonly caution?: string;
}

const RAISED = 'A locker or spool on one raised wheel can drive the car off its stands.';

/** What each type holds by, what it is for and what speaks against it: common practice, no published source. */
export const UNIT_TYPE_WORDS: Readonly<Record<Unit['type'], UnitTypeWords>> = {
  plate: {
    name: 'Plate, with ramps',
    holds: 'Plates, clamped by preload and by ramps.',
    suits: 'Circuit, hill-climb, drift; tunable.',
    against: 'Wears, needs friction additive, can chatter.',
  },
  'side-gear-thrust': {
    name: 'Plate, side-gear thrust',
    holds: 'Plates, clamped by preload springs and by the thrust of the side gears.',
    suits: 'Street, towing, mild race.',
    against: 'Modest bias, wears.',
  },
  cone: {
    name: 'Cone',
    holds: 'Cones, clamped by springs and by the thrust of the side gears.',
    suits: 'Street, drag.',
    against: 'Not rebuildable in many cases.',
  },
  helical: {
    name: 'Helical',
    holds: 'Friction of gears that are thrust by the torque itself.',
    suits: 'Fit and forget: road, front axles.',
    against:
      'Not tunable. A wheel in the air gets nothing unless springs preload it or its brake is dabbed; a chipped gear wrecks it.',
  },
  hybrid: {
    name: 'Helical with late plates',
    holds: 'Gears, and plates that come in at high torque.',
    suits: 'Raid, mixed ground.',
    against: 'Rare, and its price.',
  },
  'friction-insert': {
    name: 'Friction insert',
    holds: 'Pressure plates and springs between the side gears of an open differential.',
    suits: 'A small budget.',
    against: 'Needs a close fit; hardened gear faces may want grinding.',
  },
  'selectable-locker': {
    name: 'Selectable locker',
    holds: 'A dog ring on command, air or electric.',
    suits: 'Rock, raid.',
    against: 'Air line, seals and o-rings; while it is off it is open.',
    caution: RAISED,
  },
  'automatic-locker': {
    name: 'Automatic locker',
    holds: 'Dogs that free the faster wheel.',
    suits: 'Rock, mud.',
    against: 'Harsh: it bangs when it locks and frees.',
    caution: RAISED,
  },
  spool: {
    name: 'Spool or welded',
    holds: 'Everything: it is solid.',
    suits: 'Drag, oval, drift on a budget.',
    against: 'No difference in wheel speed at all. A welded one has been known to end in scrap.',
    caution: `${RAISED} Each shaft must be rated for all of the torque.`,
  },
  open: {
    name: 'Open',
    holds: 'Nothing.',
    suits: 'Cheap and mild.',
    against: 'One wheel spins: the one with less grip sets what the other can use.',
  },
};
