import { figure, section } from '@hot-spline/core';
import { operation, run, yes } from '../frame/operation';

/** A plate unit on the bench: common practice, no published source. */
export const packSteps = [
  run('unit', [
    operation('unit', 'open-plate', ({ unitOpened }) => unitOpened, {
      drawing: section(['pack-left', 'pack-right']),
      title: 'Open the plate unit',
      acts: ['unit-open'],
      does: [
        'Two through-bolts with washers hold the squeeze while it opens.',
        'Spider gears and washers by place; plates in their order, sets tied together.',
      ],
      tools: ['through-bolts', 'soft-hammer', 'trays'],
      after: ['inspect'],
      takes: [
        { part: 'Plates' },
        { part: 'Plate clips' },
        { part: 'Spider gears' },
        { part: 'Spider washers' },
        { part: 'Preload springs' },
      ],
      pass: 'The spiders walk out together.',
      fails: 'Tight: more squeeze.',
      caution: 'Springs and packs under compression fly: face shield, and nobody in line.',
      minutes: 30,
    }),
    operation('unit', 'judge-plates', (c) => c.unitOpened, {
      drawing: figure('plate'),
      title: 'Judge plates, clips and case',
      does: ['Thickness, colour of heat, ears, clip wear, marks in the case.', 'Clips are always new.'],
      tools: ['micrometer', 'light'],
      parts: ['plate-clips'],
      after: ['open-plate'],
      pass: 'Discoloured plates out, case smooth.',
      fails: 'Bent ears or a groove in the case: replace or another unit.',
      place: { sheet: 'pack', tab: 'inspect' },
      minutes: 30,
    }),
    operation('unit', 'stack', (c) => c.unitOpened, {
      drawing: section(['pack-left', 'pack-right']),
      title: 'Stack to height',
      does: ['The whole stack on the calliper, outwards from the gear, both sides, with its shim.'],
      tools: ['calliper', 'micrometer'],
      after: ['judge-plates'],
      pass: 'Both sides on the target height, within its ±.',
      fails: 'Low: the next thicker shim.',
      place: { sheet: 'pack', tab: 'measure' },
      minutes: 40,
    }),
    operation(
      'unit',
      'close-plate',
      (c) => c.unitOpened,
      (c) => ({
        drawing: section(['pack-left', 'pack-right', 'carrier']),
        title: 'Soak, install, close',
        does: [
          'Plates soak in their oil. Grease or string holds the set.',
          'Hollow side of the spring to the plates; clips seen in their windows; ears in.',
          'Spiders exactly opposite: the pin slides through before the ring goes on.',
          ...(c.retention === 'stub' ? ['Threaded washers of the stub bolts go in now.'] : []),
        ],
        tools: ['through-bolts'],
        parts: ['plates'],
        after: ['stack', 'stub-washers'],
        returns: [
          { part: 'Plates' },
          { part: 'Plate clips' },
          { part: 'Spider gears' },
          { part: 'Spider washers' },
          { part: 'Preload springs' },
        ],
        records: [
          yes('hollow', 'Spring’s hollow side to the plates'),
          yes('clips', 'Clips seen in their windows'),
          yes('pin', 'Pin slides through'),
        ],
        pass: 'The pin slides through.',
        fails: 'One tooth round, and again.',
        caution: 'Squeeze a preload spring at its weak corner against the upper gear, never with grips that bend it.',
        minutes: 40,
        waitsHours: 0.5,
      }),
    ),
    operation('unit', 'breakaway', ({ unitOpened }) => unitOpened, {
      drawing: figure('breakaway'),
      title: 'Breakaway on the bench',
      does: ['A torque wrench on one side gear, the other held: where it begins to turn, steadily.'],
      tools: ['torque-wrench'],
      after: ['close-plate'],
      closedBy: 'ring-on',
      pass: 'Where the packs were meant to be.',
      fails: 'Friction learned, or shims and springs again.',
      place: { sheet: 'pack', tab: 'measure' },
      minutes: 15,
    }),
    operation('unit', 'breakaway-closed', (c) => c.unit === 'new-closed' && c.unitKind !== 'plain', {
      drawing: figure('breakaway'),
      title: 'The new unit, closed: number, wax, breakaway from outside',
      acts: ['breakaway-outside'],
      does: [
        'It stays closed: its maker set it. Number on it against the order, storage wax off the outside.',
        'One side held, the other turned by the wrench: where it begins to move, steadily, both ways round.',
      ],
      tools: ['torque-wrench'],
      after: ['inspect'],
      closedBy: 'ring-on',
      pass: 'In the band that its maker gives, alike both ways round.',
      fails: 'Out of it: ask its maker before anything is bolted to it.',
      place: { sheet: 'pack', tab: 'measure' },
      minutes: 20,
    }),
  ]),
] as const;

/** What its steps buy. */
export const packParts = {
  'plate-clips': { name: 'Plate clips', count: 1, mind: 'Always new.' },
  plates: { name: 'Plates and steels', count: 1, mind: 'Those that were judged out.' },
} as const;
