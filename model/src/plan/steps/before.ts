import {
  hasAdjusters,
  ownRetainer,
  seenThroughCover,
  stripped,
  type Case,
  figure,
  section,
  undrawn,
} from '@hot-spline/core';
import { always, choice, spreading, count, length, operation, remedied, run, text, yes } from '../../frame/operation';

function carrierOut(c: Case): readonly string[] {
  switch (c.construction) {
    case 'integral-head-shim':
      return [
        'One dot right, two left, on top of the caps; which way arrows point.',
        {
          spreader: 'Spread the case with an indicator on it, below its limit; cap bolts stay in a few threads.',
          lever: 'Prised out evenly over a soft fulcrum, never at the sealing face; cap bolts stay in a few threads.',
          none: 'It comes by hand once the caps are loose; cap bolts stay in a few threads.',
        }[c.spread],
        'Catch the shims, one bag a side.',
      ];
    case 'integral-inboard':
      return [
        'One dot right, two left, on top of the caps.',
        'Prise it out over a soft fulcrum, never at the sealing face; cap bolts stay in a few threads.',
        'Side shims are under the bearings: they come when the bearings do, one bag a side.',
      ];
    case 'integral-adjusters':
      return [
        'One dot right, two left, on top of the caps. Locks off: count the notches as you back off.',
        'It can fall out with the second cap.',
      ];
    case 'drop-out':
      return ['Mark the caps. Locks off: count the notches as you back off.'];
    case 'independent':
      return ['Side covers off, their shims bagged by side. Carrier out.'];
    case 'transaxle':
      return [
        hasAdjusters(c)
          ? 'Rings marked by side, their notches counted as they back off.'
          : 'Bearing flanges off, marked by side; their shims bagged.',
        'Case apart, carrier out.',
      ];
    case 'electric-reduction':
      return [
        'Count the bolts: some are hidden, some on the inverter’s side.',
        'Cable out, split ring out, case apart. The one shim: measure and bag it. A loose bearing falls out unseen.',
      ];
  }
}

/** Deciding and getting in: common practice, no published source. */
export const beforeSteps = [
  // What stands before everything else on an electric unit.
  run('hazards', [
    operation(
      'in',
      'hv-off',
      (c) => !c.mesh,
      (c) => ({
        drawing: figure('padlock'),
        title: c.whole ? 'High voltage off, proven dead, locked' : 'Terminals and capacitors proven dead',
        acts: ['hv-off'],
        does: c.whole
          ? [
              'By somebody licensed for it: off, secured against on, waited as long as its sheet says, proven dead.',
              'Lock and label stay until the unit is closed and insulated again.',
            ]
          : ['Proven dead at every terminal by somebody licensed for it, before anybody touches them.'],
        after: [],
        records: [text('by', 'Proven dead by'), yes('dead', 'Proven dead at every terminal')],
        pass: 'Dead, locked, and who proved it is written down.',
        fails: 'Nobody touches the unit.',
        caution: 'High voltage kills. Licensed practice and local rules come before this list.',
        minutes: 30,
      }),
    ),
  ]),
  run('decide', [
    operation('decide', 'brief', always, {
      drawing: undrawn('A talk with whoever drives it: no metal is touched.'),
      title: 'Brief and complaint',
      does: [
        'Ask what it is for, what it weighs, tyres now and planned, gearbox, stall, rpm window.',
        'Ask how hot the oil gets, and what is heard when.',
      ],
      after: [],
      records: [text('complaint', 'Complaint, and when it is heard')],
      pass: 'The complaint is named and one goal is chosen.',
      fails: 'Drive it. A rising whine means look inside, not wait.',
      place: { sheet: 'brief' },
      minutes: 20,
    }),
    operation(
      'decide',
      'choose',
      (c) => c.newGears || (c.unit !== 'stays' && c.unit !== 'own-overhauled'),
      (c) => ({
        drawing: undrawn('Chosen on its own sheet, where every figure is drawn.'),
        title: c.newGears ? 'Choose ratio and unit' : 'Choose the unit',
        does: [
          'Rpm at cruise, launch and end of course.',
          'What has to change with it: carrier, ring thickness, shafts, joints, speed reading.',
        ],
        after: ['identify'],
        pass: 'The window is kept; behind a converter, cruise clears its stall by a quarter (ours).',
        fails: 'Another set, tyre or converter.',
        place: { sheet: 'gearing', tab: 'find' },
        minutes: 30,
      }),
    ),
    operation('decide', 'arrival', always, (c) => ({
      drawing: figure('match'),
      title: 'Check the parts that came',
      does: [
        'Part and serial number on the box are those on the part; keep the label.',
        'Bearing numbers, and sizes left and right. Bolt length and class. What is in the kit.',
        ...(c.newCarrier && c.mesh
          ? ['Compare flange positions of the old and the new carrier before it is fitted.']
          : []),
        'Storage wax can look like rust: take it off and look again.',
      ],
      tools: ['calliper', 'micrometer', 'file'],
      after: ['choose', 'identify'],
      records: [
        text('serial', 'Serial on the part'),
        remedied(
          yes('boxes', 'Number on the box = number on the part'),
          'The part is another than its box says: back to who sent it, with a photo of both.',
        ),
        ...(c.sidePress
          ? [
              remedied(
                yes('sides', 'Bearings right for their sides'),
                'Exchanged before anything is pressed: a wrong size goes on once and comes off spoiled.',
              ),
            ]
          : []),
        ...(c.unit === 'insert'
          ? [
              remedied(
                yes('insert-kit', 'Threaded washers are in the kit'),
                'Ordered now: they go in while the carrier is open.',
              ),
            ]
          : []),
        remedied(
          yes('seals', 'Seals there, one extra'),
          'Ordered now: a cut seal is found when all the rest is together.',
        ),
        ...(c.pinionComesOut && c.mesh && c.spacer === 'collapsible'
          ? [yes('spacers', 'Two collapsible spacers')]
          : []),
        remedied(
          choice('wax', 'Storage wax', ['off', 'none', 'still on'], ['still on']),
          'Washed off first, then looked at again: rust hides under it.',
        ),
      ],
      pass: 'All there, and right for this axle.',
      fails: 'Stop: what is missing half way costs more than what is ordered now.',
      place: { sheet: 'parts' },
      minutes: 40,
    })),
    operation('decide', 'ready', always, (c) => ({
      drawing: undrawn('Paper and tools are laid out: no metal is touched.'),
      title: 'Spec sheet and tools in hand',
      does: [
        'Read every value from a sheet and write where it stands. Memory is no sheet.',
        'Lay the tools out; try what has a pattern or a hand on this axle.',
        ...(hasAdjusters(c) ? ['Try the adjuster wrench in its holes.'] : []),
      ],
      after: ['arrival'],
      pass: 'Backlash or float, turning torque, all torques and the oil volume read from a sheet.',
      fails: 'No irreversible step is begun: no crush, no final press, no threadlocker.',
      place: { sheet: 'baseline', tab: 'sheet' },
      minutes: 25,
    })),
  ]),
  run('get-in', [
    operation('in', 'raise', ({ inCar }) => inCar, {
      drawing: figure('stands'),
      title: 'Secure and raise',
      acts: ['raise'],
      does: [
        'Loosen the wheel nuts on the ground. Chocks. Raise, and set it on stands.',
        'High enough to get the unit out from under it.',
      ],
      tools: ['stands', 'spanners'],
      after: ['ready'],
      takes: [{ part: 'Wheels', count: 2 }, { part: 'Wheel nuts' }],
      pass: 'The stands hold when you push.',
      fails: 'Down again, and once more.',
      caution: 'Never work under a jack. A locker on one raised wheel can drive the car off its stands.',
      minutes: 20,
    }),
    operation('in', 'drain', stripped, (c) => ({
      drawing: figure('plugs'),
      title: seenThroughCover(c) ? 'Fill plug, drain, cover off' : 'Fill plug, then drain',
      does: [
        'The fill plug must move first: what can’t be filled is not drained.',
        ...(seenThroughCover(c) ? ['Leave two top cover bolts in a few threads while it drains.'] : []),
        'Look at the oil, and at what the magnet holds.',
      ],
      tools: ['spanners', 'drain-tray', 'cover-lever', 'magnet'],
      after: ['raise', 'hv-off'],
      takes: [
        { part: 'Fill plug', count: 1 },
        ...(seenThroughCover(c) ? [] : [{ part: 'Drain plug', count: 1 }]),
        ...(seenThroughCover(c) ? [{ part: 'Cover bolts' }] : []),
      ],
      records: [choice('magnet', 'Magnet and oil', ['clean', 'fine grey paste', 'flakes', 'a piece of a part'], [])],
      pass: 'The plug moved, and what the magnet holds is written down.',
      fails: 'A piece of a part: the unit comes apart, whatever else was planned.',
      caution: 'Hot oil burns. Old oil goes where local rules say.',
      minutes: 25,
    })),
    operation(
      'in',
      'undo-outside',
      (c) => c.opened && c.whole,
      (c) => ({
        drawing: figure('lines'),
        title: 'Undo what ties the unit to the outside',
        acts: ['unplug'],
        does: [
          'Hidden connections first. The line of a locker is unbolted from outside first, never pulled out with the carrier.',
          'Lines, plugs, wheel-speed and temperature sensors, each marked.',
          ...(c.mesh ? [] : ['Encoder and inverter plugs before the cover of the inverter; coolant lines clamped.']),
        ],
        after: ['drain', 'hv-off'],
        takes: [{ part: 'Lines and plugs' }],
        pass: 'Each is named and undone.',
        fails: 'Forgotten: the carrier is pulled against its plug, and the connector tears.',
        caution: c.mesh ? null : 'High voltage: nothing is unplugged before it is proven dead, by local rules.',
        minutes: 15,
      }),
    ),
    operation(
      'in',
      'wheel-ends-off',
      ({ opened, whole }) => opened && whole,
      (c) => ({
        drawing: figure('wheel-end'),
        title: 'Brakes and wheel ends off',
        does: [
          ...(c.brake === 'drum'
            ? [
                'Shoes backed off through their hole, then the drum; a rusted one is pushed off by its own threaded holes.',
                'Springs and shoes stay as they are, or are photographed before the first is touched.',
              ]
            : ['Hang the calliper up: no weight on its hose.']),
          ...(c.brake === null ? ['A drum: shoes backed off through their hole first.'] : []),
          ...{
            unit: ['A stuck hub: bolts back in part way and push on them; never hit it on its bearing.'],
            'on-shaft': [
              ownRetainer(c)
                ? 'Nuts of the retainer through the hole of the flange: the bearing comes out with its shaft.'
                : 'The bearing comes out with its shaft.',
            ],
            'in-tube': ['The bearing stays in the end of the tube; the shaft comes without it.'],
            'in-hub': [
              'Locking ring, nut and washer by their order, hub off with both of its bearings; they stay by side.',
            ],
            none: ['A stuck hub: bolts back in part way and push on them; never hit it on its bearing.'],
          }[c.wheelBearing ?? 'none'],
          ...(c.brake === null || c.wheelBearing === null
            ? ['Nobody has said which brake or bearing this axle has: Brief asks it once.']
            : []),
        ],
        tools: ['spanners', 'twelve-point', ...(c.brake === 'drum' ? (['soft-hammer', 'camera'] as const) : [])],
        after: ['raise', 'hv-off'],
        takes: [
          ...(c.brake === 'drum'
            ? [{ part: 'Brake drums', count: 2 }]
            : [{ part: 'Brake callipers', count: 2 }, { part: 'Brake bolts' }]),
          ...(c.brake === 'disc' ? [{ part: 'Brake discs', count: 2 }] : []),
          ...(ownRetainer(c) ? [{ part: 'Retainer nuts' }] : []),
          ...(c.wheelBearing === 'in-hub' ? [{ part: 'Hubs', count: 2 }, { part: 'Hub nuts and locks' }] : []),
          ...(c.retention === 'unit-bearing' ? [{ part: 'Axle nuts', count: 2 }] : []),
        ],
        pass: 'Hose not loaded, hub not hit, each side by itself.',
        fails: 'A rounded bolt: heat, a tighter socket, then a stud remover.',
        caution: 'Brake work by local rules and licensed practice. Brake dust is not blown off.',
        minutes: 40,
      }),
    ),
    operation('in', 'prop-off', ({ propOff }) => propOff, {
      drawing: section(['flange'], 'match-marks'),
      title: 'Prop shaft off',
      does: ['Mark shaft to flange. Undo it, hang it up, feel the joints.'],
      tools: ['paint', 'spanners'],
      after: ['raise'],
      takes: [{ part: 'Prop shaft', count: 1 }, { part: 'Prop shaft bolts' }],
      records: [choice('joints', 'Joints', ['good', 'stiff', 'loose'], ['stiff', 'loose'])],
      pass: 'Marked, and the joints are good.',
      fails: 'New joints go on the parts list.',
      minutes: 15,
    }),
    operation('in', 'housing-out', (c) => c.opened && c.whole && c.construction === 'drop-out', {
      drawing: figure('sling'),
      title: 'Carrier housing out of the axle',
      acts: ['housing-out'],
      does: [
        'Fasteners off all round; two long studs stay in to guide it.',
        'Free the sealant with a soft hammer, then straight out and onto its stand. It is heavy.',
      ],
      tools: ['spanners', 'soft-hammer', 'bench-stand'],
      after: ['shafts-out', 'undo-outside', 'prop-off', 'drain'],
      takes: [{ part: 'Carrier housing', count: 1 }, { part: 'Carrier housing fasteners' }],
      pass: 'On its stand, fasteners counted, both faces whole.',
      fails: 'It does not move: a fastener is left, or a shaft is still in.',
      caution: 'It is heavy and off balance: two people or a hoist.',
      minutes: 25,
    }),
    operation(
      'in',
      'unit-out',
      ({ unitOut }) => unitOut,
      (c) => ({
        drawing: figure('sling'),
        title: 'Unit out of the car',
        does: [
          'Weight on a jack that is made for it, before the last mount is undone.',
          'Mounts and their bolts by place; fluids clamped or caught. Down slowly: look for what still holds it.',
        ],
        tools: ['spanners', 'bench-stand', 'trays'],
        after: ['shafts-out', 'undo-outside', 'prop-off', 'drain'],
        takes: [{ part: c.mesh ? 'Unit' : 'Drive unit', count: 1 }, { part: 'Mount bolts' }],
        records: [choice('mounts', 'Mounts', ['good', 'torn'], ['torn'])],
        pass: 'On its stand, mounts by their places.',
        fails: 'Something still holds it: up again, and look.',
        caution: 'Nobody under it, and nobody’s hand between unit and frame.',
        minutes: 60,
      }),
    ),
    operation('in', 'carrier-out', stripped, (c) => ({
      drawing: section(['carrier'], 'cap-marks'),
      title: c.mesh
        ? c.caps
          ? 'Mark the caps, carrier out'
          : 'Covers off, carrier out'
        : 'Open the case, carrier out',
      acts: ['carrier-out'],
      does: carrierOut(c),
      tools: [
        'paint',
        'trays',
        ...spreading(c),
        ...(c.spread === 'spreader' ? (['indicator'] as const) : []),
        ...(c.caps ? (['soft-lever'] as const) : []),
        ...(hasAdjusters(c) ? (['adjuster-wrench'] as const) : []),
        ...(c.construction === 'drop-out' || c.construction === 'independent' ? (['bench-stand'] as const) : []),
        'camera',
      ],
      after: ['shafts-out', 'undo-outside', 'readings-before', 'prop-off', 'housing-out', 'unit-out', 'hv-off'],
      takes: [
        ...(c.caps
          ? [
              { part: 'Bearing caps', count: 2 },
              { part: 'Cap bolts', count: 4 },
            ]
          : []),
        ...(c.mesh && !c.caps ? [{ part: 'Side covers' }, { part: 'Side cover bolts' }] : []),
        ...(c.mesh ? [] : [{ part: 'Case bolts' }, { part: 'Inverter-side bolts' }, { part: 'Split ring', count: 1 }]),
        ...(hasAdjusters(c)
          ? [{ part: 'Adjuster locks', count: 2 }]
          : [{ part: c.mesh ? 'Side shims, left and right' : 'The one shim', ...(c.mesh ? {} : { count: 1 }) }]),
        { part: 'Carrier', count: 1 },
      ],
      records: [
        text('marks', 'Marks found, and marks made'),
        ...(hasAdjusters(c) ? [count('notches', 'Notches backed off')] : []),
        ...(c.spread === 'spreader'
          ? [
              {
                ...length('spread', 'Case spread', 'small'),
                sheet: 'spreadLimit',
                fails:
                  'Spread too far: relax it at once. Look for cracks at the webs, measure the bores before anything goes in.',
              },
            ]
          : []),
        ...(hasAdjusters(c) ? [] : [yes('bagged', 'Shims bagged by side')]),
      ],
      asks: c.spread === 'spreader' ? ['spreadLimit'] : [],
      pass: 'Caps to their side and top; shims caught and bagged by side.',
      fails: 'Dropped shims: measure both and write that the side is not known.',
      caution: c.caps
        ? 'It falls out when the second cap goes: leave the bolts in a few threads. Spreading can crack the case: stay below its limit.'
        : 'It is heavy: two hands, or a hoist.',
      minutes: 45,
    })),
    operation(
      'in',
      'pinion-out',
      (c) => c.mesh && c.pinionComesOut && c.construction !== 'transaxle' && c.arrives !== 'parts',
      (c) => ({
        drawing: section(['pinion']),
        title: 'Pinion out',
        acts: ['pinion-out'],
        does: [
          ...(c.construction === 'drop-out'
            ? ['Support off. At some ratios the ring must be moved across first: mark the adjusters and count notches.']
            : []),
          'Write the order of everything on the shaft, and which face is where: shim, baffle, bearing, spacer, bearing, slinger, seal, washer, flange.',
          'Baffles and backing plates tear and bend: look where the driver goes.',
        ],
        tools: ['flange-holder', 'puller', 'soft-hammer', 'trays'],
        after: ['carrier-out'],
        takes: [
          { part: 'Pinion nut', count: 1 },
          { part: 'Flange', count: 1 },
          { part: 'Pinion', count: 1 },
          { part: 'Spacer', count: 1 },
          { part: 'Pinion seal', count: 1 },
          { part: 'Pinion bearings', count: 2 },
          { part: 'Pinion shims' },
          ...(c.construction === 'drop-out' ? [{ part: 'Support bolts' }, { part: 'Support o-ring', count: 1 }] : []),
        ],
        pass: 'All pieces listed on Shaft stack.',
        fails: 'A torn baffle: a new one of the same thickness, since it sets depth.',
        caution: 'A makeshift holder slips. The nut is under a great torque.',
        place: { sheet: 'baseline', tab: 'stack' },
        minutes: 40,
      }),
    ),
    operation(
      'in',
      'pinion-out',
      (c) => (c.construction === 'transaxle' || !c.mesh) && c.pinionComesOut && c.arrives !== 'parts',
      (c) => ({
        drawing: section(['pinion']),
        title: c.mesh ? 'Box shaft apart: the pinion out' : 'Layshaft out',
        acts: ['pinion-out'],
        does: c.mesh
          ? [
              'Forks and the other shaft first, every gear, sleeve and washer in its order and the way it faced.',
              'Plate with its shims, then the shaft. What is pressed comes off by its race.',
            ]
          : ['Layshaft with its bearings, sizes by side; its oil guide stays in the case.'],
        tools: ['puller', 'press', 'soft-hammer', 'trays'],
        after: ['carrier-out'],
        takes: c.mesh
          ? [
              { part: 'Pinion shaft', count: 1 },
              { part: 'Gears of the pinion shaft' },
              { part: 'Bearing plate and its shims' },
              { part: 'Shaft nut', count: 1 },
            ]
          : [{ part: 'Layshaft', count: 1 }],
        pass: 'All pieces listed in their order.',
        fails: 'Something is pressed that should not be: look at the sheet before more force.',
        caution: 'A loaded puller or press: face shield, nobody in line.',
        minutes: 60,
      }),
    ),
    operation(
      'in',
      'bearings-off',
      (c) => c.sidePress && c.arrives !== 'parts',
      (c) => ({
        drawing: figure('puller'),
        title: c.sideBearings === 'new' ? 'Bearings and races off' : 'Bearings off, to be used again',
        does: [
          'Grip the race, never the cage.',
          c.sideBearings === 'new'
            ? 'Else take cage and rollers off, heat, chisel carefully. Races: punch in the two notches, side to side.'
            : 'They go in again: don’t drop them. Sizes differ left and right: mark them.',
        ],
        tools: ['puller', 'separator', 'heat', 'gloves', 'race-drivers'],
        after: ['carrier-out', 'pinion-out', 'ring-off'],
        takes: [{ part: 'Side bearings', count: 2 }],
        records: [choice('seats', 'Seats', ['good', 'spun', 'nicked'], ['spun', 'nicked'])],
        pass: 'Seat not nicked.',
        fails: 'A spun seat: retaining compound by its sheet, or another carrier.',
        caution: 'Hot steel and a loaded puller: gloves and face shield.',
        minutes: 40,
      }),
    ),
  ]),
] as const;
