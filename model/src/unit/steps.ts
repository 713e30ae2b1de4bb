import { INSERT_FIT_MM, pressedLate, figure, section } from '@hot-spline/core';
import { choice, count, length, operation, run, text, yes } from '../frame/operation';

/** Sealing rings of a locker, oiled and flat. */
const lockerRings = {
  drawing: section(['locker-rings']),
  title: 'Sealing rings of the locker on',
  acts: ['locker-rings'],
  does: ['Grooves clean, rings oiled and flat, not twisted. Seal housing on its own side; o-rings with it.'],
  records: [yes('flat', 'Rings flat and oiled, not twisted')],
  pass: 'Flat all round.',
  fails: 'A twisted ring: a new one. It leaks where nobody sees it.',
  minutes: 15,
} as const;

/** The unit on the bench: common practice, no published source. */
export const unitSteps = [
  run(
    'unit',
    [
      operation('unit', 'open-carrier', ({ unit }) => unit === 'insert', {
        drawing: figure('dummy-pin'),
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
          drawing: section(['side-gear-left', 'side-gear-right']),
          title: 'Threaded washers of the stub bolts in',
          does: ['They go in while the unit is open: easily forgotten, and then all of it comes apart again.'],
          tools: [],
          after: ['inspect', 'open-carrier'],
          closedBy: c.unit === 'insert' ? ('close-carrier' as const) : ('close-plate' as const),
          records: [count('washers', 'Threaded washers in')],
          pass: 'One a side is in.',
          fails: 'Not in the kit: stop, and order them.',
          minutes: 5,
        }),
      ),
    ],
    'stack',
  ),
  run('unit', [
    operation(
      'unit',
      'open-unit',
      ({ unit, unitKind, unitOpened }) =>
        !unitOpened && (unit === 'new-opened' || unit === 'own-overhauled') && unitKind !== 'geared',
      {
        drawing: section(['carrier', 'insert']),
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
      drawing: section(['insert'], 'insert-gap'),
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
      drawing: section(['insert', 'cross-pin', 'carrier']),
      title: 'Insert in, carrier closed',
      does: [
        'Side gears, insert, spiders exactly opposite, washers by place; the pin slides through.',
        'Pins that held the insert for fitting come out last, and are counted.',
      ],
      after: ['fit-insert', 'stub-washers'],
      returns: [{ part: 'Spider gears' }, { part: 'Spider washers' }, { part: 'Side gears', count: 2 }],
      records: [
        yes('pins', 'Holding pins out, counted'),
        yes('mesh', 'Spiders turn, with play, without a tight place'),
      ],
      pass: 'It turns without a tight place.',
      fails: 'Tight: out again; the faces, not force.',
      minutes: 30,
    }),
    operation(
      'unit',
      'oil-geared',
      (c) => c.unitKind === 'geared' && ['new-closed', 'new-opened', 'own-overhauled'].includes(c.unit),
      (c) => ({
        drawing: section(['insert']),
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
      drawing: figure('serials'),
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
  ]),
  run(
    'case',
    [
      operation(
        'case',
        'locker-rings',
        (c) => c.unit === 'locker' && c.mesh && c.lockerRings === 'first-fitting',
        (c) => ({
          ...lockerRings,
          after: ['locker-parts', ...(pressedLate(c) ? [] : (['carrier-bearings'] as const))],
        }),
      ),
    ],
    'inner-seals',
  ),
  // After the dry trial, when nothing comes out any more.
  run('locker-rings', [
    operation(
      'final',
      'locker-rings',
      (c) => c.unit === 'locker' && (!c.mesh || c.lockerRings === 'after-dry-trial'),
      (c) => ({
        ...lockerRings,
        after: ['locker-parts', 'carrier-bearings', 'gate-a', 'carrier-again'],
        behind: c.mesh ? 'A' : null,
      }),
    ),
  ]),
] as const;

/** What its steps buy. */
export const unitParts = {
  insert: { name: 'Friction insert with its threaded washers', count: 1, mind: 'The washers go in before it closes.' },
} as const;
