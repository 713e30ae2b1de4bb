import type { Operation } from './operation';

interface Part {
  readonly name: string;
  readonly count: number;
  /** Why so many, or what to look at. */
  readonly mind: string;
}

/** What a step buys: common practice, no published source. */
export const PARTS = {
  'plate-clips': { name: 'Plate clips', count: 1, mind: 'Always new.' },
  plates: { name: 'Plates and steels', count: 1, mind: 'Those that were judged out.' },
  insert: { name: 'Friction insert with its threaded washers', count: 1, mind: 'The washers go in before it closes.' },
  'ring-bolts': { name: 'Ring bolts', count: 10, mind: 'Length, class, thread hand. Never used ones.' },
  threadlocker: { name: 'Threadlocker', count: 1, mind: 'In date; counts as lubricated.' },
  'gear-set': { name: 'Ring and pinion', count: 1, mind: 'Match numbers of the pair agree.' },
  'side-bearings': { name: 'Carrier bearings with races', count: 2, mind: 'Sizes left and right may differ.' },
  'pinion-bearings': { name: 'Pinion bearings with races', count: 2, mind: 'Same make as the set-up ones.' },
  'pinion-seal': { name: 'Pinion seal', count: 2, mind: 'One extra.' },
  'pinion-nut': { name: 'Pinion nut', count: 1, mind: 'New; the old one is for trying.' },
  compound: { name: 'Retaining compound and sealant for splines', count: 1, mind: 'By place, in date.' },
  'collapsible-spacers': { name: 'Collapsible spacers', count: 2, mind: 'Two: an overshoot eats one.' },
  'shim-kit': {
    name: 'Pinion shims',
    count: 1,
    mind: 'Every thickness round the starting one, of the seat that it has.',
  },
  'preload-shims': { name: 'Shims for the solid spacer', count: 1, mind: 'A set.' },
  seals: { name: 'Inner seals, o-rings, baffle', count: 1, mind: 'Reachable only now. Round or square, as it was.' },
  'shaft-seals': { name: 'Shaft seals', count: 2, mind: 'While it is open.' },
  'locker-kit': { name: 'Line, fitting, solenoid, switch', count: 1, mind: 'What is in the kit, by its list.' },
  sealant: { name: 'Gasket or sealant', count: 1, mind: 'Which thickness is in the kit?' },
  oil: { name: 'Oil', count: 1, mind: 'Grade and volume by the sheet; run-in oil if its maker asks.' },
  'spare-unit': {
    name: 'Spare unit, on the shelf',
    count: 1,
    mind: 'Where a fault would end the event, and the next one is far away.',
  },
  additive: { name: 'Friction additive', count: 1, mind: 'As much as the unit’s maker says.' },
} as const satisfies Record<string, Part>;

export type PartId = keyof typeof PARTS;
export const partOf = (id: PartId): Part => PARTS[id];

/** Something to have in the house, with the steps that it is for. */
export interface NeededPart {
  readonly id: PartId;
  readonly steps: readonly string[];
}

/**
 * What an order of work needs in the house before it is begun, in the order in which it is used.
 */
export function neededParts(steps: readonly Operation[]): readonly NeededPart[] {
  const needed = new Map<string, string[]>();
  for (const { id, parts } of steps) for (const part of parts) needed.set(part, [...(needed.get(part) ?? []), id]);
  return [...needed].map(([id, of]) => ({ id: id as PartId, steps: of }));
}
