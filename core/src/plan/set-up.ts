import { carrierPieces } from './carrier';
import { hasAdjusters, type Case } from './facts';
import { choice, operation, text, torque, yes, type Recipe } from './operation';

/** A mesh that is tried before it is closed: a setting is still open. */
const tried = (c: Case): boolean => c.depthOpen || c.positionOpen;

/** The box shaft for good, where it is the pinion. */
const gearsOn = (when: (c: Case) => boolean, early: boolean) =>
  operation('box', 'gears-on', (c) => c.construction === 'transaxle' && c.pinionComesOut && when(c), {
    title: 'Gears on the shaft, nut, lock tab',
    acts: ['gears-on-shaft'],
    does: [
      'Every gear, sleeve and washer in its order; what is pressed is warmed. Nut to torque, run-out, the tab last.',
    ],
    tools: ['press', 'heat', 'torque-wrench', 'v-blocks'],
    after: early ? ['inspect'] : ['gate-a', 'carrier-again'],
    behind: early ? null : 'A',
    returns: [
      { part: 'Pinion shaft', count: 1 },
      { part: 'Gears of the pinion shaft' },
      { part: 'Bearing plate and its shims' },
      { part: 'Shaft nut', count: 1 },
    ],
    records: [torque('nut', 'Shaft nut')],
    pass: 'Order as on the sheet, tab bent last.',
    fails: 'One over or missing: apart again.',
    caution: 'Hot gears, loaded press: gloves and face shield.',
    minutes: 60,
  });

/** The cup with the approved shim behind it. */
const cupHome = operation('final', 'cup-home', (c) => c.depthShim === 'cup' && c.depthOpen, {
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
});

/** The carrier goes back, or has stayed in since it was tried and is torqued for good. */
function carrierTitle(c: Case): string {
  const bolts = c.caps ? 'caps' : 'side covers';
  const locks = hasAdjusters(c) ? ', locks on' : '';
  return c.carrierAgain || !tried(c)
    ? `Carrier back, ${bolts} to torque${locks}`
    : `${c.caps ? 'Caps' : 'Side covers'} to torque for good${locks}`;
}

/** Run-out of a ring that was off, once the carrier is in. */
function runOut(when: (c: Case) => boolean, follows: string) {
  return operation('loop', 'run-out', (c) => c.ringComesOff && when(c), {
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
}

/** A spacer is crushed; on a box shaft nut and plate give the preload. */
const crushes = (c: Case): boolean => c.spacer === 'collapsible' && c.depthShim !== 'box-shaft';
/** The bearing on the pinion may be the one that runs before depth is settled: no shim lies under it. */
const bearingEarly = (c: Case): boolean => c.pinionFirst || c.depthShim !== 'head-bearing';

/** Pinion and its preload for good: before the mesh is tried where nothing of it can be undone, else behind Gate A. */
function pinionForGood(early: boolean) {
  const when = (c: Case): boolean => c.pinionFirst === early;
  return [
    operation(
      'final',
      'pinion-bearing',
      (c) => c.depthOpen && bearingEarly(c) === early,
      (c) => ({
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
    ),
    operation(
      'final',
      'seal-flange',
      (c) => c.mesh && c.pinionComesOut && c.construction !== 'transaxle' && when(c),
      (c) => ({
        title: 'Spacer, tail bearing, seal, flange, nut',
        shows: ['pinionNutTorque'],
        acts: ['seal-in'],
        does: [
          'Trial bearing, spacer and nut off; new spacer, oiled tail bearing, seal, flange, new nut.',
          'Clean with what leaves no oil. Compound by place: seats, seal rim, spline cavity, nut threads.',
          'Started means finished before it sets.',
        ],
        tools: ['washer-tank', 'stone', 'race-drivers', 'flange-holder'],
        parts: ['pinion-seal', 'pinion-nut', 'compound'],
        after: ['pinion-bearing', 'cup-home', ...(early ? ['races-in'] : ['gate-a', 'carrier-again'])],
        behind: early ? null : 'A',
        returns: [
          { part: 'Pinion', count: 1 },
          { part: 'Spacer', count: 1 },
          ...(c.depthOpen ? [] : [{ part: 'Pinion shims' }, { part: 'Pinion bearings', count: 2 }]),
          { part: 'Pinion seal', count: 1 },
          { part: 'Flange', count: 1 },
          { part: 'Pinion nut', count: 1 },
        ],
        records: [
          // A race that spins eats its shim; oil creeps along splines that are dry (common practice).
          ...(
            [
              ['seats', 'Seats of the races'],
              ['rim', 'Rim of the seal'],
              ['cavity', 'Splines of the flange'],
              ['threads', 'Threads of the nut'],
            ] as const
          ).map(([id, label]) =>
            choice(id, label, ['retaining compound', 'sealant', 'threadlocker', 'none needed'], []),
          ),
          yes('face', 'Flange face smooth where the seal runs'),
        ],
        pass: 'Finished before it sets; splines sealed.',
        fails: 'Stopped: clean it all and begin again.',
        minutes: 25,
      }),
    ),
    gearsOn(when, early),
    operation('final', 'seal-drag', (c) => c.mesh && c.pinionComesOut && crushes(c) && when(c), {
      title: 'Drag of the seal alone',
      does: [
        'The nut run on until the bearings still have play: turned steadily, what drags is the seal alone.',
        'It is taken off every reading from here on: once the spacer is crushed it can’t be read any more.',
      ],
      tools: ['turning-wrench'],
      after: ['seal-flange'],
      closedBy: 'pinion-preload',
      pass: 'Read while there is play.',
      fails: 'Tight already: the seal out again, or both readings with it in are compared and no more.',
      place: { sheet: 'preload', tab: 'pinion', fields: ['seal-drag'] },
      minutes: 5,
    }),
    operation(
      'final',
      'pinion-preload',
      (c) => c.mesh && c.pinionComesOut && when(c),
      (c) => ({
        title: c.depthShim === 'support' ? 'Pinion preload, the unit in a vice' : 'Pinion preload',
        acts: crushes(c) ? ['crush', 'pinion-preload-read'] : ['pinion-preload-read'],
        answers: ['pinion-preload'],
        does:
          c.depthShim === 'box-shaft'
            ? ['By its nut and its plate, no spacer that crushes: nut at torque, turned several times, oiled.']
            : crushes(c)
              ? [
                  c.depthShim === 'support'
                    ? 'The first of the crush by the nut, or in a press where the unit fits one. Then by the steps that Preload gives, oiled, read after each.'
                    : 'The first of the crush by the nut, with a long holder. Then by the steps that Preload gives, oiled, read after each.',
                  'It rises late and then fast: a reading that stands still says nothing of the next.',
                ]
              : ['Shims under the spacer, nut to its full torque, read oiled. More shim, less torque.'],
        tools: ['turning-wrench', 'flange-holder', ...(crushes(c) ? [] : (['torque-wrench'] as const))],
        parts: crushes(c) ? ['collapsible-spacers'] : c.spacer === 'solid' ? ['preload-shims'] : [],
        after: ['seal-flange', 'seal-drag', 'gears-on', 'pinion-bearing'],
        behind: early ? null : 'A',
        asks: ['pinionTorqueNew', ...(c.spacer === 'solid' ? ['pinionNutTorque'] : [])],
        pass: 'In the sheet’s band, oiled, turning steadily.',
        fails: crushes(c) ? 'Over: a new spacer. The nut is never backed off.' : 'Another shim under the spacer.',
        caution: 'The nut takes a great torque: a holder that can’t slip.',
        place: { sheet: 'preload', tab: 'pinion', fields: ['pinion-torque', 'state-oil'] },
        minutes: 45,
      }),
    ),
  ] as const;
}

/** The set-up loop, up to Gate A: common practice, no published source. */
/** What a trial needs first: a starting shim, and a pinion unit that is finished where nothing of it can be undone. */
export const PINION_FIRST = [
  operation('loop', 'start-shim', ({ depthOpen }) => depthOpen, {
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
  ...pinionForGood(true),
] as const satisfies readonly Recipe[];

export const LOOP = [
  operation(
    'loop',
    'pinion-trial',
    ({ depthOpen }) => depthOpen,
    (c) => ({
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
      after: ['start-shim', 'races-in', 'pinion-preload', 'pinion-pack', 'pinion-bearing']
        .filter((id) => c.depthShim !== 'head-bearing' || (id !== 'pinion-preload' && id !== 'pinion-bearing'))
        .filter((id) => c.pinionFirst || id !== 'pinion-preload'),
      pass: 'Turns, no play, and the state is written down.',
      fails: 'Play: a little more nut.',
      place: { sheet: 'mesh' },
      minutes: 20,
    }),
  ),
  operation('loop', 'depth', (c) => c.depthOpen && (c.depth !== 'pattern-first' || c.depthShim === 'box-shaft'), {
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
    title:
      c.unit === 'locker' && c.lockerRings === 'after-dry-trial'
        ? 'Carrier in for trial, dry: without its sealing rings'
        : 'Carrier in, side preload for trial',
    acts: c.unit === 'locker' && c.lockerRings === 'after-dry-trial' ? ['locker-trial'] : [],
    shows: ['capTorque', ...(hasAdjusters(c) ? ['adjusterTorque'] : ['carrierPreload'])],
    does: {
      'integral-head-shim': ['Starting shims in by side, spread below the limit, caps by their marks.'],
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
      ...(c.construction === 'integral-head-shim' ? (['spreader'] as const) : []),
      ...(hasAdjusters(c) ? (['adjuster-wrench'] as const) : []),
      'torque-wrench',
    ],
    after: [
      'clearances',
      ...(c.ringPlacedBy === 'inboard-shims' ? [] : ['carrier-bearings']),
      'inner-seals',
      'pinion-drag',
      'depth',
      'pinion-trial',
      'machining',
      'measure-shims',
      ...(c.lockerRings === 'first-fitting' ? ['locker-rings'] : []),
    ],
    asks: c.construction === 'integral-head-shim' ? ['spreadLimit'] : [],
    returns: [...carrierPieces(c)],
    pass: 'Shims or notches each side, caps and preload written down.',
    fails: 'One adjuster far in and the other far out, or a rub: stop before painting.',
    caution: 'Hold it until the second cap is on. Spreading can crack the case.',
    place: { sheet: 'carrier' },
    minutes: 30,
  })),
  runOut(tried, 'trial-carrier'),
  operation('loop', 'backlash', tried, {
    title: 'Backlash',
    shows: ['backlash'],
    answers: ['backlash'],
    does: ['Indicator square to the tooth. All round, caps and side preload as they are.'],
    tools: ['indicator'],
    after: ['trial-carrier', 'run-out'],
    pass: 'In the sheet’s band, closing up counted.',
    fails: 'Too much: ring to the pinion; too little: away.',
    place: { sheet: 'mesh' },
    minutes: 15,
  }),
  operation('loop', 'pattern', tried, {
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
    minutes: 20,
  }),
  operation('loop', 'next-move', tried, {
    title: 'Next move, until both are right',
    does: [
      'One move that is large enough to be seen teaches; then split it. After each depth move give the backlash back.',
    ],
    after: ['pattern'],
    pass: 'Backlash and pattern right together.',
    fails: 'Another round: the sheet proposes pinion shim and both sides from stock.',
    place: { sheet: 'mesh' },
    minutes: 60,
  }),
  operation('loop', 'float-trial', ({ floatOpen }) => floatOpen, {
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
    minutes: 20,
  }),
  operation(
    'loop',
    'gate-a',
    ({ gateA }) => gateA,
    (c) => ({
      title: 'Gate A',
      acts: ['gate-a'],
      does: [c.mesh ? 'Pattern and backlash approved, by name.' : 'End float approved, by name.'],
      after: ['next-move', 'pattern', 'backlash', 'depth', 'float-trial'],
      gate: 'A',
      pass: 'Signed.',
      fails: 'Nothing is pressed, crushed or closed before.',
      place: { sheet: 'gates' },
      minutes: 5,
    }),
  ),
] as const satisfies readonly Recipe[];

/** Final assembly, up to Gate B: common practice, no published source. */
export const FINAL = [
  operation(
    'final',
    'carrier-again',
    (c) => c.carrierAgain,
    (c) => ({
      title:
        c.depthOpen && c.depthShim !== 'support'
          ? 'Carrier out again, for the final pinion'
          : c.unit === 'locker'
            ? 'Carrier out again, for its sealing rings'
            : c.ringPlacedBy === 'covers'
              ? 'Covers off again, for their o-rings'
              : 'Carrier out again, for its final bearings',
      does: ['Shims stay by side, caps by their marks. Adjusters: count the notches.'],
      tools: ['trays', ...(c.construction === 'integral-head-shim' ? (['spreader'] as const) : [])],
      after: ['gate-a'],
      takes: [...carrierPieces(c)],
      pass: 'All of it in its trays.',
      fails: '',
      caution: c.caps ? 'It falls out when the second cap goes.' : null,
      minutes: 15,
    }),
  ),
  cupHome,
  ...pinionForGood(false),
  operation(
    'final',
    'support-back',
    (c) => c.construction === 'drop-out' && c.pinionComesOut,
    (c) => ({
      title: 'Support in for good',
      acts: ['support-oring'],
      does: ['Out once more: o-ring, round or square as it was, the approved shim, sealant, bolts to torque.'],
      tools: ['torque-wrench'],
      parts: ['seals'],
      after: ['pinion-preload', ...(c.depthOpen ? ['gate-a'] : [])],
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
] as const satisfies readonly Recipe[];

/** After the inboard bearings, where there are any. */
export const FINAL_CLOSE = [
  operation(
    'final',
    'carrier-final',
    (c) => c.mesh && c.opened,
    (c) => ({
      acts: ['carrier-final'],
      title: carrierTitle(c),
      shows: hasAdjusters(c) ? ['adjusterTorque'] : [],
      does: [
        ...(c.construction === 'integral-head-shim' ? ['Spread below the limit, shims by side.'] : []),
        c.caps
          ? 'Caps by their marks. Every cap bolt is ticked twice.'
          : 'Side covers by their marks. Every bolt is ticked twice.',
        ...(c.ringPlacedBy === 'covers' ? ['New o-rings and seals of the covers, greased.'] : []),
        ...(hasAdjusters(c) ? ['Locks on.'] : []),
      ],
      tools: ['torque-wrench', ...(c.construction === 'integral-head-shim' ? (['spreader'] as const) : [])],
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
  operation(
    'final',
    'side-preload',
    ({ positionOpen }) => positionOpen,
    (c) => ({
      title: 'Side preload',
      shows: ['carrierPreload', 'totalTorque', 'carrierTorque', 'caseGrowth'],
      answers: ['side-preload'],
      does: [
        c.ringPlacedBy === 'adjusters'
          ? 'As the adjusters were run up by their sequence; or growth of the case across the caps, total less pinion, or the carrier alone.'
          : 'Shims beyond zero play; or growth of the case across the caps, total less pinion, or the carrier alone.',
      ],
      tools: ['indicator', 'turning-wrench'],
      after: ['carrier-final'],
      pass: 'In the band of its method.',
      fails: 'Both sides by the same amount: backlash stays.',
      place: { sheet: 'preload', tab: 'side', fields: ['side-'] },
      minutes: 15,
    }),
  ),
  operation('final', 'total-torque', (c) => c.positionOpen && (c.propOff || !c.inCar), {
    title: 'Total turning torque',
    shows: ['totalTorque'],
    does: ['Carrier in, everything oiled, shafts and prop shaft off: several turns, steady.'],
    tools: ['turning-wrench'],
    after: ['carrier-final', 'pinion-preload', 'side-preload'],
    closedBy: 'shafts-in',
    pass: 'In the band of the sheet, where it has one.',
    fails: 'Over: side preload, a seal, a bearing that is cocked. Below: side preload.',
    place: { sheet: 'preload', tab: 'pinion', fields: ['total-torque'] },
    minutes: 5,
  }),
  runOut((c) => c.mesh && c.opened && !tried(c), 'carrier-final'),
  operation('final', 'locker-line', ({ unit }) => unit === 'locker', {
    title: 'Line or wire of the locker',
    acts: ['leak-test'],
    answers: ['leak'],
    does: [
      'Seal housing and its tube side; two square rings oiled and flat.',
      'Gentle bends, clear of ring, caps and carrier. Bulkhead fitting to what its sheet says: it is small.',
      'The supply is tested by itself first, then the whole for its loss.',
      'Compressor, solenoid, switch. Copper is wound up or broken by what turns.',
    ],
    tools: ['tube-bender', 'pressure-gauge', 'feeler'],
    parts: ['locker-kit'],
    after: ['carrier-final'],
    closedBy: 'cover',
    records: [
      {
        id: 'gap',
        label: 'Least gap to ring, cap or carrier',
        of: 'number',
        quantity: 'length',
        scale: 'plate',
        range: { min: 0, max: 500, unit: 'mm' },
        pass: { atLeast: 3, from: '3 mm, a guard of ours: the maker’s sheet wins' },
        fails: 'It will touch: bent wider, gently, or held by a clip.',
      },
      {
        id: 'fitting',
        label: 'Bulkhead fitting',
        of: 'number',
        quantity: 'torque',
        scale: 'turning',
        range: { min: 0, max: 100, unit: 'N·m' },
        pass: { atMost: 3, from: '3 N·m at most, a guard of ours: its sheet wins' },
        fails: 'Over its torque: a new fitting, its wall is thin.',
      },
      {
        id: 'pressure',
        label: 'Pressure at the start',
        of: 'number',
        quantity: 'pressure',
        range: { above: 0, max: 3000, unit: 'kPa' },
      },
      {
        id: 'pressure-end',
        label: 'Pressure at the end',
        of: 'number',
        quantity: 'pressure',
        range: { min: 0, max: 3000, unit: 'kPa' },
      },
      { id: 'minutes', label: 'Minutes held', of: 'number', quantity: 'count', range: { above: 0, max: 1440 } },
      choice('control', 'Switch, compressor or wiring', ['engages and lets go', 'does not'], ['does not']),
    ],
    pass: 'Holds its pressure, engages, and touches nothing.',
    fails: 'It touches: bend wider, gently. It leaks: rings flat? fitting? then the tube.',
    caution: 'Before it is engaged: both wheels off the ground, nobody near them.',
    minutes: 60,
  }),
  operation(
    'final',
    'final-readings',
    (c) => c.mesh && c.opened,
    (c) => ({
      title: c.newGears || c.arrives === 'parts' ? 'Final backlash and pattern' : 'Does it repeat what it read before?',
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
      closedBy: c.construction === 'drop-out' ? 'housing-in' : 'cover',
      pass: 'In spec everywhere, pattern unmoved.',
      fails: 'Moved: change side shims, not the pinion.',
      place: { sheet: 'mesh' },
      minutes: 25,
    }),
  ),
] as const satisfies readonly Recipe[];

/** A box that is opened with the axle: common practice, no published source. */
const boxSteps = (when: (c: Case) => boolean) =>
  [
    operation('box', 'synchro', (c) => c.box === 'synchro' && when(c), {
      title: 'Synchro gears',
      does: [
        'Anchor blocks, energisers, ring, clip; a worn clip is turned over. Firm drag, no play of the hub on its spline.',
      ],
      tools: ['feeler'],
      after: ['inspect'],
      records: [yes('drag', 'Ring turns with firm drag'), yes('clip', 'Clip in its groove')],
      pass: 'Firm drag, clip in its groove.',
      fails: 'Play of the hub: hub or shaft new.',
      minutes: 60,
    }),
    operation(
      'box',
      'box-shafts',
      (c) =>
        c.box !== 'stays' &&
        c.box !== 'input-float' &&
        !(c.construction === 'transaxle' && c.pinionComesOut) &&
        when(c),
      {
        title: 'Shafts',
        does: [
          'Gears in order: small to large runs opposite on the other shaft. Closed cage face as specified.',
          'Nut to its torque; run-out on the bearing seats, after the torque. Lock tab last.',
        ],
        tools: ['v-blocks', 'indicator', 'torque-wrench', 'heat'],
        after: ['synchro', 'inspect'],
        records: [
          torque('nut', 'Shaft nut'),
          {
            id: 'run-out',
            label: 'Run-out at the bearing seats',
            of: 'number',
            quantity: 'length',
            scale: 'small',
            range: { min: 0, max: 5, unit: 'mm' },
            pass: { atMost: 0.08, from: '0.08 mm, a guard of ours: its builder’s sheet wins' },
          },
        ],
        pass: 'Below 0.08 mm after the torque (ours), or as its builder says.',
        fails: 'Loosen, tap, again.',
        minutes: 60,
      },
    ),
    operation('box', 'drum', (c) => (c.box === 'sequential' || c.box === 'dog') && when(c), {
      title: 'Gear pairs, hubs, forks, drum',
      does: [
        'Pair by place, spacer or dog gap; a hub and a fork for two gears.',
        'Forks, then selector shaft, then drum. One step at a time through all gears and back.',
      ],
      tools: ['feeler'],
      after: ['box-shafts', 'gears-on'],
      records: [yes('through', 'All gears and back, neutral between, one engaged')],
      pass: 'One engaged at a time, neutral between.',
      fails: 'Dog on dog: turn the shaft and try again.',
      minutes: 60,
    }),
  ] as const;
/** A box before the axle; the one whose shaft is the pinion only when its depth is settled. */
const ownBox = ({ construction }: Case): boolean => construction === 'transaxle';
export const BOX = boxSteps((c) => !ownBox(c));
export const OWN_BOX = boxSteps(ownBox);
export const BOX_CLOSE = [
  operation('box', 'input-float', (c) => c.box !== 'stays', {
    title: 'End float of the input',
    answers: ['float'],
    does: [
      'Oil guide seated in its pocket, stop ring in place. Two opposite case bolts snug, other shaft left out.',
      'Pull against the spring, and again.',
    ],
    tools: ['indicator'],
    after: ['box-shafts', 'drum', 'carrier-final', 'gate-a'],
    closedBy: 'cover',
    records: [
      yes('guide', 'Oil guide seated'),
      {
        id: 'float',
        label: 'End float',
        of: 'number',
        quantity: 'length',
        scale: 'small',
        range: { min: 0, max: 5, unit: 'mm' },
      },
      {
        id: 'shim',
        label: 'Shim in it',
        of: 'number',
        quantity: 'length',
        scale: 'small',
        range: { min: 0, max: 20, unit: 'mm' },
      },
      {
        id: 'again',
        label: 'End float, read again',
        of: 'number',
        quantity: 'length',
        scale: 'small',
        range: { min: 0, max: 5, unit: 'mm' },
      },
    ],
    pass: 'In the band of the box’s sheet; straight-cut boxes have their builder’s.',
    fails: 'New shim = old + measured − wanted.',
    minutes: 30,
  }),
] as const satisfies readonly Recipe[];
