import {
  bearingEarly,
  hasAdjusters,
  hasCover,
  pressedLate,
  seenThroughCover,
  stripped,
  tried,
  type Case,
  figure,
  section,
} from '@hot-spline/core';
import { operation, run, spreading, text, torque, yes, type Piece } from '../frame/operation';

/** What comes off and goes on with the carrier of a set that meshes. */
const carrierPieces = (c: Case): readonly Piece[] => [
  { part: 'Carrier', count: 1 },
  ...(hasAdjusters(c) ? [] : [{ part: 'Side shims, left and right' }]),
  ...(c.caps
    ? [
        { part: 'Bearing caps', count: 2 },
        { part: 'Cap bolts', count: 4 },
      ]
    : [{ part: 'Side covers' }, { part: 'Side cover bolts' }]),
];

/** What the mesh reads as it came: through the cover of an integral axle, on the bench where the rest is out. */
const readingsBefore = (when: (c: Case) => boolean) =>
  operation(
    'in',
    'readings-before',
    (c) => c.mesh && stripped(c) && when(c),
    (c) => ({
      drawing: section(['ring', 'pinion'], 'indicator-tooth'),
      title: c.newGears ? 'Readings before, if somebody wants them' : 'Readings before: they are the target',
      acts: ['mesh-read-before'],
      does: [
        ...(hasCover(c) && !seenThroughCover(c) ? ['Cover off: look which way it fits.'] : []),
        'Backlash round the ring and the pattern on both flanks, before anything is loosened.',
        ...(c.propOff || !c.inCar ? ['Turning drag at the flange, play and noise.'] : ['Play and noise.']),
      ],
      tools: ['indicator', 'paste', 'turning-wrench'],
      after: ['drain', 'housing-out', 'unit-out'],
      closedBy: 'carrier-out',
      takes: hasCover(c) && !seenThroughCover(c) ? [{ part: 'Cover bolts' }] : [],
      pass: 'Written down before anything is loosened.',
      fails: c.newGears
        ? 'With another pair the old mesh is no target.'
        : 'Without it the sheet’s band and the worn contact’s own place are all there is, and that is said.',
      place: { sheet: 'baseline' },
      minutes: 30,
    }),
  );

/** The carrier goes back, or has stayed in since it was tried and is torqued for good. */
function carrierTitle(c: Case): string {
  const bolts = c.caps ? 'caps' : 'side covers';
  const locks = hasAdjusters(c) ? ', locks on' : '';
  return c.carrierAgain || !tried(c)
    ? `Carrier back, ${bolts} to torque${locks}`
    : `${c.caps ? 'Caps' : 'Side covers'} to torque for good${locks}`;
}

/** Run-out of a ring that was off, once the carrier is in. */
const runOut = (when: (c: Case) => boolean, follows: 'trial-carrier' | 'carrier-final') =>
  operation('loop', 'run-out', (c) => c.ringComesOff && when(c), {
    drawing: section(['ring'], 'indicator-ring-back'),
    title: 'Run-out of the ring',
    shows: ['runout'],
    does: ['Several turns, same direction, same speed.'],
    tools: ['indicator'],
    after: [follows],
    pass: 'Within the limit of the sheet.',
    fails: 'More: a burr, the bolts, the flange.',
    place: { sheet: 'carrier', fields: ['runout'] },
    minutes: 10,
  });

/** The bearing that runs, on the pinion: at once where no shim lies under it, else behind Gate A. */
const pinionBearing = (early: boolean) =>
  operation(
    'final',
    'pinion-bearing',
    (c) => c.depthOpen && bearingEarly(c) === early,
    (c) => ({
      drawing: figure('press'),
      title: 'Final pinion bearing',
      acts: ['pinion-bearing-final'],
      does: [
        c.depthShim === 'head-bearing'
          ? 'The shim under it: count the pieces. Pipe on the race, heat, press.'
          : 'No shim under it here. Pipe on the race, heat, press.',
      ],
      tools: ['press', 'race-drivers', 'heat', 'gloves'],
      parts: c.pinionBearings === 'new' ? ['pinion-bearings'] : [],
      after: early ? ['races-in', 'start-shim'] : ['gate-a', 'carrier-again'],
      behind: early ? null : 'A',
      returns:
        c.construction === 'transaxle'
          ? []
          : [
              ...(c.depthShim === 'head-bearing' ? [{ part: 'Pinion shims' }] : []),
              { part: 'Pinion bearings', count: 2 },
            ],
      records: [...(c.depthShim === 'head-bearing' ? [text('pieces', 'Pieces under it')] : []), yes('home', 'Home')],
      pass: 'Home, with the pieces that were approved.',
      fails: 'A piece left out is a depth error: off again.',
      caution: 'Hot bearing, loaded press: gloves and face shield. By the race, never the cage.',
      place: { sheet: 'baseline', tab: 'stack' },
      minutes: 25,
    }),
  );

/** Side bearings on: at once, unless the shims lie under them. */
const bearingsOn = (when: (c: Case) => boolean) =>
  operation(
    'carrier',
    'carrier-bearings',
    (c) => c.sidePress && when(c),
    (c) => ({
      drawing: figure('press'),
      title: pressedLate(c) ? 'Carrier bearings on, shims under them' : 'Carrier bearings on',
      acts: ['side-bearing-press'],
      does: ['On the inner race only; a recess for a proud spigot.', 'Size by side: look at the number again.'],
      tools: ['press', 'race-drivers', 'heat'],
      parts: c.sideBearings === 'new' ? ['side-bearings'] : [],
      after: ['bearings-off', 'ring-bolts', ...(pressedLate(c) ? (['gate-a', 'carrier-again'] as const) : [])],
      behind: pressedLate(c) ? 'A' : null,
      returns: [{ part: 'Side bearings', count: 2 }],
      records: [text('numbers', 'Numbers, left and right'), yes('home', 'Home, cage untouched')],
      pass: 'Home on both sides, cage untouched.',
      fails: 'Sides swapped: off again, and the bearing with it.',
      caution: 'Never press by the cage.',
      minutes: 20,
    }),
  );

/** Depth, backlash and pattern, from how it came to what is closed: common practice, no published source. */
export const meshSteps = [
  run('get-in', [readingsBefore(seenThroughCover)], 'drain'),
  run('get-in', [readingsBefore((c) => !seenThroughCover(c))], 'unit-out'),
  run(
    'get-in',
    [
      operation(
        'in',
        'measure-shims',
        ({ opened }) => opened,
        (c) => ({
          drawing: figure('pieces'),
          title:
            c.arrives === 'parts'
              ? 'Measure every shim that came along'
              : c.mesh
                ? 'Measure every shim that came out'
                : 'Measure the shim that came out',
          does: ['Clean, no oil. Each piece, then the pack as a whole; write the number on it.'],
          tools: ['micrometer'],
          after: ['carrier-out', 'pinion-out'],
          pass: 'The pack agrees with the sum of its pieces.',
          fails: 'A burr, oil or the wrong count: measure again.',
          place: { sheet: 'baseline', tab: 'came' },
          minutes: 20,
        }),
      ),
    ],
    'bearings-off',
  ),
  run(
    'carrier',
    [
      operation('carrier', 'compare-carriers', (c) => c.newCarrier && c.arrives !== 'parts', {
        drawing: section(['carrier'], 'race-to-flange'),
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
    ],
    'pin-pass',
  ),
  run('carrier-bearings', [bearingsOn((c) => !pressedLate(c))]),
  run('inboard-bearings', [bearingsOn(pressedLate)]),
  // What a trial needs first: a starting shim, and a pinion unit that is finished where nothing of it can be undone.
  run('pinion-first', [
    operation('loop', 'start-shim', ({ depthOpen }) => depthOpen, {
      drawing: section(['pinion-shim']),
      title: 'Starting pinion shim',
      does: [
        'From the shim that came out, by marks, by a chain of lengths, by the chart, by gauge, or by experience.',
        'The chart is a guess until a pattern agrees.',
      ],
      parts: ['shim-kit'],
      after: ['measure-shims', 'races-in'],
      pass: 'It can be built from stock.',
      fails: 'Order shims of the seat.',
      place: { sheet: 'depth' },
      minutes: 15,
    }),
    operation('box', 'pinion-pack', (c) => c.construction === 'transaxle' && c.depthOpen, {
      drawing: section(['pinion-shim', 'bearing-plate']),
      title: 'Pinion pack and bearing plate',
      does: [
        'Mark on the pinion, chain of lengths, thickness of the gasket in the kit, pieces.',
        'Pinion shaft alone first; retaining plate, tabs held while turning.',
      ],
      tools: ['micrometer', 'torque-wrench'],
      after: ['measure-shims'],
      records: [
        {
          id: 'gasket',
          label: 'Gasket in the kit',
          of: 'number',
          quantity: 'length',
          scale: 'small',
          range: { min: 0, max: 5, unit: 'mm' },
        },
        torque('plate', 'Retaining plate'),
      ],
      pass: 'The pack is the sum of its pieces.',
      fails: 'Measure again: burr, oil or miscount.',
      place: { sheet: 'depth' },
      minutes: 40,
    }),
    pinionBearing(true),
  ]),
  run('loop', [
    operation(
      'loop',
      'pinion-trial',
      ({ depthOpen }) => depthOpen,
      (c) => ({
        drawing: section(['pinion', 'pinion-shim', 'head-bearing']),
        title: c.depthShim === 'support' ? 'Support in for trial' : 'Pinion in for trial',
        acts: ['pinion-trial'],
        does: {
          'head-bearing': [
            c.bearings === 'set-up'
              ? 'Set-up bearings: honed to slide.'
              : 'The real bearing pressed on: it comes off each round.',
            'Old nut filed free, old spacer or none. No play, and a drag that the hand feels.',
          ],
          cup: [
            'The bearing that runs is on the pinion; the cup slides, or comes out each round, with the shim behind it.',
            'Old nut filed free, old spacer or none. No play, and a drag that the hand feels.',
          ],
          support: [
            'The finished pinion unit on its shim, a few bolts, no o-ring and no compound yet.',
            'Does the pinion pass the ring as it goes in? Where it does not, the adjusters move, and the notches are written down.',
          ],
          'box-shaft': [
            'The pinion shaft alone in its plate: gears loosely on, or a sleeve in their place; the other shaft and the forks out.',
            'Nut at its torque, plate on the shim that was worked out.',
          ],
          none: [],
        }[c.depthShim],
        tools: [
          ...(c.bearings === 'set-up' ? (['set-up-bearings'] as const) : (['press', 'puller'] as const)),
          'flange-holder',
          'turning-wrench',
        ],
        after: [
          'start-shim',
          'races-in',
          'pinion-pack',
          ...(c.depthShim === 'head-bearing' ? [] : (['pinion-bearing'] as const)),
          ...(c.depthShim !== 'head-bearing' && c.pinionFirst ? (['pinion-preload'] as const) : []),
        ],
        pass: 'Turns, no play, and the state is written down.',
        fails: 'Play: a little more nut.',
        place: { sheet: 'mesh' },
        minutes: 20,
      }),
    ),
    operation('loop', 'depth', (c) => c.depthOpen && (c.depth !== 'pattern-first' || c.depthShim === 'box-shaft'), {
      drawing: section(['pinion'], 'depth-gauge'),
      title: 'Measure depth',
      shows: ['mountingDistance'],
      acts: ['depth-proven'],
      answers: ['depth'],
      does: ['Gauge, or bore diameter, cap depth and depth calliper: axis to head.'],
      tools: ['depth-gauge'],
      after: ['pinion-trial'],
      closedBy: 'trial-carrier',
      pass: 'Within the mark on the pinion.',
      fails: 'Shim by the difference.',
      place: { sheet: 'depth' },
      minutes: 15,
    }),
    operation('loop', 'trial-carrier', tried, (c) => ({
      drawing: section(['carrier']),
      title:
        c.unit === 'locker' && c.lockerRings === 'after-dry-trial'
          ? 'Carrier in for trial, dry: without its sealing rings'
          : 'Carrier in, side preload for trial',
      acts: c.unit === 'locker' && c.lockerRings === 'after-dry-trial' ? ['locker-trial'] : [],
      shows: ['capTorque', ...(hasAdjusters(c) ? ['adjusterTorque'] : ['carrierPreload'])],
      does: {
        'integral-head-shim': [
          {
            spreader: 'Starting shims in by side, spread below the limit, caps by their marks.',
            lever:
              'Starting shims in by side, the last one by a lever with a soft fulcrum, evenly; caps by their marks.',
            none: 'Starting shims in by side, by hand or with a soft hammer; caps by their marks.',
          }[c.spread],
        ],
        'integral-inboard': ['Starting shims under set-up side bearings, caps by their marks.'],
        'integral-adjusters': [
          'By the sheet’s own sequence. Without one: far side in to its preload, ring side to lash; lash short: ring side out, far side in, the same number of notches; the last move is the far side in.',
          'Caps to torque, read again: too loose means begin again; both end on a lock notch.',
        ],
        'drop-out': [
          'Ring side to zero backlash, then the other side notch by notch; read after each what a notch gives.',
        ],
        independent: ['Old shims in their old places, side covers, cover.'],
        transaxle: ['Old shims or rings in their old places.'],
        'electric-reduction': [],
      }[c.construction],
      tools: [
        'indicator',
        ...spreading(c),
        ...(hasAdjusters(c) ? (['adjuster-wrench'] as const) : []),
        'torque-wrench',
      ],
      after: [
        'clearances',
        ...(c.ringPlacedBy === 'inboard-shims' ? [] : (['carrier-bearings'] as const)),
        'inner-seals',
        'pinion-drag',
        'depth',
        'pinion-trial',
        'machining',
        'measure-shims',
        ...(c.lockerRings === 'first-fitting' ? (['locker-rings'] as const) : []),
      ],
      asks: c.spread === 'spreader' ? ['spreadLimit'] : [],
      returns: [...carrierPieces(c)],
      pass: 'Shims or notches each side, caps and preload written down.',
      fails: 'One adjuster far in and the other far out, or a rub: stop before painting.',
      caution: `Hold it until the second cap is on.${c.spread === 'none' ? '' : ' Opening the case too far cracks it.'}`,
      place: { sheet: 'carrier' },
      eachRound: true,
      minutes: 30,
    })),
    runOut(tried, 'trial-carrier'),
    operation('loop', 'backlash', tried, {
      drawing: section(['ring'], 'indicator-tooth'),
      title: 'Backlash',
      shows: ['backlash'],
      answers: ['backlash'],
      does: ['Indicator square to the tooth. All round, caps and side preload as they are.'],
      tools: ['indicator'],
      after: ['trial-carrier', 'run-out'],
      pass: 'In the sheet’s band, closing up counted.',
      fails: 'Too much: ring to the pinion; too little: away.',
      place: { sheet: 'mesh' },
      eachRound: true,
      minutes: 15,
    }),
    operation('loop', 'pattern', tried, {
      drawing: figure('paste'),
      title: 'Pattern, both flanks',
      answers: ['pattern'],
      does: [
        'Paste on four or five teeth, brake on the ring, both directions. Photo.',
        'At several places round the ring where they differ: a change once a turn is a cocked seat, not depth.',
      ],
      tools: ['paste', 'camera'],
      after: ['backlash'],
      pass: 'Centred, off all edges; a little toward the toe is fine.',
      fails: 'Depth first, then heel and toe.',
      place: { sheet: 'mesh' },
      eachRound: true,
      minutes: 20,
    }),
    operation('loop', 'next-move', tried, {
      drawing: section(['pinion-shim', 'shim-left', 'shim-right', 'adjuster-left', 'adjuster-right']),
      title: 'Next move, until both are right',
      does: [
        'One move that is large enough to be seen teaches; then split it. After each depth move give the backlash back.',
      ],
      after: ['pattern'],
      pass: 'Backlash and pattern right together.',
      fails: 'Another round: the sheet proposes pinion shim and both sides from stock.',
      place: { sheet: 'mesh' },
      eachRound: true,
      minutes: 60,
    }),
    operation('loop', 'float-trial', ({ floatOpen }) => floatOpen, {
      drawing: section(['shaft-left'], 'indicator-shaft'),
      title: 'End float while tried',
      shows: ['endFloat'],
      answers: ['float'],
      does: ['Case snug, shaft pulled and pushed against the indicator; tap it home, and again.'],
      tools: ['indicator'],
      after: [
        'measure-shims',
        'inspect',
        'close-plate',
        'oil-geared',
        'locker-parts',
        'close-carrier',
        'carrier-bearings',
        'ring-bolts',
      ],
      pass: 'In the sheet’s band.',
      fails: 'New shim = old + measured − wanted.',
      place: { sheet: 'carrier' },
      eachRound: true,
      minutes: 20,
    }),
  ]),
  run('final', [
    operation(
      'final',
      'carrier-again',
      (c) => c.carrierAgain,
      (c) => ({
        drawing: section(['carrier']),
        title:
          c.depthOpen && c.depthShim !== 'support'
            ? 'Carrier out again, for the final pinion'
            : c.unit === 'locker'
              ? 'Carrier out again, for its sealing rings'
              : c.ringPlacedBy === 'covers'
                ? 'Covers off again, for their o-rings'
                : 'Carrier out again, for its final bearings',
        does: ['Shims stay by side, caps by their marks. Adjusters: count the notches.'],
        tools: ['trays', ...spreading(c)],
        after: ['gate-a'],
        takes: [...carrierPieces(c)],
        pass: 'All of it in its trays.',
        fails: '',
        caution: c.caps ? 'It falls out when the second cap goes.' : null,
        minutes: 15,
      }),
    ),
    operation('final', 'cup-home', (c) => c.depthShim === 'cup' && c.depthOpen, {
      drawing: section(['head-cup', 'pinion-shim']),
      title: 'Cup home on the approved shim',
      does: ['Shim counted behind it; driven or drawn in until the sound changes, no gap.'],
      tools: ['race-drivers', 'soft-hammer'],
      after: ['gate-a', 'carrier-again'],
      behind: 'A',
      returns: [{ part: 'Pinion shims' }],
      records: [text('pieces', 'Pieces behind it'), yes('home', 'Home, no gap')],
      pass: 'Home, with the pieces that were approved.',
      fails: 'A piece left out is a depth error: out again.',
      minutes: 20,
    }),
    pinionBearing(false),
    operation(
      'final',
      'support-back',
      (c) => c.construction === 'drop-out' && c.pinionComesOut,
      (c) => ({
        drawing: section(['support', 'support-oring']),
        title: 'Support in for good',
        acts: ['support-oring'],
        does: ['Out once more: o-ring, round or square as it was, the approved shim, sealant, bolts to torque.'],
        tools: ['torque-wrench'],
        parts: ['seals'],
        after: ['pinion-preload', ...(c.depthOpen ? (['gate-a'] as const) : [])],
        behind: c.depthOpen ? 'A' : null,
        returns: [
          ...(c.depthOpen ? [{ part: 'Pinion shims' }] : []),
          { part: 'Support bolts' },
          { part: 'Support o-ring', count: 1 },
        ],
        records: [torque('support', 'Support bolts')],
        pass: 'Backlash unchanged.',
        fails: 'Another shim than the approved one, or a twisted o-ring.',
        minutes: 15,
      }),
    ),
  ]),
  run('final-close', [
    operation(
      'final',
      'carrier-final',
      (c) => c.mesh && c.opened,
      (c) => ({
        acts: ['carrier-final'],
        drawing: section(['carrier'], 'cap-marks'),
        title: carrierTitle(c),
        shows: hasAdjusters(c) ? ['adjusterTorque'] : [],
        does: [
          ...(c.construction === 'integral-head-shim'
            ? [
                {
                  spreader: 'Spread below the limit, shims by side.',
                  lever: 'Shims by side, the last one by a lever with a soft fulcrum.',
                  none: 'Shims by side.',
                }[c.spread],
              ]
            : []),
          c.caps
            ? 'Caps by their marks. Every cap bolt is ticked twice.'
            : 'Side covers by their marks. Every bolt is ticked twice.',
          ...(c.ringPlacedBy === 'covers' ? ['New o-rings and seals of the covers, greased.'] : []),
          ...(hasAdjusters(c) ? ['Locks on.'] : []),
        ],
        tools: ['torque-wrench', ...spreading(c)],
        after: [
          'gate-a',
          'carrier-again',
          'carrier-bearings',
          'support-back',
          'pinion-preload',
          'seal-flange',
          'pinion-bearing',
          'locker-rings',
          'close-plate',
          'close-carrier',
          'ring-bolts',
          'inner-seals',
          'pinion-drag',
        ],
        behind: c.carrierAgain ? 'A' : null,
        asks: c.caps ? ['capTorque'] : [],
        returns: [
          ...(c.carrierAgain || !tried(c) ? [...carrierPieces(c)] : []),
          ...(hasAdjusters(c) ? [{ part: 'Adjuster locks', count: 2 }] : []),
        ],
        records: [
          torque('torque', c.caps ? 'Cap bolts' : 'Side cover bolts', c.caps ? 'capTorque' : undefined),
          yes('twice', 'Every bolt ticked twice'),
        ],
        pass: 'Every bolt twice.',
        fails: 'One missed: all of them again.',
        caution: 'Hold it until the second cap is on.',
        minutes: 30,
      }),
    ),
    runOut((c) => c.mesh && c.opened && !tried(c), 'carrier-final'),
    operation(
      'final',
      'final-readings',
      (c) => c.mesh && c.opened,
      (c) => ({
        drawing: section(['ring', 'pinion'], 'indicator-tooth'),
        title:
          c.newGears || c.arrives === 'parts' ? 'Final backlash and pattern' : 'Does it repeat what it read before?',
        shows: ['backlash', 'variation'],
        answers: c.newGears || c.arrives === 'parts' ? ['backlash', 'pattern'] : ['backlash', 'repeats-before'],
        does: [
          'All round, both flanks, in the final state.',
          ...(c.newGears
            ? []
            : [
                'Short form with reused gears: how far backlash and pattern repeat those of before, not how well they centre.',
              ]),
        ],
        tools: ['indicator', 'paste', 'camera'],
        after: ['carrier-final', 'pinion-preload', 'support-back'],
        closedBy: c.construction === 'drop-out' ? ('housing-in' as const) : ('cover' as const),
        pass: 'In spec everywhere, pattern unmoved.',
        fails: 'Moved: change side shims, not the pinion.',
        place: { sheet: 'mesh' },
        minutes: 25,
      }),
    ),
  ]),
  run(
    'close',
    [
      operation('close', 'float-final', (c) => !c.mesh && c.opened, {
        drawing: section(['shaft-left'], 'indicator-shaft'),
        title: 'End float, case bolted up',
        shows: ['endFloat'],
        answers: ['float'],
        does: ['Pulled and pushed against the indicator; tap it home, and again.'],
        tools: ['indicator'],
        after: ['close-case'],
        closedBy: 'cover',
        pass: 'In the sheet’s band.',
        fails: 'New shim = old + measured − wanted: open again.',
        place: { sheet: 'carrier' },
        minutes: 15,
      }),
    ],
    'close-case',
  ),
] as const;

/** What its steps buy. */
export const meshParts = {
  'side-bearings': { name: 'Carrier bearings with races', count: 2, mind: 'Sizes left and right may differ.' },
  'pinion-bearings': { name: 'Pinion bearings with races', count: 2, mind: 'Same make as the set-up ones.' },
  'shim-kit': {
    name: 'Pinion shims',
    count: 1,
    mind: 'Every thickness round the starting one, of the seat that it has.',
  },
  seals: { name: 'Inner seals, o-rings, baffle', count: 1, mind: 'Reachable only now. Round or square, as it was.' },
} as const;
