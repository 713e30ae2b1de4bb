import { INSERT_FIT_MM } from '../unit/side-gear';
import { choice, count, length, operation, text, yes, type Recipe } from './operation';
import type { Case } from './facts';

/** The unit on the bench: common practice, no published source. */
export const UNIT = [
  operation('unit', 'open-plate', ({ unitOpened }) => unitOpened, {
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
    title: 'Stack to height',
    does: ['The whole stack on the calliper, outwards from the gear, both sides, with its shim.'],
    tools: ['calliper', 'micrometer'],
    after: ['judge-plates'],
    pass: 'Both sides on the target height, within its ±.',
    fails: 'Low: the next thicker shim.',
    place: { sheet: 'pack', tab: 'measure' },
    minutes: 40,
  }),
  operation('unit', 'open-carrier', ({ unit }) => unit === 'insert', {
    title: 'Open carrier: pin and spiders out',
    acts: ['unit-open'],
    does: ['Cross pin out, spider gears rolled out together, washers by place, side gears last.'],
    tools: ['soft-hammer', 'trays'],
    after: ['inspect'],
    takes: [{ part: 'Spider gears' }, { part: 'Spider washers' }, { part: 'Side gears', count: 2 }],
    records: [choice('spiders', 'Spider and side gears', ['good', 'pitted', 'chipped'], ['pitted', 'chipped'])],
    pass: 'All out, by place, faces looked at.',
    fails: 'A pitted or chipped gear: no insert holds on it.',
    minutes: 20,
  }),
  operation(
    'unit',
    'stub-washers',
    (c) => c.retention === 'stub' && c.whole && (c.unitOpened || c.unit === 'insert'),
    (c) => ({
      title: 'Threaded washers of the stub bolts in',
      does: ['They go in while the unit is open: easily forgotten, and then all of it comes apart again.'],
      tools: [],
      after: ['inspect', 'open-carrier'],
      closedBy: c.unit === 'insert' ? 'close-carrier' : 'close-plate',
      records: [count('washers', 'Threaded washers in')],
      pass: 'One a side is in.',
      fails: 'Not in the kit: stop, and order them.',
      minutes: 5,
    }),
  ),
  operation(
    'unit',
    'close-plate',
    (c) => c.unitOpened,
    (c) => ({
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
  operation(
    'unit',
    'open-unit',
    ({ unit, unitKind, unitOpened }) =>
      !unitOpened && (unit === 'new-opened' || unit === 'own-overhauled') && unitKind !== 'geared',
    {
      title: 'Open the unit, look, close',
      acts: ['unit-open'],
      does: ['Halves marked to each other, pieces by place. What is worn out is replaced as its sheet says.'],
      tools: ['spanners', 'trays'],
      after: ['inspect'],
      closedBy: 'ring-on',
      pass: 'Every piece in its place, halves by their marks.',
      fails: 'A piece that nobody can buy: another unit.',
      minutes: 60,
    },
  ),
  operation('unit', 'fit-insert', ({ unit }) => unit === 'insert', {
    title: 'Fit the insert',
    does: [
      'File first: hardened faces can’t be filed. Surface or belt grinder, a little at a time, flat.',
      'Feelers on both sides: the least that still slides in.',
      'Where the ring leaves no room it has to come off: say so among the facts of the job.',
    ],
    tools: ['file', 'grinder', 'feeler', 'micrometer'],
    parts: ['insert'],
    after: ['open-carrier'],
    records: [
      length('fit', 'Free fit', 'small', {
        atLeast: INSERT_FIT_MM[0] - 1e-9,
        atMost: INSERT_FIT_MM[1] + 1e-9,
        from: '0.06 to 0.14 mm, a guard of ours: the insert’s sheet wins',
      }),
      length('off', 'Taken off the faces', 'small'),
      length('washers-before', 'Washers, diameter before', 'plate'),
      length('washers-after', 'Washers, diameter after', 'plate'),
    ],
    pass: 'In the fit of the insert’s sheet, the least that still slides in.',
    fails: 'Tight: the hardened faces down a little at a time, flat.',
    caution: 'Grinding: eye protection; dust off before anything closes.',
    place: { sheet: 'unit' },
    minutes: 90,
  }),
  operation('unit', 'close-carrier', ({ unit }) => unit === 'insert', {
    title: 'Insert in, carrier closed',
    does: [
      'Side gears, insert, spiders exactly opposite, washers by place; the pin slides through.',
      'Pins that held the insert for fitting come out last, and are counted.',
    ],
    after: ['fit-insert', 'stub-washers'],
    returns: [{ part: 'Spider gears' }, { part: 'Spider washers' }, { part: 'Side gears', count: 2 }],
    records: [yes('pins', 'Holding pins out, counted'), yes('mesh', 'Spiders turn, with play, without a tight place')],
    pass: 'It turns without a tight place.',
    fails: 'Tight: out again; the faces, not force.',
    minutes: 30,
  }),
  operation(
    'unit',
    'oil-geared',
    (c) => c.unitKind === 'geared' && ['new-closed', 'new-opened', 'own-overhauled'].includes(c.unit),
    (c) => ({
      title: c.unit === 'new-closed' ? 'Preservative out, oil in' : 'Strip and oil the gear-type unit',
      acts: c.unit === 'new-closed' ? [] : ['unit-open'],
      does: [
        c.unit === 'new-closed'
          ? 'Rinsed through its windows until no wax comes, then oiled; it stays closed.'
          : 'Gears by their places, spring pack, late plates. Storage wax out, oil in.',
      ],
      tools: ['washer-tank', 'trays'],
      after: ['inspect'],
      pass: 'Wax out, oil in, every gear in its place.',
      fails: 'One chipped tooth in a unit packed solid destroys all of it.',
      minutes: 45,
    }),
  ),
  operation('unit', 'locker-parts', ({ unit }) => unit === 'locker', {
    title: 'Check the locker before it goes in',
    does: [
      'Part number against this axle; serial on the box = on the unit; keep both.',
      'Corrosion film off, grooves brushed. Square rings oiled and flat, not twisted.',
      'Engage it on the bench, by hand pump or battery.',
    ],
    tools: ['pressure-gauge', 'washer-tank'],
    after: ['inspect'],
    records: [
      text('part', 'Part number'),
      text('serial', 'Serial on box and unit'),
      yes('rings', 'Two square rings flat and oiled'),
      yes('engages', 'Engages and lets go on the bench'),
    ],
    pass: 'Numbers agree; it engages and lets go.',
    fails: 'Return it before it is bolted to a ring.',
    minutes: 30,
  }),
] as const satisfies readonly Recipe[];

/** Ring on carrier, bearings on: common practice, no published source unless said. */
export const CARRIER = [
  operation('carrier', 'pin-pass', (c) => c.retention === 'c-clips' && c.mesh && c.whole && c.ringComesOff, {
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
  operation('carrier', 'compare-carriers', (c) => c.newCarrier && c.arrives !== 'parts', {
    title: 'Compare old and new carrier',
    does: [
      'On a flat plate, outer race on the bearing: outer race to ring flange, each side.',
      'A master shim where the bearing stands proud of its race.',
    ],
    tools: ['calliper'],
    after: ['inspect', 'close-plate'],
    pass: 'The difference is carried into left and right shims.',
    fails: 'Flanges agree: the old carrier would have done.',
    place: { sheet: 'baseline', tab: 'came' },
    minutes: 25,
  }),
  operation('carrier', 'faces', ({ ringComesOff }) => ringComesOff, {
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
] as const satisfies readonly Recipe[];

/** Whether the side bearings are pressed behind Gate A: where the shims that place the ring lie under them. */
const pressedLate = (c: Case): boolean => c.positionOpen && c.ringPlacedBy === 'inboard-shims';

const bearingsOn = (when: (c: Case) => boolean) =>
  operation(
    'carrier',
    'carrier-bearings',
    (c) => c.sidePress && when(c),
    (c) => ({
      title: pressedLate(c) ? 'Carrier bearings on, shims under them' : 'Carrier bearings on',
      acts: ['side-bearing-press'],
      does: ['On the inner race only; a recess for a proud spigot.', 'Size by side: look at the number again.'],
      tools: ['press', 'race-drivers', 'heat'],
      parts: c.sideBearings === 'new' ? ['side-bearings'] : [],
      after: ['bearings-off', 'ring-bolts', ...(pressedLate(c) ? ['gate-a', 'carrier-again'] : [])],
      behind: pressedLate(c) ? 'A' : null,
      returns: [{ part: 'Side bearings', count: 2 }],
      records: [text('numbers', 'Numbers, left and right'), yes('home', 'Home, cage untouched')],
      pass: 'Home on both sides, cage untouched.',
      fails: 'Sides swapped: off again, and the bearing with it.',
      caution: 'Never press by the cage.',
      minutes: 20,
    }),
  );

/** Side bearings are pressed at once, unless the shims lie under them. */
export const CARRIER_BEARINGS = [bearingsOn((c) => !pressedLate(c))] as const satisfies readonly Recipe[];
export const INBOARD_BEARINGS = [bearingsOn(pressedLate)] as const satisfies readonly Recipe[];

/** Sealing rings of a locker, oiled and flat. */
const lockerRings = {
  title: 'Sealing rings of the locker on',
  acts: ['locker-rings'],
  does: ['Grooves clean, rings oiled and flat, not twisted. Seal housing on its own side; o-rings with it.'],
  after: ['locker-parts', 'carrier-bearings'],
  records: [yes('flat', 'Rings flat and oiled, not twisted')],
  pass: 'Flat all round.',
  fails: 'A twisted ring: a new one. It leaks where nobody sees it.',
  minutes: 15,
} as const;
/** After the dry trial, when nothing comes out any more. */
export const LOCKER_RINGS = [
  operation(
    'final',
    'locker-rings',
    (c) => c.unit === 'locker' && (!c.mesh || c.lockerRings === 'after-dry-trial'),
    (c) => ({
      ...lockerRings,
      after: [...lockerRings.after, 'gate-a', 'carrier-again'],
      behind: c.mesh ? 'A' : null,
    }),
  ),
] as const satisfies readonly Recipe[];

/** The case: common practice, no published source. */
export const CASE = [
  operation(
    'case',
    'clearances',
    (c) => c.mesh && (c.newCarrier || c.newGears),
    (c) => ({
      title: 'Will it pass?',
      does: [
        'Carrier bare in the case, turned through its whole travel: does it foul?',
        ...(c.construction === 'drop-out' ? ['Pinion past the ring when the support is drawn.'] : []),
        ...(c.unitKind === 'locker' ? ['Line against ring, caps and carrier; where the port goes through.'] : []),
        'One adjuster far in and the other far out, or a rub: stop, and look for what it touches.',
      ],
      tools: ['feeler', 'paint'],
      after: [...(pressedLate(c) ? [] : ['carrier-bearings']), 'ring-bolts', 'close-carrier'],
      records: [
        yes('turns', 'Turns free through its whole travel'),
        choice('cleaned', 'If it was cut', ['nothing cut', 'cleaned twice', 'not clean yet'], ['not clean yet']),
      ],
      pass: 'Turns free through its whole travel.',
      fails: 'Relieve it, log what and how much, and clean the case twice.',
      place: { sheet: 'inspect', tab: 'pass' },
      minutes: 20,
    }),
  ),
  operation('case', 'machining', ({ unit, mesh }) => unit === 'locker' && mesh, {
    title: 'Machining, then clean twice',
    does: ['Port for the line, relief where it fouled: what, where, how much, by whom.', 'Then clean the case twice.'],
    tools: ['grinder', 'washer-tank'],
    after: ['clearances'],
    closedBy: 'trial-carrier',
    records: [text('what', 'What was cut, where, how much'), yes('cleaned', 'Cleaned twice')],
    pass: 'Turns free, and cleaned twice.',
    fails: 'Chips left in a case end in its bearings.',
    caution: 'Grinding and drilling: eye protection.',
    place: { sheet: 'inspect', tab: 'pass' },
    minutes: 60,
  }),
  operation(
    'case',
    'races-in',
    (c) => c.mesh && c.pinionComesOut && (c.pinionBearings === 'new' || c.arrives === 'parts'),
    {
      title: 'Races and pilot bearing in',
      does: ['Seat both races: the sound changes, no gap. The retainer’s teeth the right way round.'],
      tools: ['race-drivers', 'soft-hammer'],
      parts: ['pinion-bearings'],
      after: ['inspect', 'clearances', 'machining'],
      records: [yes('seated', 'Seated: the sound changed, no gap')],
      pass: 'No gap behind either.',
      fails: 'Out, look for a burr, in again.',
      minutes: 25,
    },
  ),
  operation(
    'case',
    'inner-seals',
    (c) => c.mesh && c.opened && (c.retention !== 'c-clips' || c.pinionComesOut),
    (c) => ({
      title: 'Seals that can be reached only now',
      does: [
        ...(c.retention === 'c-clips' ? [] : ['Inner tube seals, before the carrier blocks them.']),
        ...(c.pinionComesOut ? ['Baffle of the pinion.'] : []),
        'While it is open: shaft seals and vent too.',
      ],
      tools: ['race-drivers'],
      parts: ['seals'],
      after: ['inspect', 'races-in'],
      closedBy: c.depthOpen || c.positionOpen ? 'trial-carrier' : 'carrier-final',
      records: [text('which', 'Which were renewed')],
      pass: 'Done before the carrier blocks them.',
      fails: 'Left for the next job they open the axle again.',
      minutes: 25,
    }),
  ),
  operation(
    'case',
    'locker-rings',
    (c) => c.unit === 'locker' && c.mesh && c.lockerRings === 'first-fitting',
    (c) => ({ ...lockerRings, after: ['locker-parts', ...(pressedLate(c) ? [] : ['carrier-bearings'])] }),
  ),
  operation('case', 'pinion-drag', ({ dragRead }) => dragRead, {
    title: 'Drag of the pinion that stays',
    answers: ['drag-compared'],
    does: [
      'Carrier out: oiled, several turns, steady. The pinion alone: new side bearings and seals are not in it.',
      'Against what its sheet says of bearings that have run, and what it was before.',
    ],
    tools: ['turning-wrench'],
    after: ['carrier-out'],
    closedBy: 'carrier-final',
    records: [
      {
        id: 'drag',
        label: 'Turning torque of the pinion alone',
        sheet: 'pinionTorqueUsed',
        of: 'number',
        quantity: 'torque',
        scale: 'turning',
        range: { min: 0, max: 100, unit: 'N·m' },
      },
    ],
    pass: 'Even all round, and no less than bearings that have run.',
    fails: 'Rough or gone: the pinion comes out after all, and that is said among the facts of the job.',
    minutes: 10,
  }),
] as const satisfies readonly Recipe[];
