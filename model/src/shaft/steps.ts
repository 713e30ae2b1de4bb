import { coverFirst, hasCover, seenThroughCover, figure, section } from '@hot-spline/core';
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
          drawing: section(['shaft-left', 'shaft-right']),
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
    'case',
    [
      operation(
        'case',
        'wheel-bearings',
        (c) => c.opened && c.whole && c.wheelBearing !== null,
        (c) => ({
          drawing: figure('wheel-end'),
          title: c.outerSeal === 'tube-end' ? 'Wheel bearings and outer seals' : 'Wheel bearings',
          shows: c.wheelBearing === 'in-hub' || c.wheelBearing === 'unit' ? ['wheelEndTorque'] : [],
          does: [
            {
              unit: 'Turned by hand, play and noise; replaced as a whole, with new bolts where its sheet asks for them.',
              'on-shaft':
                'Retainer ring drilled and split beside the shaft, never cut into it; bearing off and on by its inner race. Backing plate and seal on the shaft first: what is forgotten costs the bearing. A retainer ring is never used again.',
              'in-tube':
                'Drawn out behind its outer race. The shaft is looked at where the rollers run: a groove is another shaft. New one in by its outer race, lettering outwards.',
              'in-hub':
                'Races out and in by their drivers, both bearings packed, the inner seal last; play is set by the hub nut when it is on.',
            }[c.wheelBearing ?? 'unit'],
            ...(c.outerSeal === 'tube-end'
              ? ['Seal of the tube end: its seat looked at, lip greased, in square.']
              : []),
          ],
          tools:
            c.wheelBearing === 'unit'
              ? ['torque-wrench', 'light']
              : c.wheelBearing === 'on-shaft'
                ? ['press', 'separator', 'heat', 'gloves']
                : ['puller', 'race-drivers', 'soft-hammer'],
          parts: ['wheel-bearings', ...(c.outerSeal === 'tube-end' ? ['outer-seals'] : [])],
          after: ['inspect', 'shafts-out'],
          closedBy: 'shafts-in',
          records: [
            choice('bearings', 'Wheel bearings', ['run on', 'new ones in'], []),
            remedied(
              choice('seats', 'Where they run and sit', ['good', 'grooved', 'spun'], ['grooved', 'spun']),
              'Grooved: another shaft. Spun: another hub or tube end, or a sleeve that its maker allows.',
            ),
          ],
          pass: 'Decided for each side, seats good, seals whole.',
          fails: 'A bearing that is heard now is heard louder with a new axle between.',
          caution:
            c.wheelBearing === 'on-shaft' ? 'A retainer ring that is split flies: eye protection, hands away.' : null,
          minutes: 45,
        }),
      ),
    ],
    'inner-seals',
  ),
  run(
    'close',
    [
      operation(
        'close',
        'shafts-in',
        ({ opened, whole }) => opened && whole,
        (c) => ({
          drawing: section(['shaft-left', 'shaft-right']),
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
          parts: ['shaft-seals', ...(c.retention === 'c-clips' ? ['threadlocker'] : [])],
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
  'wheel-bearings': {
    name: 'Wheel bearings',
    count: 2,
    mind: 'With their retainer rings, which are never used again.',
  },
  'outer-seals': { name: 'Outer seals', count: 2, mind: 'Tube end; the size follows the bearing.' },
  'shaft-seals': { name: 'Shaft seals', count: 2, mind: 'While it is open.' },
} as const;
