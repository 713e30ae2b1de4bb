import { figure, section } from '@hot-spline/core';
import { choice, operation, remedied, run, text, torque, yes } from '../frame/operation';

/** The ring off its carrier and on again: common practice, no published source unless said. */
export const jointSteps = [
  run(
    'get-in',
    [
      operation(
        'in',
        'ring-off',
        (c) => c.ringComesOff && c.arrives !== 'parts',
        (c) => ({
          drawing: section(['ring']),
          title: 'Ring off its carrier',
          acts: ['ring-off'],
          does: [
            'Thread hand first: see the mark above. Unknown: try gently both ways, and write which way it moved.',
            'Last two bolts stay in to catch it. High-strength threadlocker holds more than the bolts were put in with: heat first.',
          ],
          tools: ['breaker', 'soft-hammer', 'heat', 'gloves', 'trays'],
          after: ['carrier-out'],
          hand: c.ringHand ?? 'unknown',
          takes: [{ part: 'Ring bolts' }, { part: 'Ring', count: 1 }],
          records: [
            {
              ...choice('hand', 'Thread hand, as it moved', ['right', 'left'], []),
              agrees: 'thread-hand',
              fails:
                'The spec of the axle is wrong, or this is another carrier: mend the spec before a bolt is tightened.',
            },
            torque('loosen', 'Loosening torque'),
            ...(c.newGears ? [text('old-pair', 'Teeth of the old pair, ring/pinion')] : []),
            remedied(
              choice('holes', 'Holes and threads', ['good', 'lip at a hole', 'thread damaged'], ['thread damaged']),
              'Repaired as its maker allows, or another carrier. No ring bolt goes into a damaged thread.',
            ),
          ],
          pass: 'Bolts counted, holes looked at.',
          fails: 'Bolts that don’t move: the hand again, then heat.',
          caution: 'Left-hand bolts turned the wrong way are overtightened until they break.',
          place: { sheet: 'joint' },
          minutes: 30,
        }),
      ),
    ],
    'pinion-out',
  ),
  run('carrier', [
    operation('carrier', 'pin-pass', (c) => c.retention === 'c-clips' && c.mesh && c.whole && c.ringComesOff, {
      drawing: section(['cross-pin'], 'pin-way'),
      title: 'Will the pin pass later?',
      does: ['Lay the new ring on, draw the pin through beside it: straight or notched.'],
      tools: [],
      after: ['close-plate', 'close-carrier', 'oil-geared', 'locker-parts', 'inspect'],
      closedBy: 'ring-on',
      records: [
        choice('pin', 'Pin', ['straight', 'notched'], []),
        choice('passes', 'Passes the ring', ['yes', 'after relief', 'no'], ['no']),
      ],
      pass: 'The pin can be drawn with the ring fitted.',
      fails: 'A notched pin, which can fail, or two teeth relieved just enough and noted.',
      place: { sheet: 'inspect', tab: 'pass' },
      minutes: 10,
    }),
    operation('carrier', 'faces', ({ ringComesOff }) => ringComesOff, {
      drawing: section(['ring', 'carrier'], 'faces'),
      title: 'Faces and holes',
      does: [
        'Flat stone over both faces: high edges at holes are filed down.',
        'Tapped holes free of oil and old threadlocker, dry.',
      ],
      tools: ['stone', 'file', 'washer-tank'],
      after: ['inspect', 'breakaway', 'breakaway-closed'],
      records: [yes('stone', 'Stone marks all over, both faces'), yes('dry', 'Holes clean and dry')],
      pass: 'Stone marks all over; dry.',
      fails: 'Oil or old threadlocker in a thread: it does not cure.',
      minutes: 25,
    }),
    operation(
      'carrier',
      'bolt-length',
      ({ ringComesOff }) => ringComesOff,
      (c) => ({
        drawing: figure('bolt'),
        title: 'Will the bolts clamp?',
        does: [
          'Depth of a hole, flange, washer; length under the head, and of the plain shank.',
          'Class, finish, bearing area of the head, thread form. Unknown thread: stop.',
        ],
        tools: ['depth-rod', 'calliper'],
        parts: ['ring-bolts'],
        after: ['faces'],
        closedBy: 'ring-bolts',
        hand: c.ringHand ?? 'unknown',
        pass: 'Shorter than the hole, with enough thread engaged.',
        fails: 'It bottoms: shorten it or other bolts. Full reading, no clamp, then they shear one by one.',
        place: { sheet: 'joint', tab: 'bolts' },
        minutes: 15,
      }),
    ),
    operation(
      'carrier',
      'ring-on',
      ({ ringComesOff }) => ringComesOff,
      (c) => ({
        drawing: section(['ring'], 'faces'),
        title: 'Ring on',
        acts: ['ring-on'],
        does:
          c.ringGear === 'heated'
            ? [
                'Ring in the oven until it is warm through; the carrier may lie in the cold.',
                'Drop it on square, hold it down until it takes. Two guide studs find the holes.',
              ]
            : [
                'Oil on the register only. A few dry bolts drawn crosswise, in small steps.',
                'Watch the gap all round. Those bolts come out again, and go in with threadlocker.',
              ],
        tools: c.ringGear === 'heated' ? ['heat', 'thermometer', 'gloves'] : ['spanners', 'feeler'],
        parts: c.newGears ? ['gear-set'] : [],
        after: ['bolt-length', 'pin-pass', 'compare-carriers', 'breakaway', 'breakaway-closed', 'ring-off'],
        returns: [{ part: 'Ring', count: 1 }],
        records: [
          ...(c.ringGear === 'heated'
            ? [
                {
                  id: 'temperature',
                  label: 'Ring temperature',
                  of: 'number',
                  quantity: 'temperature',
                  range: { min: -50, max: 600, unit: '°C' },
                  pass: { atMost: 190, from: '190 °C at most, a guard of ours: the ring maker’s limit wins' },
                  fails: 'Too hot: let it cool, and ask its maker whether it has lost hardness before it is used.',
                } as const,
              ]
            : []),
          yes('seated', 'Seated all round, no chip at the register'),
        ],
        pass: 'Seated all round.',
        fails: 'It cocks: off and again.',
        caution:
          'A ring out of the oven: gloves and face shield. Not above what its maker allows; without a word of his not above 190 °C (ours).',
        place: { sheet: 'joint', tab: 'heat' },
        minutes: 30,
        waitsHours: c.ringGear === 'heated' ? 2 : 0,
      }),
    ),
    operation(
      'carrier',
      'ring-bolts',
      ({ ringComesOff }) => ringComesOff,
      (c) => ({
        drawing: figure('star'),
        title: 'Ring bolts to torque',
        acts: ['ring-bolts'],
        answers: ['ring-bolts'],
        does: [
          'Cool all through. Compound on the threads, lubricant under the heads: as the torque was meant.',
          'Star pattern in stages; tick every bolt. Second round. Witness mark.',
          'Don’t stop half way once it is wet.',
        ],
        tools: [c.ringHand === 'left' ? 'left-torque-wrench' : 'torque-wrench', 'paint'],
        parts: ['ring-bolts', 'threadlocker'],
        after: ['ring-on'],
        shows: ['compoundOpen'],
        asks: ['ringBoltTorque'],
        hand: c.ringHand ?? 'unknown',
        returns: [{ part: 'Ring bolts' }],
        pass: 'Every bolt twice, and marked.',
        fails: 'One missed, or stopped half way: clean it all and begin again.',
        caution: 'Spare the bearings: hold it by the ring or flange. Never reuse stretched or lock-treated bolts.',
        place: { sheet: 'joint', tab: 'torque' },
        minutes: 30,
        waitsHours: 1,
      }),
    ),
  ]),
] as const;

/** What its steps buy. */
export const jointParts = {
  'ring-bolts': { name: 'Ring bolts', count: 10, mind: 'Length, class, thread hand. Never used ones.' },
  threadlocker: { name: 'Threadlocker', count: 1, mind: 'In date; counts as lubricated.' },
  'gear-set': { name: 'Ring and pinion', count: 1, mind: 'Match numbers of the pair agree.' },
} as const;
