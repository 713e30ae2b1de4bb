import { coverFirst, hasCover, seenThroughCover } from '@hot-spline/core';
import { choice, length, operation, remedied, run, torque, yes } from '../frame/operation';

/** Shafts out and in: common practice, no published source. */
export const shaftSteps = [
  run(
    'get-in',
    [
      operation(
        'in',
        'shafts-out',
        ({ opened, whole }) => opened && whole,
        (c) => ({
          title: 'Shafts out',
          acts: ['shafts-out'],
          does: {
            'c-clips': [
              'Turn the carrier to the cross-pin bolt. Wipe it: the tiny head slips when oily.',
              'Pin out, shaft in, clip out with the magnet, shaft out over the seal.',
            ],
            flange: ['Gearbox in neutral. Four nuts through the hole of the flange, then draw the shaft.'],
            'unit-bearing': ['Axle nut, then the shaft with its hub.'],
            stub: ['Centre bolt or clip of the stub flange, then lever it out.'],
          }[c.retention],
          tools: c.retention === 'c-clips' ? ['spanners', 'magnet', 'trays'] : ['spanners', 'slide-hammer', 'trays'],
          after: ['drain', 'wheel-ends-off', ...(seenThroughCover(c) ? (['readings-before'] as const) : [])],
          takes: [
            { part: 'Shafts', count: 2 },
            ...{
              'c-clips': [
                { part: 'C-clips', count: 2 },
                { part: 'Cross pin', count: 1 },
                { part: 'Cross-pin bolt', count: 1 },
              ],
              flange: [{ part: 'Shaft flange nuts' }],
              'unit-bearing': [{ part: 'Hub bolts' }],
              stub: [{ part: 'Stub bolts or clips', count: 2 }],
            }[c.retention],
          ],
          records: [
            length('left', 'Left shaft, length', 'large'),
            length('right', 'Right shaft, length', 'large'),
            remedied(
              choice('splines', 'Splines', ['good', 'stepped', 'twisted'], ['stepped', 'twisted']),
              'That shaft goes on the parts list; ask what twisted it before the next one does.',
            ),
          ],
          pass: 'Supported over the seal all the way.',
          fails: 'A cut seal is replaced.',
          minutes: 30,
        }),
      ),
    ],
    'prop-off',
  ),
  run(
    'close',
    [
      operation(
        'close',
        'shafts-in',
        ({ opened, whole }) => opened && whole,
        (c) => ({
          title: 'Shafts in',
          acts: ['shafts-in'],
          does: {
            'c-clips': [
              'First take out the pin that only held the gears.',
              'Push in, clip, pull out, pin, its bolt with threadlocker.',
            ],
            flange: ['Shaft in over the seal, nuts through the flange.'],
            'unit-bearing': ['Shaft and hub in. The axle nut to its sheet: it sets the bearing.'],
            stub: ['Stub flange in until it clicks, or its centre bolt to torque.'],
          }[c.retention],
          tools: ['torque-wrench', ...(c.retention === 'unit-bearing' ? (['twelve-point'] as const) : [])],
          parts: ['shaft-seals'],
          after: ['gate-b', 'housing-in', 'unit-in', ...(coverFirst(c) ? (['cover'] as const) : [])],
          closedBy: c.retention === 'c-clips' && hasCover(c) ? ('cover' as const) : null,
          returns: [
            { part: 'Shafts', count: 2 },
            ...{
              'c-clips': [
                { part: 'C-clips', count: 2 },
                { part: 'Cross pin', count: 1 },
                { part: 'Cross-pin bolt', count: 1 },
              ],
              flange: [{ part: 'Shaft flange nuts' }],
              'unit-bearing': [{ part: 'Hub bolts' }],
              stub: [{ part: 'Stub bolts or clips', count: 2 }],
            }[c.retention],
          ],
          asks: c.retention === 'unit-bearing' ? ['wheelEndTorque'] : [],
          records: [
            ...(c.retention === 'c-clips'
              ? [
                  remedied(
                    yes('pin-out', 'Pin that held the gears is out'),
                    'Out with it: what only held the gears is no cross pin.',
                  ),
                  remedied(
                    yes('clips', 'Both clips seen in'),
                    'A clip that nobody saw is not in: the shaft out again, and look.',
                  ),
                ]
              : []),
            remedied(
              torque('retention', 'Retention', c.retention === 'unit-bearing' ? 'wheelEndTorque' : 'retentionTorque'),
              'Loosened, threads clean, once more to the torque of its sheet.',
            ),
          ],
          pass: 'Held on both sides, seal whole.',
          fails: 'A cut seal is replaced now, not after the leak.',
          minutes: 30,
        }),
      ),
    ],
    'unit-in',
  ),
] as const;

/** What its steps buy. */
export const shaftParts = {
  'shaft-seals': { name: 'Shaft seals', count: 2, mind: 'While it is open.' },
} as const;
